import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { reportSchema } from '../src/core/model/report.ts'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const vite = (name: string, more = ''): string =>
  `{"name":"${name}"${more},"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}`
const page = (base: string): string =>
  `<!doctype html><title>x</title><script type="module" src="${base}assets/app-AbCdEf12.js"></script>`

/** A repository of two front ends, a server's program and a package that others import. */
const files: Readonly<Record<string, string>> = {
  'package.json': '{"name":"skerry-line","private":true,"workspaces":["apps/*","packages/*"]}',
  'apps/site/package.json': vite('site'),
  'apps/site/vite.config.js': "export default { base: '/' }",
  'apps/site/wardoscope.config.json': '{"site":"https://skerryline.example/crossings/","host":"files"}',
  'apps/site/src/main.js': 'fetch("http://localhost:8787/v1/sailings")',
  'apps/site/dist/index.html': page('/'),
  'apps/site/dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1/sailings")',
  'apps/desk/package.json': vite('desk'),
  'apps/desk/index.html': '',
  'apps/desk/dist/index.html': page('/'),
  'apps/desk/dist/assets/app-AbCdEf12.js': '',
  'apps/api/package.json': '{"name":"api","dependencies":{"express":"5"}}',
  'packages/ui/package.json': vite('ui', ',"main":"dist/ui.js"'),
}

function repository(more: Readonly<Record<string, string>> = {}): string {
  const home = folderWith({ ...files, ...more })
  execFileSync('git', ['init', '-q'], { cwd: home })
  return home
}

test('every front end is checked with its own configuration: one table, then what was found in each', () => {
  const { status, out, err } = wardoscope(['--all', '--no-cache'], repository())
  expect(status).toBe(1)
  expect(err).toBe('')
  expect(out).toMatch(/^HELD {3}2 projects: 1 held, 1 clear\n/)
  expect(out).toMatch(/^ {2}apps\/desk +clear +0 +0 +\/$/m)
  expect(out).toMatch(/^ {2}apps\/site +held +2 +0 +https:\/\/skerryline\.example\/crossings\/$/m)
  expect(out).toContain('npm run build, into dist')
  expect(out).toContain('\napps/site\n')
  expect(out).not.toContain('\napps/desk\n')
  expect(out).not.toMatch(/apps\/api|packages\/ui/)
})

test('places are from the root of the repository in every format, from wherever it is run', () => {
  const home = repository()
  const lines = wardoscope(['--all', '--no-cache', '--format', 'lines'], home).out
  expect(lines).toMatch(/^apps\/site\/vite\.config\.js:1:18: error: .* \[base\/wrong-path\]$/m)
  expect(lines).toMatch(/^apps\/site\/src\/main\.js:1:8: error: .* \[endpoint\/loopback\]$/m)
  for (const [args, at] of [
    [['apps/site'], home],
    [[], join(home, 'apps/site')],
    [['dist'], join(home, 'apps/site')],
    [['.'], join(home, 'apps/site/dist')],
  ] as const)
    expect(wardoscope([...args, '--no-cache', '--format', 'lines'], at).out).toBe(lines)
  const sarif = JSON.parse(wardoscope(['--all', '--no-cache', '--format', 'sarif'], home).out)
  expect(sarif.runs[0].originalUriBaseIds).toHaveProperty('REPOSITORY')
  const places = JSON.stringify(sarif.runs[0].results)
  for (const uri of ['apps/site/vite.config.js', 'apps/site/dist/index.html', 'apps/site/src/main.js'])
    expect(places).toContain(`{"uri":"${uri}","uriBaseId":"REPOSITORY"}`)
  expect(places).not.toMatch(/"uri":"(?!apps\/site\/)/)
  const junit = wardoscope(['--all', '--no-cache', '--format', 'junit'], home).out
  expect(junit).toContain('source: apps/site/vite.config.js:1:18')
  const markdown = wardoscope(['--all', '--no-cache', '--format', 'markdown'], home).out
  expect(markdown).toContain('## **Held**: 2 projects')
  expect(markdown).toContain('| `apps/site` | `https://skerryline.example/crossings/` | held | 2 | 0 |')
  expect(markdown).toContain('`apps/site/vite.config.js:1`')
})

test('the JSON is one report of the published schema, with a row for each project', () => {
  const { out } = wardoscope(['--all', '--no-cache', '--format', 'json'], repository())
  const report = reportSchema.strict().parse(JSON.parse(out))
  expect(report.projects?.map(({ directory, verdict, blockers }) => [directory, verdict, blockers])).toEqual([
    ['apps/desk', 'clear', 0],
    ['apps/site', 'held', 2],
  ])
  expect(report.findings.map(({ source }) => source?.file)).toEqual([
    'apps/site/vite.config.js',
    'apps/site/src/main.js',
  ])
  expect(report.folder.files).toBe(4)
})

test('a project that can not be looked at is told, holds the exit status, and the others go on', () => {
  const home = repository({
    'apps/desk/wardoscope.config.json': '{ "site": 7 }',
    'apps/site/vite.config.js': "export default { base: '/crossings/' }",
    'apps/site/src/main.js': '',
    'apps/site/dist/index.html': page('/crossings/'),
    'apps/site/dist/assets/app-AbCdEf12.js': '',
  })
  const { status, out } = wardoscope(['--all', '--no-cache'], home)
  expect(status).toBe(3)
  expect(out).toMatch(/^HELD {3}2 projects: 0 held, 1 clear, 1 could not be looked at\n/)
  expect(out).toMatch(/apps\/desk {2}unseen {3}.*wardoscope\.config\.json/)
  const { out: json } = wardoscope(['--all', '--no-cache', '--format', 'json'], home)
  expect(JSON.parse(json).projects[0].problem).toContain('site')
  expect(wardoscope(['--all', '--no-cache', '--quiet'], home).out).toMatch(/^apps\/desk {2}.*\n$/)
  // No form says that it is clear.
  expect(JSON.parse(json).verdict).toBe('held')
  expect(wardoscope(['--all', '--no-cache', '--format', 'markdown'], home).out).toMatch(/^## \*\*Held\*\*/)
  const built = wardoscope(['--all', '--no-cache', '--build'], home)
  expect(built.status).toBe(3)
  expect(built.out).toMatch(/^HELD {3}2 projects: 0 held, 0 clear, 2 could not be looked at\n/)
  expect(built.out).toMatch(/apps\/site {2}unseen {3}The build failed: npm run build ended with status \d+/)
})

test.each([
  ['--site', 'https://skerryline.example/'],
  ['--folder', 'dist'],
  ['--project', 'site'],
  ['--config', 'x.json'],
  ['--record', 'x.json'],
])('%s is of one project', (option, value) => {
  const { status, out, err } = wardoscope(['--all', option, value], repository())
  expect([status, out]).toEqual([2, ''])
  expect(err).toMatch(new RegExp(`^wardoscope: ${option} can't stand beside --all: .+\\.\n$`))
})

test('a build folder beside the projects, and what is said of it as a whole', () => {
  const home = repository({
    'apps/desk/vite.config.js': "export default { build: { outDir: '../../dist/desk' } }",
    'apps/desk/dist/index.html': '',
    'dist/desk/other.html': page('/'),
    'dist/desk/assets/app-AbCdEf12.js': '',
  })
  const { out } = wardoscope(['--all', '--no-cache', '--format', 'lines'], home)
  expect(out).toMatch(/^dist\/desk:1:1: error: .* \[route\/no-answer\]$/m)
})

test('the build of a project that has others below it is that of the project itself', () => {
  const home = repository({
    'package.json':
      '{"name":"skerry-line","private":true,"workspaces":["apps/*"],"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': "export default { base: '/' }",
    'index.html': '',
    'dist/index.html': page('/'),
    'dist/assets/app-AbCdEf12.js': '',
  })
  expect(wardoscope(['--no-cache'], home).err).toContain('holds several projects')
  const site = [
    '--site',
    'https://skerryline.example/b/',
    '--host',
    'files',
    '--no-cache',
    '--format',
    'lines',
  ]
  for (const [path, at] of [
    ['dist', home],
    ['.', join(home, 'dist')],
  ] as const) {
    const { out, err } = wardoscope([path, ...site], at)
    expect(err).toBe('')
    expect(out).toMatch(/^vite\.config\.js:1:18: error: .* \[base\/wrong-path\]$/m)
  }
})

test('a folder that is no repository of git has its places from the folder that was named', () => {
  const home = folderWith({
    ...files,
    'packages/parts/package.json':
      '{"name":"parts","scripts":{"build":"rollup -c"},"devDependencies":{"rollup":"4"}}',
  })
  const { out } = wardoscope(['--all', '--no-cache', '--format', 'lines'], home)
  expect(out).toMatch(/^apps\/site\/vite\.config\.js:1:18: error: /m)
  // What a bundler makes without a page is no site.
  expect(wardoscope(['--all', '--no-cache'], home).out).toContain('2 projects: 1 held, 1 clear')
})

test('a repository without a front end is one sentence', () => {
  const home = folderWith({ 'package.json': '{"name":"x"}' })
  const { status, err } = wardoscope(['--all'], home)
  expect(status).toBe(2)
  expect(err).toMatch(/^wardoscope: .+ holds no front end: .+\.\n$/)
})

test('the page of all projects opens with its table of addresses', () => {
  const home = repository()
  const out = join(mkdtempSync(join(home, 'out-')), 'report.html')
  expect(wardoscope(['--all', '--no-cache', '--format', 'html', '--out', out], home).status).toBe(1)
  expect(readFileSync(out, 'utf8')).toContain('apps/site/vite.config.js')
})
