import fc from 'fast-check'
import { expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { belowProject } from '../../model/project-path.ts'
import { parseSource, SyntaxProblem } from '../../syntax/parse.ts'
import { member } from '../../syntax/value.ts'
import { foldExport } from './evaluate.ts'
import { loadModules } from './modules.ts'

async function base(
  text: string,
  more: Record<string, string> = {},
  file = 'vite.config.ts',
): Promise<unknown> {
  const modules = await loadModules(new MemoryFolder({ [file]: text, ...more }), file)
  const around = {
    argument: { mode: 'production', command: 'build' },
    environment: new Map([['VITE_KNOWN', '/known/']]),
  }
  const value = member(foldExport(modules, file, around), 'base')
  if (value?.kind === 'value')
    return typeof value.value === 'string' ? (belowProject(value.value) ?? value.value) : value.value
  return value?.kind === 'computed' || value?.kind === 'call'
    ? { computed: value.expression, line: value.at.line }
    : value
}

test.each<[string, string, unknown]>([
  ['a literal', "export default { base: '/b/' }", '/b/'],
  ['a wrapper', "export default defineConfig({ base: '/b/' })", '/b/'],
  ['nothing', 'export default {}', null],
  ['a constant', "const b = '/b/'\nexport default { base: b }", '/b/'],
  ['a shorthand', "const base = '/b/'\nexport default { base }", '/b/'],
  ['a template', "const n = 'b'\nexport default { base: `/${n}/` }", '/b/'],
  ['a sum', "const n = 'b'\nexport default { base: '/' + n + '/' }", '/b/'],
  ['a constant object', "const c = { base: '/b/' }\nexport default c", '/b/'],
  [
    'a function of the command',
    "export default defineConfig(({ command }) => ({ base: command === 'build' ? '/b/' : '/' }))",
    '/b/',
  ],
  [
    'a function of the mode',
    "export default ({ mode }) => { if (mode === 'development') return { base: '/' }\nreturn { base: '/b/' } }",
    '/b/',
  ],
  ['an async function', "export default async () => { const b = '/b/'; return { base: b } }", '/b/'],
  ['a named function', "export default function config() { return { base: '/b/' } }", '/b/'],
  ['a spread', "const c = { base: '/b/' }\nexport default { ...c, build: {} }", '/b/'],
  [
    'a conditional spread',
    "const p = false\nexport default { base: '/b/', ...(p && { base: '/no/' }) }",
    '/b/',
  ],
  ['a merge', "export default mergeConfig({ base: '/a/' }, { base: '/b/' })", '/b/'],
  ['NODE_ENV', "export default { base: process.env.NODE_ENV === 'production' ? '/b/' : '/' }", '/b/'],
  ['a default of a variable', "export default { base: process.env.BASE ?? '/b/' }", '/b/'],
  ['a default by or', "export default { base: process.env.BASE || '/b/' }", '/b/'],
  ['a known variable', 'export default { base: process.env.VITE_KNOWN }', '/known/'],
  [
    'loadEnv',
    "const env = loadEnv('production', process.cwd())\nexport default { base: env.VITE_KNOWN }",
    '/known/',
  ],
  ['satisfies and as', "export default { base: '/b/' as string } satisfies UserConfig", '/b/'],
  ['CommonJS', "module.exports = { base: '/b/' }", '/b/'],
  ['a helper function', "const withSlash = (n) => `/${n}/`\nexport default { base: withSlash('b') }", '/b/'],
  ['a path', "export default { base: path.resolve(__dirname, 'x', '../b') }", 'b'],
  ['a file URL', "export default { base: fileURLToPath(new URL('./b', import.meta.url)) }", 'b'],
  ['a switch on an unknown call', 'export default { base: pick() }', { computed: 'pick()', line: 1 }],
  [
    'an unknown variable',
    'export default {\n  base: process.env.BASE }',
    { computed: 'process.env.BASE', line: 2 },
  ],
  ['an unknown spread', 'export default { ...load() }', { computed: '…', line: 1 }],
  [
    'a circle',
    'const a = b\nconst b = a\nexport default { base: a }',
    { computed: '(refers to itself)', line: 3 },
  ],
])('%s', async (_, text, expected) => {
  expect(await base(text)).toEqual(expected)
})

test('relative imports are followed, whatever their ending', async () => {
  const config =
    "import { base } from './shared.js'\nimport other from './other'\nexport default { ...other, base }"
  const more = {
    'shared.ts': "export const base = '/b/'",
    'other/index.ts': "export default { base: '/no/' }",
  }
  expect(await base(config, more)).toBe('/b/')
  expect(
    await base(
      "const c = require('./c.json')\nmodule.exports = c",
      { 'c.json': '{"base":"/j/"}' },
      'x.config.js',
    ),
  ).toBe('/j/')
})

test('what is no program at all says where', () => {
  expect(() => parseSource('a.ts', 'export default {{{')).toThrow(SyntaxProblem)
})

test('whatever is written, nothing is run and nothing is thrown but what can not be parsed', async () => {
  const piece = fc.constantFrom(
    ...[
      'export default',
      'defineConfig(',
      ')',
      '{',
      '}',
      '(',
      '[',
      ']',
      'base',
      ':',
      ',',
      "'/b/'",
      '`/${x}/`',
      '=>',
      'const x =',
      'x',
      ';',
      '...',
    ],
    ...[
      'process.env.A',
      '??',
      '||',
      '&&',
      '? 1 : 2',
      '+',
      'globalThis.ran = true',
      'ran()',
      'function f() {',
      'return',
      'if (x)',
      'class A {',
      'import("./x")',
    ],
    ...[
      'import y from "./y"',
      'new Proxy({}, {})',
      'while (true) {}',
      'f(f(f(',
      '__proto__',
      '.constructor("return 1")()',
      'await',
      'mode === "production"',
      '\n',
    ],
  )
  const text = fc.array(piece, { maxLength: 25 }).map((all) => all.join(' '))
  await fc.assert(
    fc.asyncProperty(text, async (code) => {
      const whole = `globalThis.ran = true\n${code}\nexport const ran = () => { globalThis.ran = true }`
      await base(whole, { 'y.ts': 'globalThis.ran = true\nexport default "/y/"' }).catch((error: unknown) => {
        expect(error).toBeInstanceOf(SyntaxProblem)
      })
      expect('ran' in globalThis).toBe(false)
    }),
    { numRuns: 2_000 },
  )
})
