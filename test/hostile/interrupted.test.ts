import { spawn } from 'node:child_process'
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { folderWith } from '../support/folders.ts'

const bin = new URL('../../dist/cli/bin.cjs', import.meta.url).pathname
const page = (at: number): string =>
  `<!doctype html><title>${at}</title>${'<a href="/x.html">x</a>'.repeat(200)}<script src="/a.js"></script>`
const files = Object.fromEntries(Array.from({ length: 400 }, (_, at) => [`p${at}/index.html`, page(at)]))
const cache = mkdtempSync(join(tmpdir(), 'wardoscope-interrupted-'))
let folder = ''

beforeAll(() => {
  folder = folderWith({ ...files, 'index.html': page(0), 'x.html': page(1), 'a.js': 'x' })
})
afterAll(() => rmSync(cache, { recursive: true, force: true }))

interface Ran {
  readonly status: number | null
  readonly signal: NodeJS.Signals | null
  readonly out: string
  readonly err: string
}

function run(
  words: readonly string[],
  { kill, after = 0, env = {} }: { kill?: NodeJS.Signals; after?: number; env?: Record<string, string> } = {},
): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [bin, ...words], {
      env: { ...process.env, XDG_CACHE_HOME: cache, ...env },
    })
    let [out, err] = ['', '']
    child.stdout.setEncoding('utf8').on('data', (part) => (out += part))
    child.stderr.setEncoding('utf8').on('data', (part) => (err += part))
    if (kill) setTimeout(() => child.kill(kill), after)
    child.on('close', (status, signal) => resolve({ status, signal, out, err }))
  })
}

const at = (out: string): string[] => [
  folder,
  ...['--site', 'https://skerryline.example/', '--host', 'files', '--format', 'json', '--out', out],
]

test('ended at any moment: a signal or a status, no half of a file, and the next run is as ever', async () => {
  const place = mkdtempSync(join(tmpdir(), 'wardoscope-out-'))
  const whole = await run(at(join(place, 'whole.json')))
  expect(whole).toMatchObject({ status: 0, signal: null })
  let ended = 0
  for (const [index, after] of [5, 60, 120, 180, 240, 300, 380, 480].entries()) {
    const kill = index % 2 === 0 ? 'SIGINT' : 'SIGTERM'
    const out = join(place, `r${index}.json`)
    const { status, signal, err } = await run(at(out), { kill, after })
    expect(err).not.toMatch(/^\s+at |defect of ours/m)
    if (signal === kill || (status ?? 0) > 1) ended++
    else expect(status).toBe(0)
    if (existsSync(out)) expect(() => JSON.parse(readFileSync(out, 'utf8'))).not.toThrow()
  }
  expect(ended).toBeGreaterThan(2)
  expect(readdirSync(place).filter((name) => !name.endsWith('.json'))).toEqual([])
  expect(await run(at(join(place, 'again.json')))).toMatchObject({ status: 0, signal: null })
  rmSync(place, { recursive: true, force: true })
})

test('two runs at once on one cache, and one that may not be written, say the same', async () => {
  const words = [folder, '--site', 'https://skerryline.example/', '--host', 'files', '--format', 'json']
  const told = ({ out }: Ran): unknown => {
    const { timings, ...rest } = JSON.parse(out) as Record<string, unknown>
    return [typeof timings, rest]
  }
  const runs = await Promise.all([run(words), run(words), run(words)])
  const readOnly = mkdtempSync(join(tmpdir(), 'wardoscope-readonly-'))
  chmodSync(readOnly, 0o500)
  runs.push(await run(words, { env: { XDG_CACHE_HOME: readOnly } }))
  writeFileSync(join(readOnly, '..', 'wardoscope-no-directory'), '')
  runs.push(await run(words, { env: { XDG_CACHE_HOME: join(readOnly, '..', 'wardoscope-no-directory') } }))
  for (const each of runs) {
    expect(each.status).toBe(0)
    expect(told(each)).toEqual(told(runs[0] as Ran))
  }
})

test('files that are far larger than memory are not read whole', async () => {
  const large = folderWith({
    'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': 'export default {}',
    'dist/index.html': '<!doctype html><script src="/a.js"></script><link rel="stylesheet" href="/a.css">',
    'rss.cjs':
      'process.on("exit", () => require("node:fs").appendFileSync(process.env.RSS, process.resourceUsage().maxRSS + "\\n"))',
  })
  const sparse = [
    'a.js',
    'a.css',
    'b.html',
    'c.json',
    'd.xml',
    'e.map',
    'f.svg',
    'g.webmanifest',
    'h.png',
    'i.txt',
  ]
  for (const name of [
    ...sparse.map((each) => `dist/${each}`),
    'src.ts',
    '.env',
    'deploy.yml',
    'Dockerfile',
    'nginx.conf',
  ]) {
    writeFileSync(join(large, name), '')
    truncateSync(join(large, name), 3_000_000_000)
  }
  const rss = join(large, 'rss.txt')
  const { status, out, err } = await run([large, '--site', 'https://skerryline.example/'], {
    env: { RSS: rss, NODE_OPTIONS: `--require ${join(large, 'rss.cjs')}` },
  })
  expect(err).not.toMatch(/^\s+at |defect of ours/m)
  expect([1, 3]).toContain(status)
  expect(out + err).toMatch(/a\.js/)
  const peak = Math.max(...readFileSync(rss, 'utf8').trim().split('\n').map(Number))
  expect(peak).toBeLessThan(300_000)
  rmSync(large, { recursive: true, force: true })
})
