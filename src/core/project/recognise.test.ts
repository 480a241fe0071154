import { expect, test } from 'vitest'
import { frameworks } from '../frameworks/index.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { frameworkFromOutput } from './from-output.ts'
import { surveyProject } from './survey-project.ts'

async function survey(
  files: Record<string, string>,
): Promise<NonNullable<Awaited<ReturnType<typeof surveyProject>>>['survey']> {
  const found = await surveyProject(new MemoryFolder(files))
  if (!found) throw new Error('no project')
  return found.survey
}

const manifest = (
  dependencies: Record<string, string>,
  scripts: Record<string, string> = {},
  more = {},
): string => JSON.stringify({ name: 'x', scripts, dependencies, ...more })

test.each<[string, Record<string, string>, string, string | null, string | null]>([
  [
    'an application built by Vite with a component catalogue',
    {
      'package.json': manifest(
        { storybook: '10', vite: '8' },
        { build: 'vite build', 'build-storybook': 'storybook build' },
      ),
      '.storybook/main.ts': '',
    },
    'vite',
    'dist',
    '/',
  ],
  [
    'a builder that stands further up in the repository',
    { 'package.json': manifest({}, { build: 'vite build --base /b/' }), 'vite.config.js': '' },
    'vite',
    'dist',
    '/b/',
  ],
  [
    'a library built by Rollup with Vite for its tests',
    {
      'package.json': manifest({ rollup: '4', vite: '8' }, { build: 'rollup -c' }),
      'rollup.config.js': "export default { output: { file: 'lib/x.js' } }",
    },
    'rollup',
    'lib',
    './',
  ],
  [
    'a site with pages of documentation',
    {
      'package.json': manifest(
        { vitepress: '1', vite: '8' },
        { build: 'vite build', docs: 'vitepress build docs' },
      ),
      'docs/.vitepress/config.ts': '',
    },
    'vite',
    'dist',
    '/',
  ],
  [
    'SvelteKit, which Vite builds',
    {
      'package.json': manifest({ '@sveltejs/kit': '2', vite: '7' }, { build: 'vite build' }),
      'svelte.config.js':
        "import adapter from '@sveltejs/adapter-static'\nexport default { kit: { adapter: adapter({ pages: 'p' }) } }",
    },
    'sveltekit',
    'p',
    '/',
  ],
  [
    'Angular with the older builder',
    {
      'package.json': manifest({ '@angular/core': '17' }, { build: 'ng build' }),
      'angular.json':
        '{"projects":{"a":{"architect":{"build":{"builder":"@angular-devkit/build-angular:browser","options":{"outputPath":"dist/a","baseHref":"/b/"}}}}}}',
    },
    'angular',
    'dist/a',
    '/b/',
  ],
  [
    'Gatsby without its flag',
    {
      'package.json': manifest({ gatsby: '5' }, { build: 'gatsby build' }),
      'gatsby-config.js': "module.exports = { pathPrefix: '/b' }",
    },
    'gatsby',
    'public',
    '/b',
  ],
  [
    'Gatsby with its flag',
    {
      'package.json': manifest({ gatsby: '5' }, { build: 'gatsby build --prefix-paths' }),
      'gatsby-config.js': "module.exports = { pathPrefix: '/b' }",
    },
    'gatsby',
    'public',
    '/b',
  ],
  [
    'react-scripts with its settings in a file',
    {
      'package.json': manifest({ 'react-scripts': '5' }, { build: 'react-scripts build' }),
      '.env': 'PUBLIC_URL=/b\nBUILD_PATH=site',
    },
    'react-scripts',
    'site',
    '/b',
  ],
  [
    'Hugo with YAML',
    { 'hugo.yaml': 'baseURL: https://skerryline.example/b/\npublishDir: site\n' },
    'hugo',
    'site',
    '/b/',
  ],
  ['Jekyll', { '_config.yml': 'baseurl: "/b"\n' }, 'jekyll', '_site', '/b'],
  [
    'Jekyll whose style sheets are made by a tool from a manifest',
    {
      '_config.yml': 'baseurl: "/b"\n',
      '_layouts/page.html': '',
      'package.json': manifest({ shear: '1' }, { build: 'shear css' }),
    },
    'jekyll',
    '_site',
    '/b',
  ],
  [
    'a wrapper before the builder',
    {
      'package.json': manifest(
        { vite: '8' },
        { build: 'cross-env NODE_OPTIONS=--max-old-space-size=4096 vite build --base /b/' },
      ),
    },
    'vite',
    'dist',
    '/b/',
  ],
  [
    'webpack with a function of its mode',
    {
      'package.json': manifest({ webpack: '5' }, { build: 'webpack --mode production' }),
      'webpack.config.js':
        "const path = require('path')\nmodule.exports = (env, argv) => ({ output: { path: path.join(__dirname, 'site'), publicPath: '/b/' } })",
    },
    'webpack',
    'site',
    '/b/',
  ],
  [
    'Flutter for the web',
    { 'pubspec.yaml': 'name: x\ndependencies:\n  flutter:\n    sdk: flutter\n' },
    'flutter',
    'build/web',
    '/',
  ],
  [
    'Blazor WebAssembly',
    {
      'X.csproj': '<Project Sdk="Microsoft.NET.Sdk.BlazorWebAssembly" />',
      'wwwroot/index.html': '<base href="/b/" />',
    },
    'blazor',
    'bin/Release/publish/wwwroot',
    '/b/',
  ],
])('%s', async (_, files, framework, directory, base) => {
  const found = await survey(files)
  expect(found.framework?.value).toBe(framework)
  expect(found.publishDirectory?.value).toBe(directory)
  expect(found.basePath?.value).toBe(base)
})

test('a configuration that several generators have is of none of them where nothing else is its own', async () => {
  const found = await survey({
    '_config.yml': 'url: https://skerryline.example/b\nroot: /b/\n',
    'package.json': manifest({ hauler: '8' }, { build: 'hauler generate' }),
    'source/_posts/first.md': '# First',
  })
  expect(found.framework).toBeNull()
})

test.each([
  ['next', { 'next.config.js': "module.exports = { output: 'export' }" }, 'static'],
  ['next', { 'next.config.js': 'module.exports = {}' }, 'server'],
  ['astro', { 'astro.config.mjs': "export default { output: 'server' }" }, 'server'],
  [
    '@react-router/dev',
    { 'react-router.config.ts': 'export default { ssr: false } satisfies Config' },
    'static',
  ],
  ['@react-router/dev', { 'react-router.config.ts': 'export default { ssr: isServer() }' }, null],
  [
    'nuxt',
    { 'nuxt.config.ts': "export default defineNuxtConfig({ nitro: { preset: 'static' } })" },
    'static',
  ],
])('%s with %j makes output of the kind %s', async (name, files, output) => {
  const found = await survey({ 'package.json': manifest({ [name]: '1' }), ...files } as Record<
    string,
    string
  >)
  expect(found.output?.value).toBe(output)
})

test.each([
  [{ 'node_modules/vite/package.json': '{"version":"8.3.8"}' }, '8.3.8', 'node_modules/vite/package.json'],
  [
    { 'package-lock.json': '{"packages":{"node_modules/vite":{"version":"8.1.0"}}}' },
    '8.1.0',
    'package-lock.json',
  ],
  [{ 'yarn.lock': '"vite@^8.0.0":\n  version "8.2.0"\n' }, '8.2.0', 'yarn.lock'],
  [{ 'pnpm-lock.yaml': 'packages:\n\n  vite@8.0.5(x@1):\n    a: 1\n' }, '8.0.5', 'pnpm-lock.yaml'],
  [{}, '^8.0.0', 'package.json'],
])('the version with %j', async (files, version, file) => {
  const found = await survey({ 'package.json': manifest({ vite: '^8.0.0' }), ...files } as Record<
    string,
    string
  >)
  expect(found.frameworkVersion).toMatchObject({ value: version, from: { file } })
})

test('a framework is known by its output alone', async () => {
  const of = async (files: Record<string, string>): Promise<string | null> =>
    (await frameworkFromOutput(new MemoryFolder(files), Object.keys(files)))?.value ?? null
  expect(await of({ 'index.html': '', 'assets/index-BSKsdRK0.js': '' })).toBe('vite')
  expect(await of({ 'index.html': '', '_next/static/x.js': '' })).toBe('next')
  expect(await of({ 'index.html': '<meta name="generator" content="Hugo 0.1">' })).toBe('hugo')
  expect(await of({ 'index.html': '<p>plain</p>', 'main.js': '' })).toBeNull()
})

test('every framework has a name and commands of its own', () => {
  expect(new Set(frameworks.map(({ name }) => name)).size).toBe(frameworks.length)
  for (const { commands, title } of frameworks) expect(commands.length, title).toBeGreaterThan(0)
})

const svelte = { '@sveltejs/vite-plugin-svelte': '7', svelte: '5', vite: '8' }
const kitConfig = (options: string): string =>
  `import adapter from '@sveltejs/adapter-static'\nimport { sveltekit } from '@sveltejs/kit/vite'\nexport default defineConfig({ plugins: [sveltekit({ ${options} })] })`

test.each<[string, Record<string, string>, string, string | null, string | null, string | null]>([
  [
    'a Vite starter whose plugin has a configuration file of the name that SvelteKit looks for',
    {
      'package.json': manifest(svelte, { build: 'vite build' }),
      'svelte.config.js': 'export default {}',
      'vite.config.ts': 'export default defineConfig({ plugins: [svelte()] })',
    },
    'vite',
    'dist',
    '/',
    'static',
  ],
  [
    'the same name where the framework is hoisted and its command is called',
    {
      'package.json': manifest({ vite: '8' }, { build: 'next build' }),
      'next.config.js': "module.exports = { output: 'export' }",
    },
    'next',
    'out',
    '/',
    'static',
  ],
  [
    'a SvelteKit starter with everything in the plugin’s call',
    {
      'package.json': manifest({ ...svelte, '@sveltejs/kit': '2' }, { build: 'vite build' }),
      'vite.config.ts': kitConfig("adapter: adapter({ pages: 'site' }), paths: { base: '/b' }"),
    },
    'sveltekit',
    'site',
    '/b',
    'static',
  ],
  [
    'a SvelteKit starter that builds for whatever host it finds itself on',
    {
      'package.json': manifest({ ...svelte, '@sveltejs/kit': '2' }, { build: 'vite build' }),
      'vite.config.ts': kitConfig('adapter: adapter()').replace('adapter-static', 'adapter-auto'),
    },
    'sveltekit',
    '.svelte-kit/output/client',
    '/',
    'server',
  ],
])('%s', async (_, files, framework, directory, base, output) => {
  const found = await survey(files)
  expect([
    found.framework?.value,
    found.publishDirectory?.value,
    found.basePath?.value,
    found.output?.value,
  ]).toEqual([framework, directory, base, output])
})

test('a router that keeps its place behind a hash asks the host for no route', async () => {
  const routes = {
    'package.json': manifest({ ...svelte, '@sveltejs/kit': '2' }, { build: 'vite build' }),
    'src/routes/sailings/+page.svelte': '',
  }
  const hash = await survey({ ...routes, 'vite.config.ts': kitConfig("router: { type: 'hash' }") })
  expect(hash.router).toMatchObject({ value: 'hash', from: { file: 'vite.config.ts' } })
  expect(hash.routes).toEqual([])
  const usual = await survey({ ...routes, 'vite.config.ts': kitConfig('') })
  expect(usual.router).toMatchObject({ value: 'history' })
  expect(usual.routes.map(({ pattern }) => pattern)).toEqual(['/sailings'])
})

test("a framework's own command that runs scripts by their names is the one that a person types", async () => {
  const scripts = {
    'build.client': 'vite build --base=/b/',
    'build.preview': 'vite build --ssr src/entry.preview.tsx',
    build: 'qwik build',
  }
  const found = await survey({
    'package.json': manifest({ '@builder.io/qwik-city': '1', vite: '8' }, scripts),
  })
  expect([found.build?.command.value, found.basePath?.value]).toEqual(['npm run build', '/b/'])
})

test('a library that a framework is made of does not make a project one of the framework', async () => {
  const found = await survey({
    'package.json': manifest({ '@builder.io/qwik': '1', vite: '8' }, { build: 'vite build' }),
    'vite.config.ts': 'export default defineConfig({ plugins: [qwikVite({ csr: true })] })',
  })
  expect([found.framework?.value, found.output?.value]).toEqual(['vite', 'static'])
})

test.each<[string, Record<string, string>, string | null]>([
  [
    'Gatsby without its flag',
    {
      'package.json': manifest({ gatsby: '5' }, { build: 'gatsby build' }),
      'gatsby-config.js': "module.exports = { pathPrefix: '/b' }",
    },
    'add --prefix-paths',
  ],
  [
    'Gatsby with its flag',
    {
      'package.json': manifest({ gatsby: '5' }, { build: 'gatsby build --prefix-paths' }),
      'gatsby-config.js': "module.exports = { pathPrefix: '/b' }",
    },
    null,
  ],
  [
    'Eleventy without its plugin, as a module',
    {
      'package.json': manifest({ '@11ty/eleventy': '^3.0.0' }, { build: 'eleventy' }),
      'eleventy.config.js': "export default () => ({ pathPrefix: '/b/' })",
    },
    "import { HtmlBasePlugin } from '@11ty/eleventy'",
  ],
  [
    'Eleventy 2 without its plugin, on the command line',
    {
      'package.json': manifest({ '@11ty/eleventy': '^2.0.1' }, { build: 'eleventy --pathprefix=/b/' }),
      '.eleventy.js': 'module.exports = () => ({})',
    },
    "const { EleventyHtmlBasePlugin } = require('@11ty/eleventy')",
  ],
  [
    'Eleventy with its plugin',
    {
      'package.json': manifest({ '@11ty/eleventy': '2' }, { build: 'eleventy' }),
      '.eleventy.js':
        "module.exports = (c) => { c.addPlugin(EleventyHtmlBasePlugin); return { pathPrefix: '/b/' } }",
    },
    null,
  ],
])('a base path that is written and not in force: %s', async (_, files, step) => {
  const { basePath } = await survey(files)
  expect(basePath?.value).toMatch(/^\/b/)
  if (step === null) expect(basePath?.inactive).toBeUndefined()
  else expect(basePath?.inactive?.step).toContain(step)
})

test.each([
  ['static', 'static'],
  ['node-server', 'server'],
])('what a build noted beside its files, preset %s, is %s', async (preset, output) => {
  const found = await survey({
    'package.json': manifest({ nuxt: '4' }, { build: 'nuxt build' }),
    'nuxt.config.ts': 'export default defineNuxtConfig({})',
    '.output/nitro.json': JSON.stringify({ date: '', preset }, null, 2),
  })
  expect(found.output).toMatchObject({ value: output, from: { file: '.output/nitro.json', line: 3 } })
})
