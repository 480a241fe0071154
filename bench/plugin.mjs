// What does the plugin add to the demo's build? Whole builds, with it and without, in turn; the ratio pair by pair.
// Run after: npm run build
import { spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const place = mkdtempSync(join(tmpdir(), 'wardoscope-bench-'))
const rounds = 11

function project(name, plugins) {
  const home = join(place, name)
  const leave = /node_modules|dist$/
  const from = join(root, 'examples/skerry-line')
  cpSync(from, home, { recursive: true, filter: (path) => !leave.test(path.slice(from.length)) })
  mkdirSync(join(home, 'node_modules'))
  for (const entry of [...readdirSync(join(root, 'node_modules')), '.bin']) {
    try {
      symlinkSync(join(root, 'node_modules', entry), join(home, 'node_modules', entry))
    } catch {
      // Listed already.
    }
  }
  symlinkSync(root, join(home, 'node_modules/wardoscope'))
  writeFileSync(
    join(home, 'vite.config.ts'),
    `import react from '@vitejs/plugin-react'\nimport { defineConfig } from 'vite'\nimport { wardoscope } from 'wardoscope/vite'\n` +
      `export default defineConfig({ base: '/crossings/', build: { assetsInlineLimit: 256 }, plugins: [react(), ${plugins}] })\n`,
  )
  return home
}

function seconds(home) {
  const { NODE_ENV: _, ...env } = process.env
  const started = performance.now()
  const { status } = spawnSync('node', ['node_modules/vite/bin/vite.js', 'build'], { cwd: home, env })
  if (status !== 0) throw new Error(`the build in ${home} failed`)
  return (performance.now() - started) / 1_000
}

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]
const plain = project('plain', '')
const checked = project(
  'checked',
  "wardoscope({ site: 'https://skerryline.example/crossings/', host: 'fallback' })",
)
for (const home of [plain, checked]) seconds(home)
const pairs = Array.from({ length: rounds }, () => [seconds(plain), seconds(checked)])
const [without, with_] = [pairs.map(([a]) => a), pairs.map(([, b]) => b)].map(median)
console.log(
  `without ${without.toFixed(2)} s, with ${with_.toFixed(2)} s, ratio ${median(pairs.map(([a, b]) => b / a)).toFixed(2)}`,
)
rmSync(place, { recursive: true })
