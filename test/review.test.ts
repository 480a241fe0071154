import { execFileSync } from 'node:child_process'
import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const site = ['--site', 'https://skerryline.example/b/', '--host', 'files', '--no-cache']

function git(at: string, ...words: string[]): void {
  execFileSync('git', ['-c', 'user.name=A', '-c', 'user.email=a@skerryline.test', ...words], {
    cwd: at,
    stdio: 'ignore',
  })
}

/** A project with two calls to the developer's machine: one on `main`, one of a change that is not merged. */
function project(): string {
  const at = folderWith({
    'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': "export default { base: '/b/' }\n",
    'public/mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
    'src/old.js': 'fetch("http://localhost:8787/v1/harbours")\n',
    'src/api.js': 'export const fares = []\n\nexport const routes = []\n',
    'dist/index.html':
      '<!doctype html><script type="module" src="/b/assets/app-AbCdEf12.js"></script><img src="/b/mark.svg">',
    'dist/mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
    'dist/assets/app-AbCdEf12.js':
      'fetch("http://localhost:8787/v1/harbours");fetch("http://localhost:9090/v1/sailings")',
    '.gitignore': 'dist\n',
  })
  git(at, 'init', '-q', '-b', 'main')
  git(at, 'add', '-A')
  git(at, 'commit', '-qm', 'x')
  git(at, 'checkout', '-qb', 'change')
  writeFileSync(
    join(at, 'src/api.js'),
    'export const fares = []\nfetch("http://localhost:9090/v1/sailings")\nexport const routes = []\n',
  )
  return at
}

const codesOf = (text: string): [string, string | undefined][] =>
  JSON.parse(text).findings.map(({ source, touched }: { source: { file: string }; touched?: string }) => [
    source?.file,
    touched,
  ])

test('what a change touches comes first, before it is committed and after', () => {
  const at = project()
  const args = [at, ...site, '--changed-since', 'main']
  const found = [
    ['src/api.js', 'line'],
    ['src/old.js', undefined],
  ]
  expect(codesOf(wardoscope([...args, '--format', 'json']).out)).toEqual(found)
  git(at, 'commit', '-qam', 'y')
  expect(codesOf(wardoscope([...args, '--format', 'json']).out)).toEqual(found)
  const { out, status } = wardoscope(args)
  expect(status).toBe(1)
  expect(out).toContain('Changed since main: 1 finding comes from it')
  expect(out).toMatch(/change +on a line of this change/)
})

test('the line that main went on with since is none of the change', () => {
  const at = project()
  git(at, 'commit', '-qam', 'y')
  git(at, 'checkout', '-q', 'main')
  writeFileSync(join(at, 'src/old.js'), '// of main\nfetch("http://localhost:8787/v1/harbours")\n')
  git(at, 'commit', '-qam', 'z')
  git(at, 'checkout', '-q', 'change')
  const { out } = wardoscope([at, ...site, '--changed-since', 'main', '--format', 'json'])
  expect(codesOf(out).find(([file]) => file === 'src/old.js')).toEqual(['src/old.js', undefined])
})

test('another line of the same file is less than the line, and more than nothing', () => {
  const at = project()
  writeFileSync(join(at, 'src/old.js'), 'fetch("http://localhost:8787/v1/harbours")\n\n// later\n')
  const { out } = wardoscope([at, ...site, '--changed-since', 'main', '--format', 'json'])
  expect(codesOf(out)).toEqual([
    ['src/api.js', 'line'],
    ['src/old.js', 'file'],
  ])
})

test('a file that the change took away is what a request misses', () => {
  const at = project()
  rmSync(join(at, 'public/mark.svg'))
  rmSync(join(at, 'dist/mark.svg'))
  const { out } = wardoscope([at, ...site, '--changed-since', 'main', '--format', 'json'])
  const missing = JSON.parse(out).findings.find(({ code }: { code: string }) => code === 'asset/missing')
  expect(missing.touched).toBe('file')
})

test('only what the change touches is listed; the rest counts all the same', () => {
  const at = project()
  const args = [at, ...site, '--changed-since', 'main', '--only-changed']
  const { out, status } = wardoscope(args)
  expect(status).toBe(1)
  expect(out).toContain('localhost:9090')
  expect(out).not.toContain('localhost:8787')
  expect(out).toContain('1 other is left out here and counts all the same')
  // Nothing of the change holds the build, and the build is held.
  git(at, 'checkout', '-q', '--', 'src/api.js')
  const calm = wardoscope(args)
  expect([calm.status, calm.out.slice(0, 4)]).toEqual([1, 'HELD'])
  expect(calm.out).toContain('0 findings come from it; 2 others are left out here')
})

test('marks are those of the repository when all of its projects are checked', () => {
  const at = project()
  const { out } = wardoscope(['--all', '--no-cache', '--changed-since', 'main'], at)
  expect(out).toContain('Changed since main: 1 finding comes from it')
  expect(out.indexOf('localhost:9090')).toBeLessThan(out.indexOf('localhost:8787'))
})

test.each<[string, string[], RegExp]>([
  ['a revision that is not there', ['--changed-since', 'gone'], /git knows no such revision here/],
  ['an option in its place', ['--changed-since', '--output=x'], /git knows no such revision here/],
  ['no revision', ['--only-changed'], /Give --changed-since too/],
])('%s', (_, args, says) => {
  const { status, err, out } = wardoscope([project(), ...site, ...args])
  expect([status, out]).toEqual([2, ''])
  expect(err).toMatch(says)
  expect(err.trimEnd().split('\n')).toHaveLength(1)
})

test('a folder in no repository', () => {
  const at = folderWith({ 'index.html': '<!doctype html><script src="gone.js"></script>' })
  const { status, err } = wardoscope([at, ...site, '--changed-since', 'main'])
  expect(status).toBe(2)
  expect(err).toMatch(/is in no git repository\.\n$/)
})

test('a summary is added to the end of a file', () => {
  const at = project()
  const file = join(at, 'summary.md')
  writeFileSync(file, '# Before\n')
  const { err } = wardoscope([at, ...site, '--summary', file])
  expect(err).toContain(`Added to ${file}.`)
  wardoscope([at, ...site, '--format', 'lines', '--summary', file])
  const text = readFileSync(file, 'utf8')
  expect(text.startsWith('# Before\n## **Held**')).toBe(true)
  expect(text.match(/## \*\*Held\*\*/g)).toHaveLength(2)
  const lost = wardoscope([at, ...site, '--summary', join(at, 'gone/summary.md')])
  expect(lost.status).toBe(3)
  expect(lost.err).toContain('its directory is not there')
})

test('quiet says nothing of a sound build, and a line for each cause that holds another', () => {
  const at = project()
  const { out, status } = wardoscope([at, ...site, '--quiet'])
  expect(status).toBe(1)
  expect(out.trimEnd().split('\n').sort()).toEqual([
    "endpoint/loopback  The build calls the visitor's own machine  src/api.js:2",
    "endpoint/loopback  The build calls the visitor's own machine  src/old.js:1",
  ])
  writeFileSync(join(at, 'dist/assets/app-AbCdEf12.js'), '')
  expect(wardoscope([at, ...site, '--quiet'])).toEqual({ status: 0, out: '', err: '' })
})
