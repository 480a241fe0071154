import { expect, test } from 'vitest'
import { UsageError } from '../model/errors.ts'
import { within } from '../model/folder.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { openProject } from '../pipeline/open.ts'
import { chooseProject, type SeveralProjects } from './projects.ts'
import { aroundOf, workspacesOf } from './workspace-packages.ts'

const vite = (name: string): string =>
  JSON.stringify({ name, scripts: { build: 'vite build' }, devDependencies: { vite: '8' } })
const server = JSON.stringify({ name: 'api', dependencies: { express: '5' } })

const repository = {
  'package.json': JSON.stringify({
    name: 'line',
    private: true,
    packageManager: 'pnpm@10.0.0',
    workspaces: ['apps/*'],
  }),
  'apps/site/package.json': vite('@skerry/site'),
  'apps/api/package.json': server,
  'apps/words/package.json': JSON.stringify({ name: 'words' }),
  'node_modules/x/package.json': vite('x'),
}

test('a front end beside a server: the front end, and why', async () => {
  const chosen = await chooseProject(new MemoryFolder(repository))
  expect(chosen?.entry).toMatchObject({
    directory: 'apps/site',
    name: '@skerry/site',
    framework: 'vite',
    publishDirectory: 'dist',
  })
  expect(chosen?.why).toBe('the only front end; apps/api is a server (express)')
  expect(chosen?.all.map(({ directory }) => directory)).toEqual(['apps/api', 'apps/site', 'apps/words'])
  expect(chosen?.survey.packageManager?.value).toBe('pnpm')
})

test.each(['@skerry/site', 'apps/site', './apps/site/', 'site'])(
  'a project is named by %s',
  async (wanted) => {
    expect((await chooseProject(new MemoryFolder(repository), { wanted }))?.entry.directory).toBe('apps/site')
  },
)

test('a name that fits none lists what there is', async () => {
  await expect(chooseProject(new MemoryFolder(repository), { wanted: 'shop' })).rejects.toThrow(
    /no project "shop".*apps\/site/,
  )
})

test('two of equal weight are listed, and one must be named', async () => {
  const folder = new MemoryFolder({ 'a/package.json': vite('a'), 'b/package.json': vite('b') })
  const requested = chooseProject(folder)
  await expect(requested).rejects.toThrow(UsageError)
  await expect(requested).rejects.toThrow(/a \(vite\), b \(vite\)\. One of them has to be named\./)
  await expect(requested).rejects.toSatisfy((error: SeveralProjects) => error.projects.length === 2)
})

test('a site weighs more than a library that a bundler builds, and a plain folder needs no workspaces', async () => {
  const library = JSON.stringify({
    name: 'parts',
    scripts: { build: 'rollup -c' },
    devDependencies: { rollup: '4' },
  })
  const folder = new MemoryFolder({ 'packages/parts/package.json': library, 'web/package.json': vite('web') })
  expect((await chooseProject(folder))?.entry.directory).toBe('web')
})

test('a package that others import, without a page, is a library', async () => {
  const library = JSON.stringify({
    name: 'ui',
    exports: { '.': './src/index.js' },
    devDependencies: { vite: '8' },
  })
  const folder = new MemoryFolder({ 'packages/ui/package.json': library, 'web/package.json': vite('web') })
  expect((await chooseProject(folder))?.entry.directory).toBe('web')
  const withPage = new MemoryFolder({
    'packages/ui/package.json': library,
    'packages/ui/index.html': '',
    'web/package.json': vite('web'),
  })
  await expect(chooseProject(withPage)).rejects.toThrow(/packages\/ui \(vite\), web \(vite\)/)
})

test.each([
  ['names the builder for its workspaces, and builds nothing itself', {}, 'apps/site'],
  ['calls the builder itself', { scripts: { build: 'vite build' } }, 'several'],
])('a root of workspaces that %s', async (_, more, expected) => {
  const root = { name: 'line', workspaces: ['apps/*'], devDependencies: { vite: '8' }, ...more }
  const folder = new MemoryFolder({
    'package.json': JSON.stringify(root),
    'apps/site/package.json': vite('@skerry/site'),
  })
  const found = await chooseProject(folder).catch((error: SeveralProjects) => error)
  expect(found instanceof UsageError ? 'several' : found?.entry.directory).toBe(expected)
})

test('inside a project, that one, whatever is below', async () => {
  const folder = new MemoryFolder({ 'package.json': vite('here'), 'examples/one/package.json': vite('one') })
  expect(await chooseProject(folder)).toMatchObject({ entry: { directory: '' }, why: null })
})

test('workspaces in an object, and in a file of their own', async () => {
  const inner = { 'app/package.json': vite('app') }
  const object = { 'package.json': JSON.stringify({ workspaces: { packages: ['app'] } }), ...inner }
  const file = { 'package.json': '{}', 'pnpm-workspace.yaml': 'packages:\n  - app\n', ...inner }
  for (const files of [object, file]) {
    expect((await chooseProject(new MemoryFolder(files)))?.entry.directory).toBe('app')
  }
})

test('documentation below a directory does not make the directory its project', async () => {
  const docs = JSON.stringify({
    name: 'docs',
    scripts: { build: 'vitepress build' },
    devDependencies: { vitepress: '1' },
  })
  const folder = new MemoryFolder({
    'apps/docs/package.json': docs,
    'apps/docs/.vitepress/config.mjs': 'export default {}',
  })
  expect((await chooseProject(folder))?.entry.directory).toBe('apps/docs')
})

test('a broken manifest below does not hide the rest', async () => {
  const folder = new MemoryFolder({
    'package.json': '{}',
    'a/package.json': '{',
    'b/package.json': vite('b'),
  })
  expect((await chooseProject(folder))?.entry.directory).toBe('b')
})

test.each<[string, Record<string, string>, unknown]>([
  [
    'a deploy file',
    { 'deploy.json': '{\n  "hosting": { "public": "public" } }' },
    ['public', 'deploy.json', 2],
  ],
  [
    'a deploy file in TOML',
    { 'ship.toml': '[build]\ncommand = "npm run build"\npublish = "out/"\n' },
    ['out', 'ship.toml', 3],
  ],
  [
    'a pipeline',
    { '.pipeline/ship.yml': 'jobs:\n  ship:\n    steps:\n      - with:\n          publish_dir: ./site\n' },
    ['site', '.pipeline/ship.yml', 5],
  ],
  [
    'a nested pipeline',
    { '.ci/flows/x.yaml': 'a:\n  outputDirectory: web\n' },
    ['web', '.ci/flows/x.yaml', 2],
  ],
])('a publish directory is recognised by shape in %s', async (_, files, expected) => {
  const found = await openProject(new MemoryFolder({ 'package.json': vite('x'), ...files }))
  const directories = found?.survey.declarations.filter(({ kind }) => kind === 'publish-directory') ?? []
  expect(directories.map(({ value, place: { file, line } }) => [value, file, line])).toEqual([expected])
})

test('what only looks like a declaration is none', async () => {
  const files = {
    'package.json': vite('x'),
    'tsconfig.json': '{"compilerOptions":{"outDir":"out","publish":"no"}}',
    'notes.json': '{"publish":"on Fridays","output":"loud","public":true,"url":"https://x.example/dist"}',
    'broken.yaml': 'a: [',
    '.vscode/settings.json': '{"publishDir":"no"}',
  }
  expect((await openProject(new MemoryFolder(files)))?.survey.declarations).toEqual([])
})

test('build commands are recognised too', async () => {
  const files = { 'package.json': vite('x'), 'ship.toml': '[build]\ncommand = "npm run build"\n' }
  expect((await openProject(new MemoryFolder(files)))?.survey.declarations).toMatchObject([
    { kind: 'build-command', value: 'npm run build', place: { file: 'ship.toml', line: 2 } },
  ])
})

test('what a project depends on within its repository is known, from its own directory', async () => {
  const named = (name: string, dependencies = {}): string => JSON.stringify({ name, dependencies })
  const folder = new MemoryFolder({
    'package.json': JSON.stringify({ name: 'line', workspaces: ['apps/*', 'packages/*'] }),
    'apps/site/package.json': JSON.stringify({
      name: 'site',
      devDependencies: { vite: '8', '@skerry/fares': '*' },
    }),
    'packages/fares/package.json': named('@skerry/fares', { '@skerry/money': '*' }),
    'packages/money/package.json': named('@skerry/money', { '@skerry/fares': '*' }),
    'packages/other/package.json': named('@skerry/other'),
  })
  const expected = ['../../packages/fares', '../../packages/money']
  expect((await chooseProject(folder))?.packages).toEqual(expected)
  const around = aroundOf(await workspacesOf(folder), 'apps/site')
  const opened = await chooseProject(within(folder, 'apps/site'), { around })
  expect(opened?.packages).toEqual(expected)
})

test.each([
  [{ vite: '^8.0.0', react: '19' }, false],
  [{ parts: 'workspace:*' }, true],
  [{ parts: 'file:../parts' }, true],
  [{ '@skerry/parts': '^1.0.0' }, true],
  [{ '@other/parts': '^1.0.0' }, false],
])(
  'whether a project that depends on %j looks at the packages beside it: %s',
  async (dependencies, expected) => {
    let looked = false
    const around = {
      manifest: null,
      names: new Set<string>(),
      workspace: {
        directory: 'apps/site',
        packages: async () => {
          looked = true
          return []
        },
      },
    }
    const manifest = {
      name: '@skerry/site',
      scripts: { build: 'vite build' },
      devDependencies: { vite: '8' },
      dependencies,
    }
    await chooseProject(new MemoryFolder({ 'package.json': JSON.stringify(manifest) }), { around })
    expect(looked).toBe(expected)
  },
)

const manifestForAll = JSON.stringify({
  name: 'org',
  scripts: { build: 'runner build shop' },
  devDependencies: { vite: '8' },
})

test.each<[string, Record<string, string>, string, string | null]>([
  [
    'one manifest for the projects below: the one that has a configuration',
    { 'apps/shop/vite.config.ts': 'export default {}', 'apps/shop/index.html': '' },
    'apps/shop',
    'vite',
  ],
  [
    'one manifest and its own page',
    { 'index.html': '', 'tools/vite.config.ts': 'export default {}' },
    '',
    'vite',
  ],
  ['one manifest, and nothing below', { 'src/main.ts': '' }, '', 'vite'],
])('%s', async (_, files, directory, framework) => {
  const chosen = await chooseProject(new MemoryFolder({ 'package.json': manifestForAll, ...files }))
  expect(chosen?.entry).toMatchObject({ directory, framework })
})

test.each<[string, string, Record<string, string>, Record<string, unknown>]>([
  [
    'without a manifest of its own',
    'cd client/src && vite build',
    { 'client/src/vite.config.js': "export default { base: '/b/', build: { outDir: '../site' } }" },
    {
      directory: 'client/src',
      name: 'line',
      publishDirectory: '../site',
      basePath: '/b/',
      buildCommand: 'npm run build',
    },
  ],
  [
    'with one',
    '(cd ./client; npx vite build --outDir out)',
    { 'client/package.json': vite('client') },
    { directory: 'client', name: 'client', publishDirectory: 'dist', basePath: '/' },
  ],
  [
    'and back again',
    'cd client && tsc && cd .. && vite build',
    { 'client/vite.config.js': "export default { base: '/b/' }" },
    { directory: '', publishDirectory: 'dist', basePath: '/' },
  ],
  [
    'that is not there',
    'cd client && vite build',
    { 'vite.config.js': "export default { base: '/b/' }" },
    { directory: '', basePath: '/b/' },
  ],
  [
    'outside of the project',
    'cd ../client && vite build',
    { 'vite.config.js': "export default { base: '/b/' }" },
    { directory: '', basePath: '/b/' },
  ],
])('a build that is started in a directory %s', async (_, build, files, expected) => {
  const manifest = { name: 'line', scripts: { build }, devDependencies: { vite: '8' } }
  const chosen = await chooseProject(new MemoryFolder({ 'package.json': JSON.stringify(manifest), ...files }))
  expect(chosen?.entry).toMatchObject({ framework: 'vite', ...expected })
})
