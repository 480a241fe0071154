// Builds a page of well-known libraries with a real bundler: more than 25 MB of bundled JavaScript.
import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const dependencies = {
  '@babel/standalone': '7.29.4',
  'ace-builds': '1.43.3',
  d3: '7.9.0',
  echarts: '6.0.0',
  'highlight.js': '11.11.1',
  katex: '0.16.25',
  mermaid: '11.12.0',
  'monaco-editor': '0.54.0',
  'pdfjs-dist': '5.4.296',
  'plotly.js-dist-min': '3.1.1',
  prettier: '3.6.2',
  three: '0.180.0',
  typescript: '5.9.3',
}
const imports = {
  ...Object.fromEntries(Object.keys(dependencies).map((name) => [name, name])),
  prettier: 'prettier/standalone',
}
// Modes and languages come one by one, as an editor loads them.
const more = ['plotly.js-dist-min/plotly.min.js?again', 'typescript/lib/typescript.js?again']

export function buildLibraries(root) {
  const home = join(root, 'libraries')
  if (existsSync(join(home, 'dist/index.html'))) return join(home, 'dist')
  mkdirSync(home, { recursive: true })
  const put = (path, text) => writeFileSync(join(home, path), text)
  put(
    'package.json',
    JSON.stringify({ private: true, type: 'module', dependencies, devDependencies: { vite: '8.3.8' } }),
  )
  put(
    'index.html',
    '<!doctype html><meta charset="utf-8"><title>Libraries</title><script type="module" src="/main.js"></script>',
  )
  const loaders = [...Object.values(imports), ...more].map(
    (name) => `  ${JSON.stringify(name)}: () => import(${JSON.stringify(name)}),`,
  )
  put(
    'main.js',
    `const libraries = {\n${loaders.join('\n')}\n}\naddEventListener('click', (event) => libraries[event.target.id]?.().then((found) => console.log(Object.keys(found).length)))\n`,
  )
  put('vite.config.js', "export default { base: '/crossings/', build: { chunkSizeWarningLimit: 100000 } }\n")
  const run = (command, ...args) =>
    execFileSync(command, args, { cwd: home, stdio: ['ignore', 'ignore', 'inherit'] })
  run(
    'npm',
    'install',
    '--no-audit',
    '--no-fund',
    '--legacy-peer-deps',
    '--ignore-scripts',
    '--loglevel=error',
  )
  run('npx', 'vite', 'build', '--logLevel', 'error')
  return join(home, 'dist')
}
