// What a check costs, as ratios to public tools on the same bytes in one run: npm run bench
// Inputs are made once, with real tools, into a cache outside the tree (WARDOSCOPE_BENCH, else below the user's cache).
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { homedir, tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildLibraries } from './inputs/libraries.mjs'
import { makePages } from './inputs/pages.mjs'
import { bin, measure, sizeOf } from './measure.mjs'

const cache = process.env.WARDOSCOPE_BENCH ?? join(homedir(), '.cache', 'wardoscope-bench')
const here = (file) => fileURLToPath(new URL(file, import.meta.url))
const literals =
  'http://localhost|https?://127\\.|undefined/|process\\.env|import\\.meta\\.env|%PUBLIC_URL%|%BASE_URL%|sourceMappingURL|ws://|//staging|api[_-]key|BEGIN PRIVATE KEY'

mkdirSync(cache, { recursive: true })
process.env.XDG_CACHE_HOME = mkdtempSync(join(tmpdir(), 'wardoscope-bench-'))
const rounds = Number(process.argv[2] ?? 5)

const demo = fileURLToPath(new URL('../dist/demo/sound', import.meta.url))
report(
  'The demo site',
  demo,
  {
    'node -e 0': ['node', '-e', '0'],
    check: check(demo),
  },
  'node -e 0',
)

const libraries = buildLibraries(cache)
report('Bundled libraries', libraries, withTools(libraries), 'read and hash')

const pages = makePages(cache, 20_000)
report('20,000 pages', pages, withTools(pages), 'read and hash')
const more = makePages(cache, 40_000)
report(
  '40,000 pages',
  more,
  { 'read and hash': ['node', here('read-and-hash.mjs'), more], 'check, cold': check(more, '--no-cache') },
  'read and hash',
)
spider(pages)

function check(folder, ...more) {
  return [
    'node',
    bin,
    'check',
    folder,
    '--site',
    'https://skerryline.example/crossings/',
    '--host',
    'files',
    ...more,
  ]
}

function withTools(folder) {
  return {
    'read and hash': ['node', here('read-and-hash.mjs'), folder],
    'grep -rE, a dozen literals': ['grep', '-rEc', literals, folder],
    'check, cold': check(folder, '--no-cache'),
    'check, warm': check(folder),
  }
}

function report(title, folder, commands, unit) {
  const { files, bytes } = sizeOf(folder)
  console.log(`\n${title}: ${files.toLocaleString('en')} files, ${(bytes / 1e6).toFixed(1)} MB`)
  const found = measure(commands, rounds)
  for (const [name, { milliseconds, least, most, kilobytes }] of Object.entries(found)) {
    const ratio = milliseconds / found[unit].milliseconds
    const memory = Number.isNaN(kilobytes) ? '' : `${(kilobytes / 1024).toFixed(0)} MB`
    console.log(
      `  ${name.padEnd(28)} ${milliseconds.toFixed(0).padStart(7)} ms (${least.toFixed(0)} to ${most.toFixed(0)})  ${ratio.toFixed(2).padStart(7)} × ${unit}  ${memory}`,
    )
  }
  return found
}

/** A crawl of the same pages over loopback, served by nginx: what asking a real server for every link costs. */
function spider(folder) {
  if (spawnSync('sh', ['-c', 'command -v nginx && command -v wget']).status !== 0) {
    console.log('\nnginx or wget is not installed: the crawl is left out')
    return
  }
  const place = mkdtempSync(join(tmpdir(), 'wardoscope-nginx-'))
  const port = 18_743
  writeFileSync(
    join(place, 'nginx.conf'),
    `daemon off; ${process.getuid?.() === 0 ? 'user root; ' : ''}pid ${place}/pid; error_log ${place}/error.log; events {} http { access_log off; client_body_temp_path ${place}/a; proxy_temp_path ${place}/b; fastcgi_temp_path ${place}/c; uwsgi_temp_path ${place}/d; scgi_temp_path ${place}/e; types { text/html html; text/css css; text/javascript js; image/svg+xml svg; } server { listen 127.0.0.1:${port}; location /crossings/ { alias ${folder}/; } } }`,
  )
  const server = spawn('nginx', ['-c', join(place, 'nginx.conf'), '-p', place], { stdio: 'ignore' })
  spawnSync('sleep', ['1'])
  const started = performance.now()
  spawnSync(
    'wget',
    [
      '--spider',
      '--recursive',
      '--level=inf',
      '--no-verbose',
      '--no-parent',
      `http://127.0.0.1:${port}/crossings/`,
    ],
    {
      cwd: place,
      stdio: 'ignore',
    },
  )
  const seconds = (performance.now() - started) / 1000
  server.kill()
  const cold = measure({ cold: check(folder, '--no-cache') }, 1).cold.milliseconds / 1000
  console.log(
    `\nwget --spider --recursive over the 20,000 pages, nginx on loopback: ${seconds.toFixed(1)} s, ${(seconds / cold).toFixed(0)} × a cold check`,
  )
}
