import { expect, test } from 'vitest'
import { passedWhole } from './passed-whole.ts'
import { Sources } from './sources.ts'

function found(config: string, source = 'start(process.env.STAGE, process.env.API)'): string | null {
  const sources = new Sources(new Map([['src/main.js', source]]))
  const whole = passedWhole(sources, { file: 'site.config.js', text: config })
  return whole && `${whole.place.line}:${whole.place.column} ${whole.text} ${whole.names?.join(' ')}`
}

test.each<[string, string, string | null]>([
  ['as it is', "export default { define: { 'process.env': process.env } }", '1:43 process.env API STAGE'],
  [
    'as text, by its plugin',
    "plugins: [\n  new webpack.DefinePlugin({ 'process.env': JSON.stringify(process.env) }),\n]".replace(
      /^/,
      'module.exports = { ',
    ) + ' }',
    '2:60 process.env API STAGE',
  ],
  [
    'with more beside',
    "export default { define: { 'process.env': { ...process.env, A: 1 } } }",
    '1:48 process.env API STAGE',
  ],
  [
    'files of a mode, without a prefix',
    "export default ({ mode }) => ({ define: { 'process.env': loadEnv(mode, process.cwd(), '') } })",
    "1:58 loadEnv(mode, process.cwd(), '') API STAGE",
  ],
  [
    'by a name',
    "const env = loadEnv('production', '.', ['A_', ''])\nexport default { define: { 'process.env': env } }",
    '2:43 env API STAGE',
  ],
  [
    'a file that was parsed',
    "const { parsed } = 1\nexport default { define: { 'process.env': JSON.stringify(dotenv.config().parsed) } }",
    '2:58 dotenv.config().parsed API STAGE',
  ],
  [
    'data of a framework',
    'export default defineNuxtConfig({ runtimeConfig: { public: { ...process.env } } })',
    '1:65 process.env API STAGE',
  ],
  ['one of them', "export default { define: { 'process.env.A': JSON.stringify(process.env.A) } }", null],
  [
    'files of a mode, with a prefix',
    "export default { define: { 'process.env': loadEnv('m', '.', 'SITE_') } }",
    null,
  ],
  ['to what runs while building', 'run({ env: 1 }); spawn("x", { stdio: process.env })', null],
  [
    'a name of something else',
    'const env = other()\nexport default { define: { x: env, y: process.env.Y } }',
    null,
  ],
  ['what can not be parsed', "export default { define: { 'process.env': process.env", null],
])('the whole environment: %s', (_, config, expected) => {
  expect(found(config)).toBe(expected)
})

test('what the sources read is not known where they hand it on', () => {
  const config = "export default { define: { 'process.env': process.env } }"
  expect(found(config, 'start(process.env)')).toBe('1:43 process.env undefined')
  expect(found(config, 'start(process.env[name])')).toBe('1:43 process.env undefined')
  expect(found(config, 'start()')).toBe('1:43 process.env ')
})
