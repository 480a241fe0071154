import { expect, test } from 'vitest'
import { vite } from '../frameworks/vite.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { readBuildCommand } from './build-command.ts'
import { readEnvironmentFiles } from './environment-files.ts'
import { readManifest } from './manifest.ts'
import { installCommand, readPackageManager } from './package-manager.ts'
import { surveyProject } from './survey-project.ts'

const manifest = (more: Record<string, unknown> = {}): string =>
  JSON.stringify(
    { name: 'skerry', scripts: { build: 'vite build' }, devDependencies: { vite: '^8.0.0' }, ...more },
    null,
    2,
  )

async function survey(
  files: Record<string, string>,
): Promise<NonNullable<Awaited<ReturnType<typeof surveyProject>>>> {
  const found = await surveyProject(new MemoryFolder({ 'package.json': manifest(), ...files }))
  if (!found) throw new Error('no project')
  return found
}

test('a plain Vite project: defaults are named as such', async () => {
  const { survey: found } = await survey({})
  expect(found.framework).toMatchObject({
    value: 'vite',
    from: { file: 'package.json', line: 7 },
    certainty: 'stated',
  })
  expect(found.publishDirectory).toEqual({
    value: 'dist',
    from: { by: "Vite's default" },
    certainty: 'default',
  })
  expect(found.basePath).toMatchObject({ value: '/', certainty: 'default' })
  expect(found.build?.command).toMatchObject({
    value: 'npm run build',
    from: { file: 'package.json', line: 4 },
  })
})

test('a configuration is read with its places', async () => {
  const config =
    "export default {\n  base: '/b/',\n  build: {\n    outDir: '../site',\n  },\n  envPrefix: ['APP_'],\n  server: { proxy: { '/api': 'http://localhost:1' } },\n}"
  const { survey: found } = await survey({ 'vite.config.js': config })
  expect(found.basePath).toEqual({
    value: '/b/',
    from: { file: 'vite.config.js', line: 2, column: 3 },
    certainty: 'stated',
  })
  expect(found.publishDirectory).toMatchObject({ value: '../site', from: { line: 4, column: 5 } })
  expect(found.prefixes).toMatchObject({ value: ['APP_'], from: { line: 6 } })
  expect(found.devProxy).toMatchObject({ value: ['/api'] })
})

test('options on the command line beat the configuration', async () => {
  const { survey: found } = await survey({
    'package.json': manifest({
      scripts: { build: 'tsc && vite build --base=/cli/ --outDir out --mode staging' },
    }),
    'vite.config.js': "export default { base: '/b/' }",
    '.env.staging': 'VITE_A=1',
    '.env.production': 'VITE_B=1',
  })
  expect(found.basePath).toMatchObject({ value: '/cli/', from: { file: 'package.json' } })
  expect(found.publishDirectory).toMatchObject({ value: 'out' })
  expect(found.environmentFiles.map(({ file }) => file)).toEqual(['.env.staging'])
})

test('a computed value is said to be computed, with its expression and place', async () => {
  const { survey: found } = await survey({
    'vite.config.js': 'export default {\n  base: baseOf(process.argv) }',
  })
  expect(found.basePath).toEqual({
    value: null,
    from: { file: 'vite.config.js', line: 2, column: 3 },
    certainty: 'computed',
    expression: 'baseOf(process.argv)',
  })
})

test.each([
  [{ build: 'vite build' }, 'npm run build', {}],
  [
    { build: 'npm run check && npm run bundle', check: 'tsc', bundle: 'vite build --base /b/' },
    'npm run build',
    { base: '/b/' },
  ],
  [{ build: 'cross-env A=1 vite build -m staging' }, 'npm run build', { m: 'staging' }],
  [{ start: 'vite', release: './node_modules/.bin/vite build' }, 'npm run release', {}],
  [{ preversion: 'vite build', test: 'vite build', 'build:site': 'vite build' }, 'npm run build:site', {}],
  [{ preversion: 'npm test', test: 'npm run bundle', bundle: 'vite build' }, 'npm run bundle', {}],
  [{ 'build:client': 'cd client && npm run site', site: 'vite build' }, 'npm run site', {}],
  [{ build: 'node make.mjs' }, 'npm run build', {}],
  [{ dev: 'vite' }, 'npx vite build', {}],
])('the build command of %j is %s', async (scripts, command, options) => {
  const found = await readManifest(new MemoryFolder({ 'package.json': JSON.stringify({ scripts }) }))
  if (!found) throw new Error('no manifest')
  const build = readBuildCommand(found, 'npm', vite)
  expect(build?.command.value).toBe(command)
  expect(Object.fromEntries(build?.options ?? [])).toEqual(options)
})

test.each([
  ['{"packageManager":"pnpm@10.1.0"}', ['yarn.lock'], 'pnpm', 'pnpm install'],
  ['{}', ['yarn.lock'], 'yarn', 'yarn install --frozen-lockfile'],
  ['{}', ['package-lock.json'], 'npm', 'npm ci'],
  ['{}', [], 'npm', 'npm install'],
])('the package manager of %s with %j', async (text, files, manager, command) => {
  const found = await readManifest(new MemoryFolder({ 'package.json': text }))
  if (!found) throw new Error('no manifest')
  expect(readPackageManager([found], new Set(files)).value).toBe(manager)
  expect(installCommand(readPackageManager([found], new Set(files)).value, new Set(files))).toBe(command)
})

test.each(['{"name":', '[]', '', '{"a":1,}'])('a manifest %j is refused with its place', async (text) => {
  await expect(readManifest(new MemoryFolder({ 'package.json': text }))).rejects.toThrow(
    /^package\.json (is not valid|holds no) JSON/,
  )
})

test.each([
  ['const r = createBrowserRouter([])', 'history'],
  ['export default () => <HashRouter />', 'hash'],
  ['createRouter({ history: createWebHashHistory() })', 'hash'],
  ['createMemoryRouter([])', 'memory'],
  ['route()', null],
])('the router of %s is %s', async (code, kind) => {
  const { survey: found } = await survey({ 'src/a.jsx': code, 'README.md': 'createWebHashHistory()' })
  expect(found.router?.value ?? null).toBe(kind)
})

test('steps before and after the build are said', async () => {
  const scripts = { prebuild: 'tidy', build: 'vite build', postbuild: 'copy dist ../out' }
  const { survey: found } = await survey({ 'package.json': manifest({ scripts }) })
  expect(found.remarks).toEqual([
    'npm run build also runs, before: tidy',
    'npm run build also runs, after: copy dist ../out',
  ])
})

test('two lockfiles that disagree are said, one alone is not', async () => {
  const { survey: both } = await survey({ 'yarn.lock': '', 'package-lock.json': '{}' })
  expect(both.remarks).toEqual([
    'package-lock.json and yarn.lock are side by side, and one of them is out of date: npm is taken, from package-lock.json:1.',
  ])
  expect((await survey({ 'yarn.lock': '' })).survey.remarks).toEqual([])
})

test('environment files: later files win, names keep their lines, values are expanded and kept apart', async () => {
  const folder = new MemoryFolder({
    '.env': '# note\nA=one\nexport B="two words" # note\nC=$A-${B}-${NONE:-x}\nD=\'$A\'\n',
    '.env.production': '\n\nA=uno\n',
  })
  const { files, values } = await readEnvironmentFiles(folder, ['.env', '.env.local', '.env.production'])
  expect(files.map(({ file, names }) => [file, [...names.keys()]])).toEqual([
    ['.env', ['A', 'B', 'C', 'D']],
    ['.env.production', ['A']],
  ])
  expect(files[1]?.names.get('A')).toEqual({ file: '.env.production', line: 3, column: 1 })
  expect(Object.fromEntries(values.forSearching())).toMatchObject({
    A: 'uno',
    B: 'two words',
    C: 'uno-two words-x',
  })
  expect(JSON.stringify({ files, values })).not.toContain('uno')
})

test('reads of variables: place, guard, and the constants that carry them', async () => {
  const { survey: found, traces } = await survey({
    'src/a.ts': [
      'fetch(`${import.meta.env.VITE_API}/v1`)',
      "const key = import.meta.env.VITE_KEY ?? 'none'",
      'if (import.meta.env.VITE_FLAG) go()',
      'const { VITE_PICKED: picked, VITE_DEFAULTED = 1 } = import.meta.env',
      'send({ picked, region: 1, token: import.meta.env.VITE_TOKEN })',
      'export const HOST = import.meta.env.VITE_HOST as string',
      'console.log(import.meta.env.MODE)',
    ].join('\n'),
    'src/b.vue':
      "<template><p>don't</p></template>\n<script setup>\nimport { HOST as h } from './a'\nfetch(h + '/v2/list')\n</script>",
    'src/a.test.ts': 'import.meta.env.VITE_ONLY_IN_TEST',
    'node_modules/x/index.js': 'import.meta.env.VITE_IN_A_LIBRARY',
  })
  expect(
    found.reads.map(({ name, place: { line }, guarded }) => `${name}:${line}${guarded ? ' guarded' : ''}`),
  ).toEqual([
    'VITE_API:1',
    'VITE_KEY:2 guarded',
    'VITE_FLAG:3 guarded',
    'VITE_PICKED:4',
    'VITE_DEFAULTED:4 guarded',
    'VITE_TOKEN:5',
    'VITE_HOST:6',
  ])
  expect(traces).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ name: 'VITE_API', kind: 'template', before: '', after: '/v1' }),
      expect.objectContaining({
        name: 'VITE_TOKEN',
        kind: 'property',
        key: 'token',
        siblings: ['picked', 'region'],
      }),
      expect.objectContaining({ name: 'VITE_HOST', kind: 'template', after: '/v2/list' }),
    ]),
  )
})

test('a constant that is tested before use is guarded', async () => {
  const { survey: found } = await survey({
    'src/a.ts': 'const k = import.meta.env.VITE_K\nif (k) use({ key: k, a: 1 })',
  })
  expect(found.reads).toMatchObject([{ name: 'VITE_K', guarded: true }])
})

test('a constant that another file tests is guarded, though that file reads no variable itself', async () => {
  const { survey: found } = await survey({
    'src/config.ts': 'export const key = import.meta.env.VITE_K',
    'src/app.ts': "import { key } from './config'\nif (key) start(key)",
    'src/plain.ts': 'export const nothing = 1',
  })
  expect(found.reads).toMatchObject([{ name: 'VITE_K', guarded: true }])
})

test.each<[string, string, string | null]>([
  ['vite build | tee build.log', 'dist', '/'],
  ['vite build > build.log 2>&1', 'dist', '/'],
  ["vite build --mode 'a;b' --base /b/", 'dist', '/b/'],
  ['vite build --outDir "out dir" # --base /no/', 'out dir', '/'],
  ['tsc && (vite build --base=/b/ web) && echo done', 'web/dist', '/b/'],
  ['vite build --base /b/ 2> errors.txt', 'dist', '/b/'],
])('the script %s is read as a shell reads it', async (build, directory, base) => {
  const { survey: found } = await survey({ 'package.json': manifest({ scripts: { build } }) })
  expect([found.publishDirectory?.value, found.basePath?.value]).toEqual([directory, base])
})

test.each([
  ['run-p type-check "build-only {@}" --', 'build-only'],
  ['npm-run-all clean build:*', 'build:site'],
  ['concurrently "npm:build:*"', 'build:site'],
  ['run-s "build:**"', 'build:site:all'],
  ['npm run build:site', 'build:site'],
])('the script %s, which calls %s, is the one that a person types', async (build, called) => {
  const scripts = { [called]: 'vite build --base=/b/', build, 'type-check': 'vue-tsc' }
  const { survey: found } = await survey({ 'package.json': manifest({ scripts }) })
  expect([found.build?.command.value, found.basePath?.value]).toEqual(['npm run build', '/b/'])
})

test('a script of parts that calls no builder is not the one that builds', async () => {
  const scripts = { 'build:site': 'vite build', build: 'run-s build:x:*' }
  const { survey: found } = await survey({ 'package.json': manifest({ scripts }) })
  expect(found.build?.command.value).toBe('npm run build:site')
})
