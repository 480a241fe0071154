// Bundles well-known libraries for production, as a site that uses them does, with Vite and with webpack; and beside them modules
// of a made-up site that each call a developer's machine in another way. Of the libraries nothing is kept in the repository: they
// are installed from the registry, into a directory of the user's cache.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const here = dirname(fileURLToPath(import.meta.url))
const planted = join(here, 'planted')
const listed = readFileSync(join(here, 'libraries.json'), 'utf8')
const { dependencies, tools, both, vite } = JSON.parse(listed)

/** The directory with the projects `vite` and `webpack`, each built into its `dist`; made when it is not there. */
export function builtLibraries() {
  const cache = join(process.env.XDG_CACHE_HOME ?? join(homedir(), '.cache'), 'wardoscope-test')
  const installed = join(cache, `libraries-${digest(listed)}`)
  const home = join(
    installed,
    `built-${digest(readFileSync(fileURLToPath(import.meta.url)), ...textsBelow(planted))}`,
  )
  if (existsSync(join(home, 'done'))) return home
  if (!existsSync(join(installed, 'done'))) install(installed)
  rmSync(home, { recursive: true, force: true })
  for (const [name, names] of [
    ['vite', [...both, ...vite]],
    ['webpack', both],
  ])
    makeProject(join(home, name), name, names)
  run(join(home, 'vite'), 'npx', ['vite', 'build', '--logLevel', 'error'])
  run(join(home, 'webpack'), 'npx', ['webpack', '--stats', 'errors-only'])
  const { html, styles } = pageOf(join(home, 'webpack/dist'))
  writeFileSync(
    join(home, 'webpack/dist/index.html'),
    page('<script src="/crossings/main.js"></script>', html, styles),
  )
  writeFileSync(join(home, 'done'), '')
  return home
}

function install(home) {
  rmSync(home, { recursive: true, force: true })
  mkdirSync(home, { recursive: true })
  const manifest = { private: true, type: 'module', dependencies, devDependencies: tools }
  writeFileSync(join(home, 'package.json'), JSON.stringify(manifest))
  run(home, 'npm', [
    'install',
    '--no-audit',
    '--no-fund',
    '--legacy-peer-deps',
    '--ignore-scripts',
    '--include=dev',
    '--loglevel=error',
  ])
  writeFileSync(join(home, 'done'), '')
}

function makeProject(home, tool, names) {
  cpSync(planted, join(home, 'src'), { recursive: true })
  cpSync(join(planted, 'public'), join(home, tool === 'vite' ? 'public' : 'dist'), { recursive: true })
  rmSync(join(home, 'src/public'), { recursive: true })
  rmSync(join(home, 'src/page.html'))
  const put = (path, text) => writeFileSync(join(home, path), text)
  put(
    'package.json',
    JSON.stringify({
      private: true,
      type: 'module',
      scripts: { build: tool === 'vite' ? 'vite build' : 'webpack' },
      devDependencies: { [tool]: tools[tool] },
    }),
  )
  put('src/main.js', main(names))
  if (tool === 'webpack') put('webpack.config.js', webpackConfig)
  else {
    put('vite.config.js', viteConfig)
    put(
      'index.html',
      page(
        '<script type="module" src="/src/main.js"></script>',
        readFileSync(join(planted, 'page.html'), 'utf8'),
        '',
      ),
    )
  }
}

/** Each library in a chunk of its own, all of it: nothing that it carries is shaken off. */
function main(names) {
  const loaders = names.map((name) => `  ${JSON.stringify(name)}: () => import(${JSON.stringify(name)}),`)
  return `import { planted } from './index.js'\n\nconst libraries = {\n  ...planted,\n${loaders.join('\n')}\n}\naddEventListener('click', (event) => libraries[event.target.id]?.().then((found) => {\n  document.title = Object.entries(found).length\n}))\n`
}

function page(script, body, styles) {
  return `<!doctype html>\n<meta charset="utf-8">\n<title>Libraries</title>\n${styles}\n${body}\n${script}\n`
}

/** webpack writes no page: its style sheet is linked here. */
function pageOf(dist) {
  const styles = readdirSync(dist)
    .filter((name) => name.endsWith('.css'))
    .map((name) => `<link rel="stylesheet" href="/crossings/${name}">`)
  return { html: readFileSync(join(planted, 'page.html'), 'utf8'), styles: styles.join('\n') }
}

const viteConfig = `export default {
  base: '/crossings/',
  define: { 'process.env.SAILINGS_API': 'undefined' },
  build: { chunkSizeWarningLimit: 100000 },
}
`

const webpackConfig = `import { fileURLToPath } from 'node:url'
import webpack from 'webpack'

const none = Object.fromEntries(['fs', 'path', 'crypto', 'http', 'https', 'url', 'stream', 'zlib', 'util', 'net', 'tls', 'buffer', 'assert'].map((name) => [name, false]))

export default {
  mode: 'production',
  entry: './src/main.js',
  output: { path: fileURLToPath(new URL('dist', import.meta.url)), publicPath: '/crossings/', chunkFilename: '[name].[contenthash:8].js' },
  plugins: [new webpack.DefinePlugin({ 'process.env.SAILINGS_API': 'undefined' })],
  experiments: { css: true },
  externals: [({ request }, done) => (/^http:/.test(request) ? done(null, request, 'css-import') : done())],
  resolve: { fallback: none },
  module: { rules: [{ test: /\\.m?js$/, resolve: { fullySpecified: false } }] },
  performance: { hints: false },
}
`

function run(cwd, command, words) {
  const NODE_ENV = command === 'npx' ? 'production' : ''
  execFileSync(command, words, {
    cwd,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV },
  })
}

function textsBelow(directory) {
  return readdirSync(directory, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => readFileSync(join(entry.parentPath, entry.name)))
}

function digest(...texts) {
  const hash = createHash('sha256')
  for (const text of texts) hash.update(text)
  return hash.digest('hex').slice(0, 12)
}

if (process.argv[1] === fileURLToPath(import.meta.url)) process.stdout.write(`${builtLibraries()}\n`)
