import { execFileSync, spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { build } from 'rolldown'
import { beforeAll, describe, expect, test } from 'vitest'
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
  // Types that a project has which uses the plugin and the matcher.
  mkdirSync(join(installed, 'node_modules/@types'), { recursive: true })
  for (const name of ['vite', 'vitest', '@types/node'])
    symlinkSync(join(process.cwd(), 'node_modules', name), join(installed, 'node_modules', name), 'dir')
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
  // Six builds are checked, and the service of one is requested twice.
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

test('the packed program explains a code', () => {
  const { status, out } = npx('explain', 'asset/missing')
  expect(status).toBe(0)
  expect(out).toContain('A page, style sheet or script requests a file that was not built')
  expect(out).toContain('fix, with vite')
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

/** Snippets of the page about the library, as TypeScript has them. */
const snippets = [
  ...readFileSync('docs/library.md', 'utf8').matchAll(/```js(?: file=(\S+))?\n([\s\S]*?)```/g),
].map(
  ([, name, code = ''], index) => [(name ?? `snippet-${index}.mjs`).replace(/\.mjs$/, '.mts'), code] as const,
)

describe.each(['bundler', 'nodenext'])('with moduleResolution %s', (moduleResolution) => {
  /** What the compiler says to these files in a project that has the packed package, and types of Vite and Vitest. */
  const compiled = (files: Readonly<Record<string, string>>): string => {
    const project = join(installed, moduleResolution)
    mkdirSync(project, { recursive: true })
    for (const [name, code] of Object.entries(files)) writeFileSync(join(project, name), code)
    const module = moduleResolution === 'bundler' ? 'esnext' : 'nodenext'
    const compilerOptions = {
      strict: true,
      skipLibCheck: false,
      noEmit: true,
      target: 'es2022',
      lib: ['es2023', 'dom', 'dom.iterable'],
      types: ['node'],
      allowImportingTsExtensions: false,
      module,
      moduleResolution,
    }
    writeFileSync(
      join(project, 'tsconfig.json'),
      JSON.stringify({ compilerOptions, files: Object.keys(files) }),
    )
    return spawnSync('node', [join(process.cwd(), 'node_modules/typescript/bin/tsc'), '-p', project], {
      encoding: 'utf8',
    }).stdout
  }

  test('every entry compiles, its types and all that they name', () => {
    const { exports: entries } = JSON.parse(readFileSync('package.json', 'utf8')) as {
      exports: Record<string, unknown>
    }
    const names = Object.keys(entries).filter((name) => !/json|\*/.test(name))
    expect(names).toHaveLength(5)
    const code = names.map(
      (name, index) => `import * as e${index} from 'wardoscope${name.slice(1)}'\nconsole.log(e${index})`,
    )
    expect(compiled({ 'entries.mts': code.join('\n') })).toBe('')
  })

  test('every snippet of the page about the library compiles', () => {
    expect(snippets.length).toBeGreaterThan(7)
    expect(compiled(Object.fromEntries(snippets))).toBe('')
  })

  test('what is wrong does not compile', () => {
    expect(compiled({ 'wrong.mts': "import { parseSite } from 'wardoscope'\nparseSite(1)" })).toContain(
      'TS2345',
    )
  })
})

test('a bundler keeps of the library only what is used', async () => {
  const entry = join(installed, 'one.mjs')
  writeFileSync(
    entry,
    "import { parseSite } from 'wardoscope'\nconsole.log(parseSite('https://skerryline.example').base)\n",
  )
  const { output } = await build({
    input: entry,
    write: false,
    platform: 'browser',
    output: { minify: true },
  })
  expect(output[0].code).toContain('is no http or https URL')
  expect(output[0].code.length).toBeLessThan(2_000)
})

test('a browser gets a check in a bundle of less than 250 kB compressed; parsers are parts that come when they are needed', async () => {
  const entry = join(installed, 'checked.js')
  writeFileSync(
    entry,
    `import { check, MemoryFolder } from 'wardoscope'
export const judge = (files) => check(new MemoryFolder(files))`,
  )
  const { output } = await build({
    input: entry,
    write: false,
    platform: 'browser',
    output: { minify: true },
  })
  const [first, ...parts] = output.filter((each) => each.type === 'chunk')
  expect(gzipSync(first?.code ?? '').length).toBeLessThan(250_000)
  expect(parts.length).toBeGreaterThan(2)
  const all = output.reduce((sum, each) => sum + ('code' in each ? gzipSync(each.code).length : 0), 0)
  expect(all).toBeLessThan(450_000)
})

test('errors of another copy of the package are known again', () => {
  const copy = join(installed, 'copy/node_modules/wardoscope')
  cpSync(join(installed, 'node_modules/wardoscope'), copy, { recursive: true })
  const script = [
    "import { UsageError, FolderError } from 'wardoscope'",
    `import { parseSite, MemoryFolder } from ${JSON.stringify(join(copy, 'dist/core/index.js'))}`,
    "try { parseSite('x') } catch (error) { console.log(error instanceof UsageError, error instanceof FolderError, error.name) }",
    "await new MemoryFolder({}).read('x').catch((error) => console.log(error instanceof FolderError, error.reason))",
    'console.log(new Error() instanceof UsageError, null instanceof FolderError)',
  ].join('\n')
  expect(
    execFileSync('node', ['--input-type=module', '-e', script], { cwd: installed, encoding: 'utf8' }),
  ).toBe('true false UsageError\ntrue missing\nfalse false\n')
})

test('the library can be imported by its public names', () => {
  const script =
    "import { check, MemoryFolder } from 'wardoscope'; import { DiskFolder } from 'wardoscope/node';" +
    "const r = await check(new MemoryFolder({ 'index.html': '<img src=x.png>' })); console.log(r.verdict, typeof DiskFolder.open)"
  expect(
    execFileSync('node', ['--input-type=module', '-e', script], { cwd: installed, encoding: 'utf8' }),
  ).toBe('held function\n')
})
