import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join, relative, resolve } from 'node:path'
import { zipSync } from 'fflate'
import { expect, test } from 'vitest'
import { look } from '../src/bundler/look.ts'
import { checkPath } from '../src/node/check-path.ts'
import { toBeClearToShip } from '../src/vitest/matcher.ts'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const site = 'https://skerryline.example/'
const manifest = (build = 'vite build', dependency = 'vite'): string =>
  JSON.stringify({ name: 'x', scripts: { build }, devDependencies: { [dependency]: '1' } })
const page = (src: string): string =>
  `<!doctype html><title>Skerry Line</title><script type="module" src="${src}"></script>`
const sound = { 'index.html': page('/a.js'), 'a.js': 'export {}' }
const below = (directory: string, files: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(files).map(([path, text]) => [`${directory}/${path}`, text]))

const ownFramework = `export default { frameworks: [{
  name: 'skerrybuild', title: 'Skerrybuild', markers: ['@skerry/build'], configFiles: [], commands: ['skerrybuild'],
  settings: { publishDirectory: { default: 'afloat' }, basePath: { default: '/' } },
  fixes: { setBase: (base) => base, environmentFile: null } }] }`

/** A directory of one's own: a repository, so that its configuration may be code. */
function repository(files: Record<string, string>): string {
  const root = folderWith(files)
  execFileSync('git', ['init', '-q', root])
  return root
}

interface Case {
  readonly root: string
  /** What is named, below the root. */
  readonly path: string
  /** The folder that a bundler would have written; null where it could not have. */
  readonly written: string | null
}

test.each<[string, 'clear' | 'held', string[], () => Case]>([
  [
    'a sound project',
    'clear',
    [],
    () => ({
      root: repository({ 'package.json': manifest(), ...below('dist', sound) }),
      path: '.',
      written: 'dist',
    }),
  ],
  [
    'a project with a missing script',
    'held',
    ['asset/missing'],
    () => ({
      root: repository({ 'package.json': manifest(), 'dist/index.html': page('/gone.js') }),
      path: '.',
      written: 'dist',
    }),
  ],
  [
    'the build folder of a project, with the waiver of its configuration',
    'clear',
    ['asset/missing'],
    () => ({
      root: repository({
        'package.json': manifest(),
        'dist/index.html': page('/gone.js'),
        'wardoscope.config.json': '{ "waivers": [{ "code": "asset/missing", "reason": "it comes later" }] }',
      }),
      path: 'dist',
      written: 'dist',
    }),
  ],
  [
    'a project whose configuration names the folder',
    'held',
    ['asset/missing'],
    () => ({
      root: repository({
        'package.json': manifest(),
        'site/index.html': page('/gone.js'),
        'wardoscope.config.json': '{ "folder": "site" }',
      }),
      path: '.',
      written: 'site',
    }),
  ],
  [
    'a folder that a framework of one’s own writes',
    'held',
    ['endpoint/loopback'],
    () => ({
      root: repository({
        'package.json': manifest('skerrybuild', '@skerry/build'),
        'wardoscope.config.mjs': ownFramework,
        'afloat/index.html': page('/a.js'),
        'afloat/a.js': 'fetch("http://localhost:8787/v1")',
      }),
      path: 'afloat',
      written: 'afloat',
    }),
  ],
  [
    'a directory of the sources',
    'held',
    ['asset/missing'],
    () => ({
      root: repository({
        'package.json': manifest(),
        'src/main.ts': 'export {}',
        'dist/index.html': page('/gone.js'),
      }),
      path: 'src',
      written: 'dist',
    }),
  ],
  [
    'a bare folder',
    'held',
    ['asset/missing'],
    () => ({ root: folderWith({ 'index.html': page('/gone.js') }), path: '.', written: '.' }),
  ],
  [
    'an archive',
    'held',
    ['asset/missing'],
    () => {
      const root = folderWith({})
      writeFileSync(
        join(root, 'site.zip'),
        zipSync({ 'index.html': new TextEncoder().encode(page('/gone.js')) }),
      )
      return { root, path: 'site.zip', written: null }
    },
  ],
])('%s: every face says %s', async (_, verdict, codes, make) => {
  const { root, path, written } = make()
  const before = process.cwd()
  process.chdir(root)
  try {
    const host = 'files'
    const report = await checkPath(path, { site, host })
    const found = report.findings.map(({ code }) => code)
    expect([report.verdict, found]).toEqual([verdict, codes])

    const ran = wardoscope([path, '--site', site, '--host', host, '--format', 'json'], root)
    expect(ran.err).toBe('')
    const { timings: _timings, ...printed } = JSON.parse(ran.out)
    const { timings: __, ...returned } = JSON.parse(JSON.stringify(report))
    expect(printed).toEqual(returned)

    const matched = await toBeClearToShip(path, { site, host })
    expect(matched.pass).toBe(verdict === 'clear')
    if (!matched.pass) for (const code of codes) expect(matched.message()).toContain(code)

    if (written === null) return
    const terminal = { isTTY: false, columns: 100 }
    const seen = await look({
      root: resolve(root),
      directory: relative(root, join(root, written)) || '.',
      site,
      host,
      options: {},
      isWatched: false,
      terminal,
    })
    expect(seen.verdict).toBe(verdict)
    for (const code of codes) expect(seen.text).toContain(code)
  } finally {
    process.chdir(before)
  }
})
