import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

/** The snippets of the page that have a file name. */
const snippets = new Map(
  [...readFileSync('docs/library.md', 'utf8').matchAll(/```js file=(\S+)\n([\s\S]*?)```/g)].map(
    ([, name = '', code = '']) => [name, code] as const,
  ),
)

/** A stranger's directory in which the package is installed, with the snippets and the demo's sound build. */
function home(): string {
  const folder = folderWith({ 'package.json': '{"type":"module"}', ...Object.fromEntries(snippets) })
  mkdirSync(join(folder, 'node_modules'))
  symlinkSync(process.cwd(), join(folder, 'node_modules/wardoscope'), 'dir')
  symlinkSync(join(process.cwd(), 'dist/demo/sound'), join(folder, 'sound'), 'dir')
  return folder
}

test.each([
  ['check.mjs', 'clear\n'],
  ['ended.mjs', 'AbortError\n'],
  ['fixes.mjs', "vite.config.js export default { base: '/crossings/' }\n"],
  ['memory.mjs', "[ 'asset/missing' ]\n"],
  ['judged.mjs', "[ 'house/imprint: imprint/index.html has no link to it.' ]\n"],
  ['own-framework.mjs', 'clear skerrybuild out /crossings/\n'],
  ['own-host.mjs', "[ 'asset/withheld' ]\n"],
])('the snippet %s runs as it stands', (name, expected) => {
  const { status, stdout, stderr } = spawnSync('node', [name], { cwd: home(), encoding: 'utf8' })
  expect(stderr).toBe('')
  expect(stdout).toBe(expected)
  expect(status).toBe(0)
})

test('checking a folder takes ten lines', () => {
  expect(snippets.get('check.mjs')?.trim().split('\n').length).toBeLessThanOrEqual(10)
})

test('a check of a configuration module counts on the command line, its code in waivers too', () => {
  const folder = home()
  const site = {
    'site/index.html': '<a href="/imprint/">Imprint</a>',
    'site/imprint/index.html': '<p>Skerry Line</p>',
  }
  for (const [path, text] of Object.entries(site)) {
    mkdirSync(join(folder, path, '..'), { recursive: true })
    writeFileSync(join(folder, path), text)
  }
  const config = ['--config', join(folder, 'wardoscope.config.mjs')]
  const ran = wardoscope([join(folder, 'site'), ...config])
  expect(ran.out).toMatch(/caution {2}A page does not lead to the imprint +house\/imprint/)
  expect(ran.status).toBe(0)
  const holding = [join(folder, 'site'), ...config, '--hold-on', 'caution']
  expect(wardoscope(holding).status).toBe(1)
  // Every form knows the code, not only the terminal.
  const { runs } = JSON.parse(wardoscope([...holding, '--format', 'sarif']).out)
  expect(runs[0].tool.driver.rules[runs[0].results[0].ruleIndex].id).toBe('house/imprint')
  expect(wardoscope([...holding, '--format', 'junit']).out).toMatch(
    /<testcase [^>]*house\.imprint[^>]*>\s*<failure/,
  )
  expect(wardoscope([...holding, '--format', 'html']).out).toContain('The law where we sail')
  // A waiver goes into no second file that would hide the module.
  const waived = wardoscope(['waive', 'asset/missing', folder, '--reason', 'known'])
  expect(waived).toMatchObject({
    status: 2,
    err: expect.stringMatching(/wardoscope\.config\.mjs, which is code/),
  })
})

test.each<[string, string, RegExp]>([
  ['exports nothing', 'export const a = 1', /exports no object|has a key "a"/],
  ['throws', 'throw new Error("no tide tables")', /could not be run: no tide tables/],
  ['is no JavaScript', 'export default {', /could not be run|can't run/],
  [
    'has a check without a function',
    'export default { checks: [{ code: "a/b" }] }',
    /checks\[0\] has no title/,
  ],
  ['has checks that are no list', 'export default { checks: 1 }', /checks is no list/],
  [
    'has a key that is not known',
    'export default { sits: 1 }',
    /has a key "sits" that is not known\. Did you mean site\?/,
  ],
])('a configuration module that %s gets one sentence', (_, code, message) => {
  const folder = folderWith({ 'index.html': '<!doctype html>', 'wardoscope.config.mjs': code })
  const { status, err } = wardoscope([folder, '--config', join(folder, 'wardoscope.config.mjs')])
  expect(status).toBe(2)
  expect(err).toMatch(message)
  expect(err.trim().split('\n')).toHaveLength(1)
})

test('the package has types for every entry, and no entry that is not there', () => {
  const { exports: entries } = JSON.parse(readFileSync('package.json', 'utf8')) as {
    exports: Record<string, string | { types: string; default: string }>
  }
  for (const entry of Object.values(entries)) {
    if (typeof entry === 'string') continue
    expect(readFileSync(entry.types, 'utf8')).toContain('export')
    expect(readFileSync(entry.default, 'utf8')).toContain('export')
  }
})

test('a check of a large folder on disk is ended with its threads', () => {
  const text = `<!doctype html>${'<p>Skerry Line</p>'.repeat(2_000)}`
  const folder = folderWith(Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`p${i}.html`, text])))
  const code = `
    import { checkPath } from 'wardoscope/node'
    const ending = new AbortController()
    const options = { signal: ending.signal, cache: false, onProgress: () => ending.abort() }
    console.log(await checkPath(${JSON.stringify(folder)}, options).catch((error) => error.name))`
  const at = home()
  writeFileSync(join(at, 'large.mjs'), code)
  const { status, stdout, stderr } = spawnSync('node', ['large.mjs'], { cwd: at, encoding: 'utf8' })
  expect([status, stdout, stderr]).toEqual([0, 'AbortError\n', ''])
})
