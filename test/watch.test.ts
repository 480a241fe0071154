import { spawn } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { afterEach, expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const bin = join(import.meta.dirname, '../dist/cli/bin.cjs')
const site = ['--site', 'https://skerryline.example/b/', '--host', 'files', '--no-cache']
const page = (script: string): string =>
  `<!doctype html><title>x</title><script type="module" src="/b/assets/${script}"></script>\n`
const files = {
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/' }\n",
  'dist/index.html': page('app-AbCdEf12.js'),
  'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1")\n',
}

let running: ReturnType<typeof spawn> | null = null
afterEach(() => {
  running?.kill('SIGKILL')
  running = null
})

/** The program while it watches. */
class Watched {
  text = ''
  readonly #child: ReturnType<typeof spawn>
  readonly ended: Promise<number | null>

  constructor(home: string, more: readonly string[] = []) {
    this.#child = spawn('node', [bin, home, ...site, '--watch', ...more], { stdio: 'pipe' })
    running = this.#child
    const hear = (data: Buffer): void => {
      this.text += data.toString('utf8')
    }
    this.#child.stdout?.on('data', hear)
    this.#child.stderr?.on('data', hear)
    this.ended = new Promise((resolve) => this.#child.on('exit', (code) => resolve(code)))
  }

  async says(pattern: RegExp): Promise<void> {
    for (let turn = 0; turn < 300 && !pattern.test(this.text); turn++) await sleep(50)
    expect(this.text).toMatch(pattern)
  }

  end(): Promise<number | null> {
    this.#child.kill('SIGINT')
    return this.ended
  }
}

test('what is solved, new and left is told as the folder changes, and the status is that of the last look', async () => {
  const home = folderWith(files)
  const put = (path: string, text: string): void => writeFileSync(join(home, path), text)
  const watched = new Watched(home)
  await watched.says(/^HELD[\s\S]*Watching\. Ctrl-C ends it\./)
  put('dist/assets/app-AbCdEf12.js', 'fetch("/b/v1.json")\n')
  put('dist/v1.json', '{}')
  await watched.says(/CLEAR[^\n]*\n +1 solved, 0 new, 0 left\n\n +Solved\n +blocker +endpoint\/loopback/)
  put('dist/assets/app-AbCdEf12.js', 'fetch("/b/v1.json");fetch("http://localhost:9090/v1")\n')
  await watched.says(/HELD[^\n]*\n +0 solved, 1 new, 0 left\n[\s\S]*localhost:9090/)
  put('wardoscope.config.json', '{"waivers":[{"code":"endpoint/loopback","reason":"x"}]}')
  await watched.says(/CLEAR[^\n]*\n +1 solved, 0 new, 0 left[\s\S]*1 solved, 0 new, 0 left/)
  expect(await watched.end()).toBe(0)
}, 60_000)

test('a folder that is written bit by bit, or anew, is judged when it is whole', async () => {
  const home = folderWith({ ...files, 'dist/assets/app-AbCdEf12.js': '' })
  const watched = new Watched(home)
  await watched.says(/^CLEAR[\s\S]*Watching/)
  const begun = watched.text.length
  writeFileSync(join(home, 'dist/index.html'), page('next-BcDeFg23.js'))
  await sleep(450)
  writeFileSync(join(home, 'dist/assets/next-BcDeFg23.js'), '')
  await sleep(1_200)
  rmSync(join(home, 'dist'), { recursive: true })
  await watched.says(/does not exist\.[^\n]*Waiting for the next build\./)
  mkdirSync(join(home, 'dist/assets'), { recursive: true })
  writeFileSync(join(home, 'dist/index.html'), page('last-CdEfGh34.js'))
  await sleep(300)
  writeFileSync(join(home, 'dist/assets/last-CdEfGh34.js'), 'fetch("http://localhost:8787/v1")\n')
  await watched.says(/HELD[^\n]*\n +0 solved, 1 new, 0 left/)
  expect(watched.text.slice(begun)).not.toMatch(/asset\/missing|not-built/)
  expect(await watched.end()).toBe(1)
}, 60_000)

test('a folder by itself is watched, and one that is elsewhere', async () => {
  const home = folderWith({
    'bare/index.html': '<!doctype html><script src="gone.js"></script>',
    'site/package.json': files['package.json'],
    'site/vite.config.js': files['vite.config.js'],
    'elsewhere/index.html': '<!doctype html><script src="gone.js"></script>',
  })
  const bare = new Watched(join(home, 'bare'))
  await bare.says(/^HELD[\s\S]*Watching/)
  writeFileSync(join(home, 'bare/gone.js'), '')
  await bare.says(/1 solved, 0 new, 0 left/)
  expect(await bare.end()).toBe(0)
  const other = new Watched(join(home, 'site'), ['--folder', join(home, 'elsewhere')])
  await other.says(/^HELD[\s\S]*Watching/)
  writeFileSync(join(home, 'elsewhere/gone.js'), '')
  await other.says(/1 solved, 0 new, 0 left/)
  expect(await other.end()).toBe(0)
}, 60_000)

test('other formats go to their files each time', async () => {
  const home = folderWith(files)
  const out = join(home, 'report.json')
  const watched = new Watched(home, ['--format', 'json', '--out', out])
  await watched.says(/Watching/)
  expect(JSON.parse(readFileSync(out, 'utf8')).verdict).toBe('held')
  writeFileSync(join(home, 'dist/assets/app-AbCdEf12.js'), '')
  await watched.says(/Written to [\s\S]*Written to /)
  expect(JSON.parse(readFileSync(out, 'utf8')).verdict).toBe('clear')
  expect(await watched.end()).toBe(0)
}, 60_000)

test.each([
  [['--all'], /--all can't stand beside --watch/],
  [['--build'], /--build can't stand beside --watch/],
  [['--record', 'x.json'], /--record can't stand beside --watch/],
  [['--format', 'json'], /Give --format json its own --out/],
])('%j', (more, says) => {
  const { status, err } = wardoscope([folderWith(files), ...site, '--watch', ...more])
  expect(status).toBe(2)
  expect(err).toMatch(says)
})
