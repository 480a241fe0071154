import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith, linkPackages } from './support/folders.ts'

const site = ['--site', 'https://skerryline.example/crossings/', '--host', 'files', '--no-cache']
const page = '<!doctype html><title>Skerry Line</title><script type="module" src="/src/main.js"></script>'

/** A project that Vite builds for the top of a host, with a URL that somebody wrote by hand. */
function project(files: Readonly<Record<string, string>> = {}): string {
  const all = {
    'package.json':
      '{\n  "name": "s",\n  "type": "module",\n  "scripts": { "build": "vite build" },\n  "devDependencies": { "vite": "8" }\n}\n',
    'vite.config.js': 'export default { build: { sourcemap: false } }\n',
    'index.html': page,
    'src/main.js': "const ferry = new Image()\nferry.src = '/ferry.svg'\ndocument.body.append(ferry)\n",
    'public/ferry.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
    '.gitignore': 'node_modules\ndist\n',
    ...files,
  }
  const home = folderWith(
    Object.fromEntries(Object.entries(all).map(([path, text]) => [`site/${path}`, text])),
  )
  const at = join(home, 'site')
  linkPackages(at)
  execFileSync('npx', ['vite', 'build', '--logLevel', 'error'], { cwd: at })
  git(at, 'init', '-q')
  git(at, 'add', '-A')
  git(at, '-c', 'user.name=A', '-c', 'user.email=a@skerryline.test', 'commit', '-qm', 'x')
  return at
}

function git(at: string, ...words: string[]): string {
  return execFileSync('git', words, { cwd: at, encoding: 'utf8' })
}

/** That nothing is left of the copy, and that nothing was written into the project. */
function expectUntouched(at: string): void {
  expect(readdirSync(dirname(at))).toEqual([basename(at)])
  expect(git(at, 'status', '--porcelain')).toBe('')
}

test('what is proved is a patch that git applies, and the project is left as it was', () => {
  const at = project()
  const { status, out, err } = wardoscope(['fix', at, ...site])
  expect(err).toContain('proved: gone after the build, and nothing new')
  expect(err.match(/proved/g)).toHaveLength(2)
  expect(status).toBe(0)
  expectUntouched(at)
  writeFileSync(join(at, '..', 'fix.patch'), out)
  git(at, 'apply', '../fix.patch')
  expect(readFileSync(join(at, 'vite.config.js'), 'utf8')).toBe(
    "export default { base: '/crossings/', build: { sourcemap: false } }\n",
  )
  expect(readFileSync(join(at, 'src/main.js'), 'utf8')).toContain(
    'ferry.src = `${import.meta.env.BASE_URL}ferry.svg`',
  )
  execFileSync('npx', ['vite', 'build', '--logLevel', 'error'], { cwd: at })
  expect(wardoscope([at, ...site]).out).toMatch(/^CLEAR/)
})

test('nothing to fix, and fixes that need each other beside one that is not enough', () => {
  const sound = project({ 'vite.config.js': "export default { base: '/crossings/' }\n", 'src/main.js': '' })
  expect(wardoscope(['fix', sound, ...site])).toMatchObject({
    status: 0,
    out: '',
    err: expect.stringContaining('Nothing to fix'),
  })
  const at = project({
    '.env.production': 'VITE_SAILINGS_API=http://localhost:8787\n',
    'src/main.js':
      "fetch(`${import.meta.env.VITE_SAILINGS_API}/v1`)\nconst ferry = new Image()\nferry.src = '/ferry.svg'\ndocument.body.append(ferry)\n",
  })
  const value = 'VITE_SAILINGS_API=http://localhost:9999'
  const { status, out, err } = wardoscope(['fix', at, ...site, '--value', value])
  expect(err.match(/proved: gone/g)).toHaveLength(2)
  expect(status).toBe(1)
  expect(out).toContain("+export default { base: '/crossings/'")
  expect(out).toContain('BASE_URL}ferry.svg')
})

test('a project without a configuration gets one, written at once', () => {
  const at = project({ 'src/main.js': 'document.body.append(1)\n' })
  execFileSync('git', ['rm', '-q', 'vite.config.js'], { cwd: at })
  git(at, '-c', 'user.name=A', '-c', 'user.email=a@skerryline.test', 'commit', '-qm', 'y')
  expect(wardoscope(['fix', at, ...site, '--write']).status).toBe(0)
  expect(readFileSync(join(at, 'vite.config.js'), 'utf8')).toBe(
    "export default {\n  base: '/crossings/',\n}\n",
  )
})

test('a project of a repository that writes beside itself is built in a copy of the repository', () => {
  const at = project({
    'package.json':
      '{ "name": "r", "private": true, "workspaces": ["apps/*"], "scripts": { "build": "vite build apps/web" } }',
    'apps/web/package.json':
      '{ "name": "web", "type": "module", "scripts": { "build": "vite build" }, "devDependencies": { "vite": "8" } }',
    'apps/web/vite.config.js': "export default { build: { outDir: '../../out', emptyOutDir: true } }\n",
    'apps/web/index.html': page,
    'apps/web/src/main.js': 'document.body.append(1)\n',
    '.gitignore': 'node_modules\ndist\nout\n',
  })
  execFileSync('npx', ['vite', 'build', '--logLevel', 'error'], { cwd: join(at, 'apps/web') })
  const before = readFileSync(join(at, 'out/index.html'), 'utf8')
  for (const args of [[at, '--project', 'web'], [join(at, 'apps/web')]]) {
    const { status, out, err } = wardoscope(['fix', ...args, ...site])
    expect(err).toContain('proved: gone after the build, and nothing new')
    expect([status, out]).toEqual([0, expect.stringContaining('+++ b/apps/web/vite.config.js')])
  }
  expect(readFileSync(join(at, 'out/index.html'), 'utf8')).toBe(before)
  expectUntouched(at)
})

test('work that is not committed is not written over, unless told', () => {
  const at = project({ 'src/main.js': 'document.body.append(1)\n' })
  writeFileSync(join(at, 'vite.config.js'), 'export default { build: { minify: false } }\n')
  const refused = wardoscope(['fix', at, ...site, '--write', '--no-build'])
  expect([refused.status, refused.err]).toEqual([
    2,
    expect.stringContaining('vite.config.js has changes that are not committed'),
  ])
  expect(wardoscope(['fix', at, ...site, '--write', '--no-build', '--anyway']).status).toBe(0)
  expect(readFileSync(join(at, 'vite.config.js'), 'utf8')).toBe(
    "export default { base: '/crossings/', build: { minify: false } }\n",
  )
})

test('a file that git does not know is not written over either', () => {
  const at = project({ 'src/main.js': 'document.body.append(1)\n' })
  git(at, 'rm', '-q', '--cached', 'vite.config.js')
  git(at, '-c', 'user.name=A', '-c', 'user.email=a@skerryline.test', 'commit', '-qm', 'y')
  const { status, err } = wardoscope(['fix', at, ...site, '--write', '--no-build'])
  expect([status, err]).toEqual([
    2,
    expect.stringContaining('vite.config.js has changes that are not committed'),
  ])
})

test('what is left holds only where it is a blocker', () => {
  const at = project({
    '.env.production': 'VITE_SAILINGS_API=your-api-here\n',
    'src/main.js': 'document.body.append(import.meta.env.VITE_SAILINGS_API)\n',
  })
  const { status, err } = wardoscope(['fix', at, ...site])
  expect(err).toContain('env/placeholder')
  expect(err).toContain('proved: gone')
  expect(status).toBe(0)
})

test('a build that fails with the edits shows its last lines, and nothing is proved', () => {
  const at = project()
  writeFileSync(
    join(at, 'package.json'),
    '{ "scripts": { "build": "vite build --logLevel error && echo no room && exit 7" }, "devDependencies": { "vite": "8" } }',
  )
  const { status, out, err } = wardoscope(['fix', at, ...site, '--code', 'base/wrong-path'])
  expect([status, out]).toEqual([1, ''])
  expect(err).toContain('no room')
  expect(err).toContain('the build failed with it')
})

test('a time that is up ends the build, and clears the copy away', () => {
  const at = project()
  writeFileSync(
    join(at, 'package.json'),
    '{ "scripts": { "build": "vite build --logLevel error && sleep 60" }, "devDependencies": { "vite": "8" } }',
  )
  const { status, err } = wardoscope(['fix', at, ...site, '--timeout', '3'])
  expect([status, err]).toEqual([3, expect.stringContaining('The build was ended before it was done.')])
  expect(readdirSync(dirname(at))).toEqual([basename(at)])
})

test('a value that a person gives is written, and shown to nobody', () => {
  const at = project({
    'vite.config.js': "export default { base: '/crossings/' }\n",
    'src/main.js': 'fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`)\n',
    '.env.production': 'VITE_SAILINGS_API=http://localhost:8787\n',
  })
  const asked = wardoscope(['fix', at, ...site])
  expect([asked.status, asked.out]).toEqual([1, ''])
  expect(asked.err).toContain('With --value VITE_SAILINGS_API=… it is tried.')
  const value = 'VITE_SAILINGS_API=https://api.skerryline.example'
  const tried = wardoscope(['fix', at, ...site, '--value', value])
  expect([tried.status, tried.out]).toEqual([0, ''])
  expect(tried.err).toContain('.env.production holds values, so its change is not in the patch')
  expectUntouched(at)
  expect(wardoscope(['fix', at, ...site, '--value', value, '--write']).status).toBe(0)
  expect(readFileSync(join(at, '.env.production'), 'utf8')).toBe(
    `${value}\n# before: http://localhost:8787\n`,
  )
})

test.each<[string, (at: string) => string[], number, RegExp]>([
  [
    'a code that was not found',
    (at) => [at, '--code', 'env/absent'],
    2,
    /no finding "env\/absent"\. There are: base\/wrong-path/,
  ],
  ['a build folder by itself', (at) => [join(at, 'dist')], 0, /./],
  ['a value without a name', (at) => [at, '--value', 'x'], 2, /written as in --value VITE_SAILINGS_API=/],
  ['no time at all', (at) => [at, '--timeout', '0'], 2, /"0" is no time to wait/],
])('%s', (_, args, status, said) => {
  const at = project()
  const found = spawnSync('node', ['dist/cli/bin.cjs', 'fix', ...args(at), ...site], { encoding: 'utf8' })
  expect(found.stderr).toMatch(said)
  expect(found.status).toBe(status)
  expect(existsSync(join(at, 'dist'))).toBe(true)
})

test('a variable that only the build has is tried with a value, which is shown to nobody', () => {
  const at = project({
    'vite.config.js':
      "export default { base: '/crossings/', define: { API: JSON.stringify(process.env.SAILINGS_API) } }\n",
    'src/main.js': 'fetch(`${API}/v1/list`)\n',
  })
  const codes = ['--code', 'env/absent']
  const asked = wardoscope(['fix', at, ...site, ...codes])
  expect(asked.status).toBe(1)
  expect(asked.err).toContain('Set SAILINGS_API where the build runs.')
  expect(asked.err).toContain('With --value SAILINGS_API=… it is tried.')
  const value = 'https://api.skerryline.example'
  const { status, out, err } = wardoscope(['fix', at, ...site, ...codes, '--value', `SAILINGS_API=${value}`])
  expect(err).toContain('proved: gone after the build, and nothing new')
  expect(err).toContain('with SAILINGS_API set for the build')
  expect(status).toBe(0)
  expect(out + err).not.toContain(value)
  expectUntouched(at)
})

test("a rule that is missing from the project's own nginx is proved as an edit of it", () => {
  const at = project({
    'vite.config.js': "export default { base: '/crossings/' }\n",
    'src/main.js': 'history.replaceState(null, "", location.href)\n',
    'wardoscope.config.json': '{ "routes": ["/crossings/harbours"] }\n',
    'nginx.conf':
      'server {\n    root /srv;\n    location /crossings/ {\n        index index.html;\n    }\n}\n',
  })
  const own = ['--site', 'https://skerryline.example/crossings/', '--no-cache', '--code', 'route/no-answer']
  const { status, out, err } = wardoscope(['fix', at, ...own])
  expect(err).toContain('proved: gone after the build, and nothing new')
  expect(status).toBe(0)
  expectUntouched(at)
  writeFileSync(join(at, '..', 'fix.patch'), out)
  git(at, 'apply', '../fix.patch')
  expect(readFileSync(join(at, 'nginx.conf'), 'utf8')).toContain(
    '    location /crossings/ {\n        try_files $uri $uri/ /crossings/index.html;\n        index index.html;',
  )
})

test('a rule that is missing from an .htaccess which the build copies is proved as an edit of it', () => {
  const at = project({
    'vite.config.js': "export default { base: '/crossings/' }\n",
    'src/main.js': 'history.replaceState(null, "", location.href)\n',
    'public/.htaccess': '# Skerry Line\nOptions -Indexes\n',
    'wardoscope.config.json': '{ "routes": ["/crossings/harbours"] }\n',
  })
  const own = ['--site', 'https://skerryline.example/crossings/', '--no-cache', '--code', 'route/no-answer']
  const { status, out, err } = wardoscope(['fix', at, ...own])
  expect(err).toContain('proved: gone after the build, and nothing new')
  expect(status).toBe(0)
  expect(out).toContain('+FallbackResource /crossings/index.html')
})

test('a folder that nothing builds is put right as it is', () => {
  const home = folderWith({
    'site/index.html':
      '<!doctype html>\n<link rel="stylesheet" href="/main.css">\n<script src="/main.js"></script>\n',
    'site/main.css': '',
    'site/main.js': "fetch('http://localhost:8787/v1')\n",
  })
  const at = join(home, 'site')
  const value = ['--value', 'API_ORIGIN=https://api.skerryline.example']
  const { status, out, err } = wardoscope(['fix', at, ...site, ...value, '--write'])
  expect(err).toContain('Checking a copy with the edits: nothing builds this folder.')
  expect(err.match(/proved/g)).toHaveLength(2)
  expect(out).toBe('')
  expect(status).toBe(0)
  expect(readFileSync(join(at, 'index.html'), 'utf8')).toContain('href="/crossings/main.css"')
  expect(readFileSync(join(at, 'main.js'), 'utf8')).toBe("fetch('https://api.skerryline.example/v1')\n")
  expect(wardoscope(['check', at, ...site]).status).toBe(0)
  expect(readdirSync(home)).toEqual(['site'])
})

test('pages around what a bundler writes are put right where they stand, and the bundle is built anew', () => {
  const home = folderWith({
    'site/package.json': '{"scripts":{"build":"node make.mjs"},"devDependencies":{"esbuild":"0.25"}}',
    'site/make.mjs':
      "import { cpSync } from 'node:fs'\nconst into = 'public/build'\nconst options = { outdir: into }\ncpSync('src', options.outdir, { recursive: true })\n",
    'site/src/main.js': 'document.title = 1\n',
    'site/public/build/main.js': 'document.title = 1\n',
    'site/public/index.html': '<!doctype html>\n<script src="/build/main.js"></script>\n',
  })
  const at = join(home, 'site')
  const { status, err } = wardoscope(['fix', at, ...site, '--write'])
  expect(err).toContain('proved: gone after the build, and nothing new')
  expect(status).toBe(0)
  expect(readFileSync(join(at, 'public/index.html'), 'utf8')).toContain('src="/crossings/build/main.js"')
})

test('routes that a host of files can not answer get their pages from the build', () => {
  const at = project({
    'vite.config.js': "export default { base: '/crossings/' }\n",
    'src/main.js':
      "import { createRouter, createWebHistory } from './router.js'\ncreateRouter({ history: createWebHistory(import.meta.env.BASE_URL), routes: [{ path: '/', component: 1 }, { path: '/harbours', component: 1 }] })\n",
    'src/router.js':
      'export const createWebHistory = (base) => base\nexport const createRouter = (all) => console.log(all)\n',
  })
  const { status, out, err } = wardoscope(['fix', at, ...site, '--route', '/harbours'])
  expect(err).toContain('proved: gone after the build, and nothing new')
  expect(out).toContain('+++ b/scripts/route-pages.mjs')
  expect(out).toContain('+  "scripts": { "build": "vite build && node scripts/route-pages.mjs" },')
  expect(status).toBe(0)
  expectUntouched(at)
})

test('a file that is published by mistake is moved, and nothing of it is shown', () => {
  const at = project({
    'src/main.js': 'document.body.append(1)\n',
    'vite.config.js': "export default { base: '/crossings/' }\n",
    'public/.env': 'HARBOUR_TOKEN=marked-99x\n',
  })
  const { status, out, err } = wardoscope(['fix', at, ...site])
  expect([status, err]).toEqual([0, expect.stringContaining('proved: gone after the build')])
  expect(out).toContain('rename to unpublished/.env')
  expect(out + err).not.toContain('marked-99x')
  expectUntouched(at)
  writeFileSync(join(at, '..', 'fix.patch'), out)
  git(at, 'apply', '--check', '../fix.patch')
  expect(wardoscope(['fix', at, ...site, '--write']).err).toContain('Written: unpublished/.env')
  expect(readFileSync(join(at, 'unpublished/.env'), 'utf8')).toBe('HARBOUR_TOKEN=marked-99x\n')
  expect(existsSync(join(at, 'public/.env'))).toBe(false)
  execFileSync('npx', ['vite', 'build', '--logLevel', 'error'], { cwd: at })
  expect(wardoscope([at, ...site]).out).toMatch(/^CLEAR/)
})

test('what is only worth knowing is changed where its code is given', () => {
  const at = project({
    'src/main.js': 'document.body.append(1)\n',
    'vite.config.js': "export default { base: '/crossings/', build: { sourcemap: true } }\n",
  })
  expect(wardoscope(['fix', at, ...site]).err).toContain('Nothing to fix')
  const { status, out, err } = wardoscope(['fix', at, ...site, '--code', 'delivery/source-map'])
  expect([status, err]).toEqual([0, expect.stringContaining('proved: gone after the build')])
  expect(out).toContain("+export default { base: '/crossings/', build: { sourcemap: false } }")
})

test('a variable that a pipeline gives is written beside the others, with a value that is shown to nobody', () => {
  const at = project({
    'src/main.js': 'fetch(`${import.meta.env.VITE_SAILINGS_API}/v1`)\n',
    'vite.config.js': "export default { base: '/crossings/' }\n",
    '.pipelines/site.yml': 'env:\n  # What the page shows.\n  VITE_TITLE: Skerry Line\n',
  })
  const value = ['--value', 'VITE_SAILINGS_API=https://api.skerryline.example']
  const { status, out, err } = wardoscope(['fix', at, ...site, ...value, '--write'])
  expect([status, err]).toEqual([0, expect.stringContaining('proved: gone after the build')])
  expect(out + err).not.toContain('api.skerryline')
  expect(readFileSync(join(at, '.pipelines/site.yml'), 'utf8')).toBe(
    "env:\n  # What the page shows.\n  VITE_SAILINGS_API: 'https://api.skerryline.example'\n  VITE_TITLE: Skerry Line\n",
  )
})
