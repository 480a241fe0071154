// How long a survey takes against what Node needs to start and read the same files: npm run bench:survey
// Makes a project of 5,000 source files in a temporary directory; whole processes, warm file cache, medians of pairs.
import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const files = 5_000
const rounds = 25
const bin = fileURLToPath(new URL('../dist/cli/bin.cjs', import.meta.url))
const folder = mkdtempSync(join(tmpdir(), 'wardoscope-bench-'))

/** Reads every source, as a survey must to find the variables they read. */
const reader = `
const { readdirSync, readFileSync } = require('fs'); let bytes = 0
const enter = (d) => { for (const e of readdirSync(d, { withFileTypes: true })) { if (e.name === 'node_modules') continue
  if (e.isDirectory()) enter(d + '/' + e.name); else bytes += readFileSync(d + '/' + e.name, 'utf8').length } }
enter(process.argv[1])`

makeProject()
const pairs = Array.from({ length: rounds + 1 }, () => [
  time(['-e', reader, folder]),
  time([bin, 'survey', folder]),
]).slice(1)
const ratios = pairs.map(([read, survey]) => survey / read)
console.log(`${files} source files, Node ${process.versions.node}, medians of ${rounds} pairs`)
console.log(`start Node and read them   ${median(pairs.map(([read]) => read)).toFixed(0)} ms`)
console.log(`survey                     ${median(pairs.map(([, survey]) => survey)).toFixed(0)} ms`)
console.log(
  `ratio                      ${median(ratios).toFixed(2)} (from ${Math.min(...ratios).toFixed(2)} to ${Math.max(...ratios).toFixed(2)})`,
)
rmSync(folder, { recursive: true })

function makeProject() {
  const put = (path, text) => {
    mkdirSync(join(folder, path, '..'), { recursive: true })
    writeFileSync(join(folder, path), text)
  }
  put('package.json', '{"name":"big","scripts":{"build":"vite build"},"devDependencies":{"vite":"^8.0.0"}}')
  put(
    'vite.config.ts',
    "import { defineConfig } from 'vite'\nexport default defineConfig({ base: '/crossings/' })\n",
  )
  for (let i = 0; i < files; i++) {
    const read = i % 100 === 0 ? `export const api = \`\${import.meta.env.VITE_SAILINGS_API}/v1/${i}\`\n` : ''
    put(`src/part-${i % 50}/file-${i}.tsx`, component(i) + read)
  }
  // What a survey must never enter.
  for (let i = 0; i < 2_000; i++) put(`node_modules/package-${i}/index.js`, 'module.exports = 1\n')
}

function component(i) {
  const rows = Array.from(
    { length: 40 },
    (_, row) => `      <li key={${row}}>Crossing ${i}.${row}: {props.harbour} to {names[${row}]}</li>`,
  )
  return `import { names } from './names'\n\nexport function Part${i}(props: { harbour: string }) {\n  return (\n    <ul>\n${rows.join('\n')}\n    </ul>\n  )\n}\n`
}

function time(args) {
  const started = performance.now()
  const { status, stderr } = spawnSync('node', args, {
    stdio: ['ignore', 'ignore', 'pipe'],
    encoding: 'utf8',
  })
  if (status !== 0) throw new Error(stderr)
  return performance.now() - started
}

function median(values) {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
}
