import { execFileSync, spawnSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, expect, test } from 'vitest'
import { folderWith } from './support/folders.ts'

let installed = ''

beforeAll(() => {
  installed = folderWith({ 'package.json': '{"name":"stranger","private":true,"type":"module"}' })
  // The program and the demo builds are made by the test command; packing again here would make them under other tests.
  const args = ['pack', '--ignore-scripts', '--json', '--pack-destination', installed]
  const packed: unknown = JSON.parse(
    execFileSync('npm', args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }),
  )
  const file = readdirSync(installed).find((name) => name.endsWith('.tgz'))
  expect(packed).toBeTruthy()
  execFileSync('npm', ['install', '--no-audit', '--no-fund', `./${file}`], {
    cwd: installed,
    stdio: 'ignore',
  })
})

function npx(...args: string[]): { status: number | null; out: string } {
  const { status, stdout } = spawnSync('npx', ['--no-install', 'wardoscope', ...args], {
    cwd: installed,
    encoding: 'utf8',
  })
  return { status, out: stdout }
}

test('the packed program tells its version', () => {
  const { version } = JSON.parse(readFileSync('package.json', 'utf8'))
  expect(npx('--version')).toEqual({ status: 0, out: `${version}\n` })
})

test('the packed demo runs on builds made at pack time', () => {
  const { status, out } = npx('demo')
  expect(status).toBe(0)
  // Six builds are checked, and the service of one is asked twice.
  expect(out.match(/^CLEAR/gm)).toHaveLength(2)
  expect(out.match(/^HELD/gm)).toHaveLength(6)
  for (const code of [
    'base/wrong-path',
    'env/absent',
    'endpoint/loopback',
    'asset/answered-with-page',
    'route/no-answer',
    'endpoint/origin-refused',
  ]) {
    expect(out).toContain(code)
  }
})

test('the package holds the program, the schema and the demo, and no source or test', () => {
  const files = readdirSync(join(installed, 'node_modules/wardoscope'), { recursive: true, encoding: 'utf8' })
  expect(files).toEqual(
    expect.arrayContaining([
      'dist/cli/bin.cjs',
      'dist/core/index.d.ts',
      'schemas/wardoscope-report-1.schema.json',
      'README.md',
      'LICENSE',
    ]),
  )
  expect(files.filter((path) => /\.test\.|^src|^test|^examples|^corpus/.test(path))).toEqual([])
})

test('the library can be imported by its public names', () => {
  const script =
    "import { check, MemoryFolder } from 'wardoscope'; import { DiskFolder } from 'wardoscope/node';" +
    "const r = await check(new MemoryFolder({ 'index.html': '<img src=x.png>' })); console.log(r.verdict, typeof DiskFolder.open)"
  expect(
    execFileSync('node', ['--input-type=module', '-e', script], { cwd: installed, encoding: 'utf8' }),
  ).toBe('held function\n')
})
