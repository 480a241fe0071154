import { spawnSync } from 'node:child_process'
import { symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { toBeClearToShip } from '../src/vitest/matcher.ts'
import { folderWith } from './support/folders.ts'

const site = 'https://skerryline.example/crossings/'

test('a sound folder passes, and a faulty one fails with what holds it', async () => {
  const sound = await toBeClearToShip('dist/demo/sound', { site, host: 'fallback' })
  expect(sound.pass).toBe(true)
  expect(sound.message()).toBe(`dist/demo/sound is clear to ship to ${site}, and was expected not to be.`)
  const faulty = await toBeClearToShip('dist/demo/wrong-base', { site, host: 'fallback' })
  expect(faulty.pass).toBe(false)
  expect(faulty.message()).toMatch(
    /^dist\/demo\/wrong-base is held at https:.*\n\n {2}blocker[\s\S]*impact[\s\S]*add base: '\/crossings\/'/,
  )
})

test('what is no path is reported so; a folder that is not there is an error', async () => {
  const number = await toBeClearToShip(7)
  expect(number).toMatchObject({ pass: false })
  expect(number.message()).toContain('this is number')
  await expect(toBeClearToShip('nowhere/at/all', { site })).rejects.toThrow('no directory')
  await expect(toBeClearToShip('dist/demo/sound', { host: 'fallbck' })).rejects.toThrow(
    'Did you mean fallback?',
  )
})

test('a runner that is given it by its package fails and passes as it should', () => {
  const project = folderWith({
    'package.json': '{"type":"module"}',
    'ship.test.ts': `import { expect, test } from 'vitest'
import 'wardoscope/vitest'
test('sound', async () => { await expect('sound').toBeClearToShip({ site: '${site}', host: 'fallback' }) })
test('not at its top', async () => { await expect('sound').not.toBeClearToShip({ site: 'https://skerryline.example/', host: 'fallback' }) })
test('faulty', async () => { await expect('sound').toBeClearToShip({ site: 'https://skerryline.example/', host: 'fallback' }) })
`,
  })
  symlinkSync(join(process.cwd(), 'node_modules'), join(project, 'node_modules'), 'dir')
  symlinkSync(join(process.cwd(), 'dist/demo/sound'), join(project, 'sound'), 'dir')
  writeFileSync(
    join(project, 'vitest.config.ts'),
    `export default { resolve: { alias: { 'wardoscope/vitest': ${JSON.stringify(join(process.cwd(), 'dist/vitest/index.js'))} } } }`,
  )
  const { NODE_ENV: _, VITEST: __, ...env } = process.env
  const { status, stdout, stderr } = spawnSync('npx', ['vitest', 'run', '--reporter=json'], {
    cwd: project,
    encoding: 'utf8',
    env: { ...env, NO_COLOR: '1' },
  })
  const found = JSON.parse(stdout.slice(stdout.indexOf('{'))) as {
    testResults: { assertionResults: { title: string; status: string; failureMessages: string[] }[] }[]
  }
  const results = found.testResults.flatMap(({ assertionResults }) => assertionResults)
  expect(
    results.map(({ title, status: is }) => `${title} ${is}`),
    stderr,
  ).toEqual(['sound passed', 'not at its top passed', 'faulty failed'])
  expect(results[2]?.failureMessages.join('')).toContain('base/wrong-path')
  expect(status).toBe(1)
})

const held = {
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/old/' }",
  'dist/index.html': '<!doctype html><script src="/old/a.js"></script>',
  'dist/a.js': '',
}
const at = { site: 'https://skerryline.example/b/', host: 'files' }

test('a failure names the source, and no line of the build, of a project and of its build folder alike', async () => {
  const home = folderWith(held)
  for (const path of [home, join(home, 'dist')]) {
    const { pass, message } = await toBeClearToShip(path, at)
    expect(pass).toBe(false)
    expect(message()).toMatch(/in source +vite\.config\.js:1/)
    expect(message()).not.toContain('in build')
  }
  const bare = folderWith({ 'index.html': held['dist/index.html'], 'a.js': '' })
  expect((await toBeClearToShip(bare, at)).message()).toContain('in build')
})

test('what the configuration holds on is heeded, and said', async () => {
  const home = folderWith({
    ...held,
    'vite.config.js': "export default { base: '/b/' }",
    'dist/index.html': '<!doctype html><link rel=icon href="/b/gone.png"><script src="/b/a.js"></script>',
    'wardoscope.config.json': '{"holdOn":"caution"}',
  })
  const { pass, message } = await toBeClearToShip(home, at)
  expect(pass).toBe(false)
  expect(message()).toContain('asset/missing')
  const idle = folderWith({
    ...held,
    'vite.config.js': "export default { base: '/b/' }",
    'dist/index.html': '<!doctype html><script src="/b/a.js"></script>',
    'wardoscope.config.json':
      '{"holdOn":"unused-waivers","waivers":[{"code":"endpoint/loopback","reason":"x"}]}',
  })
  const waived = await toBeClearToShip(idle, at)
  expect(waived.pass).toBe(false)
  expect(waived.message()).toContain('Its waivers cover nothing any more: endpoint/loopback')
})
