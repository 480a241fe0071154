import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { zipSync } from 'fflate'
import { describe, expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const manifest = '{"name":"x","scripts":{"build":"vite build"},"devDependencies":{"vite":"^8.0.0"}}'
const site = ['--site', 'https://skerryline.example/crossings/']
const demo = 'dist/demo'

test.each<[string, readonly string[], number, RegExp]>([
  ['a path that does not exist', ['nowhere'], 3, /^wardoscope: There is no directory at nowhere\.\n$/],
  [
    'a path that is a file',
    ['package.json'],
    3,
    /^wardoscope: package\.json is a file, not a directory\.\n$/,
  ],
  [
    'a directory that is neither project nor build folder',
    ['schemas'],
    3,
    /^wardoscope: schemas is neither a project nor a build folder: .*\.\n$/,
  ],
  [
    'a site that is no URL',
    [`${demo}/sound`, '--site', 'skerryline'],
    2,
    /^wardoscope: The site address "skerryline" is no http or https URL\. .*\n$/,
  ],
  [
    'an unknown host',
    [`${demo}/sound`, '--host', 'fallbck'],
    2,
    /^wardoscope: There is no host "fallbck"\. Did you mean fallback\?\n$/,
  ],
  [
    'a host like nothing known',
    [`${demo}/sound`, '--host', 'zzz'],
    2,
    /^wardoscope: There is no host "zzz"\. There are: files, fallback, error-page, clean-urls\.\n$/,
  ],
  [
    'a host file that is not there',
    [`${demo}/sound`, '--host', './none.json'],
    2,
    /^wardoscope: The host file \.\/none\.json could not be read: There is no file at \.\/none\.json\. Name a preset \(files, [^)]*\) or a file\.\n$/,
  ],
  [
    'an unknown option',
    ['--sit', 'x'],
    2,
    /^wardoscope: Unknown option '--sit'\..*Did you mean --site\?\n$/s,
  ],
  ['an option without its value', ['check', '--site'], 2, /^wardoscope: .*--site <url>.*\n$/],
  ['too many paths', ['check', 'a', 'b'], 2, /^wardoscope: Too many arguments/],
  ['an unknown format', [`${demo}/sound`, '--format', 'jsn'], 2, /Did you mean json\?/],
  ['an unknown code', ['explain', 'base/wrong-pth'], 2, /Did you mean base\/wrong-path\?/],
  [
    'a result that cannot be written',
    [`${demo}/sound`, '--out', 'nowhere/report.txt'],
    3,
    /^wardoscope: nowhere\/report\.txt could not be written: its directory is not there\.\n$/,
  ],
])('%s', (_, args, status, message) => {
  const ran = wardoscope(args)
  expect(ran.err).toMatch(message)
  expect(ran).toMatchObject({ status, out: '' })
})

test('a manifest that is not JSON', () => {
  const ran = wardoscope(['.'], folderWith({ 'package.json': '{"name": "x",\n  "scripts": }' }))
  expect(ran).toMatchObject({ status: 3, out: '' })
  expect(ran.err).toBe('wardoscope: package.json is not valid JSON: value expected at line 2, column 14.\n')
})

test('a project never built is held, and names the command that builds it', () => {
  const ran = wardoscope([], folderWith({ 'package.json': manifest }))
  expect(ran).toMatchObject({ status: 1, err: '' })
  expect(ran.out).toContain('project/not-built')
  expect(ran.out).toContain('The folder dist does not exist.')
  expect(ran.out).toContain('Run npm run build')
})

test('an empty publish directory is held', () => {
  const folder = folderWith({ 'package.json': manifest })
  mkdirSync(join(folder, 'dist'))
  const ran = wardoscope(['check', '.'], folder)
  expect(ran.status).toBe(1)
  expect(ran.out).toContain('The folder dist is empty.')
})

test('a project of no known framework requests its folder, and takes it', () => {
  const folder = folderWith({ 'package.json': '{"name":"x"}', 'site/index.html': '<p>' })
  const without = wardoscope([], folder)
  expect(without).toMatchObject({ status: 2 })
  expect(without.err).toContain('--folder')
  expect(wardoscope(['--folder', 'site'], folder)).toMatchObject({ status: 0, err: '' })
  expect(wardoscope(['--folder', 'nowhere'], folder).out).toContain('project/not-built')
})

test('a publish directory that is computed requests it, with the place', () => {
  const config = 'export default {\n  build: {\n    outDir: pick(),\n  },\n}'
  const ran = wardoscope([], folderWith({ 'package.json': manifest, 'vite.config.js': config }))
  expect(ran).toMatchObject({ status: 2 })
  expect(ran.err).toContain('computed at vite.config.js:3')
})

test('the JSON report fits its published schema, held, clear and never built', () => {
  const schema = JSON.parse(readFileSync('schemas/wardoscope-report-1.schema.json', 'utf8'))
  const validate = new Ajv2020({ strict: true }).compile(schema)
  const never = folderWith({ 'package.json': manifest })
  for (const path of ['sound', 'wrong-base', 'environment-absent', 'endpoint-left', 'file-removed', never]) {
    const ran = wardoscope([path, ...site, '--route', '/sailings', '--format', 'json'], demo)
    expect(validate(JSON.parse(ran.out)), `${path}: ${JSON.stringify(validate.errors)}`).toBe(true)
  }
  expect(validate({ schema: 'wardoscope-report/1' })).toBe(false)
})

test('a report goes to a file, and text written there has no colour', () => {
  const folder = folderWith({})
  const ran = wardoscope(['wrong-base', ...site, '--out', join(folder, 'r.txt')], demo)
  expect(ran).toMatchObject({ status: 1, out: '' })
  const text = readFileSync(join(folder, 'r.txt'), 'utf8')
  expect(text).toMatch(/^HELD {3}https:\/\/skerryline\.example\/crossings\/\n/)
  expect(text).not.toContain('\u001b')
})

test('a zip of a build folder is looked at as the folder is', () => {
  const folder = folderWith({ 'index.html': '<!doctype html><script src="/crossings/gone.js"></script>' })
  const archive = join(folder, 'site.zip')
  writeFileSync(
    archive,
    zipSync({ 'dist/index.html': new Uint8Array(readFileSync(join(folder, 'index.html'))) }),
  )
  const { out, status } = wardoscope([archive, ...site, '--host', 'files'])
  expect(status).toBe(1)
  expect(out).toMatch(/site\.zip: 1 file,[\s\S]*asset\/missing/)
  expect(wardoscope([join(folder, 'gone.zip')])).toMatchObject({
    status: 3,
    err: expect.stringMatching(/There is no file at .*gone\.zip\.\n$/),
  })
  writeFileSync(archive, 'no archive')
  expect(wardoscope([archive]).err).toMatch(
    /site\.zip is no zip archive that can be read, or was cut off\.\n$/,
  )
})

describe('in a terminal', () => {
  /** What the program writes to a terminal of so many columns. */
  const drawn = (
    columns: number,
    args: readonly string[],
    environment: Record<string, string> = {},
  ): string => {
    const command = `stty cols ${columns}; node dist/cli/bin.cjs ${args.map((each) => `'${each}'`).join(' ')} 2>/dev/null`
    const { NO_COLOR: _, ...plain } = process.env
    const env = { ...plain, TERM: 'xterm-256color', ...environment }
    return spawnSync('script', ['-qec', command, '/dev/null'], { encoding: 'utf8', env }).stdout
  }
  const plain = (text: string): string => text.replace(/\u001b\]8;;.*?\u001b\\|\u001b\[[\d;]*m|\r/g, '')

  test.each([80, 140])('no line is wider than %i columns, whatever was found', (columns) => {
    for (const name of [
      'sound',
      'wrong-base',
      'no-fallback',
      'environment-absent',
      'endpoint-left',
      'file-removed',
    ]) {
      const text = plain(
        drawn(columns, [
          `${demo}/${name}`,
          ...site,
          '--host',
          'fallback',
          '--weight',
          '--timings',
          '--routes',
          '--variables',
        ]),
      )
      expect(text).toMatch(/^(?:HELD|CLEAR)/)
      for (const line of text.split('\n')) expect(line.length, line).toBeLessThanOrEqual(columns)
    }
  })

  test('places lead to their files; without colour nothing does', () => {
    const args = [`${demo}/wrong-base`, ...site, '--host', 'fallback']
    const text = drawn(100, args)
    const links = [...text.matchAll(/\u001b\]8;;(file:[^\u001b]+)\u001b\\([^\u001b]+)/g)].map(
      ([, url = '', name]) => {
        expect(existsSync(new URL(url))).toBe(true)
        return name
      },
    )
    expect(links).toContain('vite.config.ts:4')
    expect(links.some((name) => /^dist\/index\.html:\d+:\d+$/.test(name ?? ''))).toBe(true)
    expect(drawn(100, [...args, '--no-color'])).not.toContain('\u001b')
    expect(wardoscope(args).out).not.toContain('\u001b')
  })

  test('links open the line where a template says how', () => {
    const args = [`${demo}/wrong-base`, ...site, '--host', 'fallback']
    const text = drawn(100, args, { WARDOSCOPE_LINK: 'editor://open{file}:{line}:{column}' })
    expect(text).toMatch(/\u001b\]8;;editor:\/\/open\/[^\u001b]+vite\.config\.ts:4:\d+\u001b/)
    expect(text).not.toContain('8;;file:')
  })

  test('a pipe has the width and the colours that the environment says', () => {
    const run = (environment: Record<string, string>): string =>
      spawnSync('node', ['dist/cli/bin.cjs', `${demo}/wrong-base`, ...site, '--host', 'fallback'], {
        encoding: 'utf8',
        env: { ...process.env, ...environment },
      }).stdout
    const widest = (text: string): number => Math.max(...text.split('\n').map(({ length }) => length))
    expect(widest(run({ COLUMNS: '70' }))).toBeLessThanOrEqual(70)
    expect(widest(run({ COLUMNS: '130' }))).toBeGreaterThan(100)
    expect(run({})).not.toContain('\u001b')
    expect(run({ FORCE_COLOR: '1' })).toMatch(/^\u001b\[1m\u001b\[31mHELD/)
    expect(run({ FORCE_COLOR: '1' })).not.toContain('8;;')
    expect(run({ FORCE_COLOR: '0' })).not.toContain('\u001b')
  })

  test('of hundreds of causes the heaviest are reported, and the rest are counted', () => {
    const calls = Array.from({ length: 400 }, (_, i) => `fetch("http://localhost:${3000 + i}/v1")`)
    const folder = folderWith({
      'index.html': '<!doctype html><script src="a.js"></script>',
      'a.js': calls.join(';'),
    })
    const { out, status } = wardoscope([folder, ...site])
    expect(status).toBe(1)
    expect(out).toContain('400 blockers')
    expect(out.match(/^ {2}blocker {2}/gm)).toHaveLength(24)
    expect(out).toMatch(/And 376 more causes\n {4}blocker {2}endpoint\/loopback +376, as in a\.js/)
    expect(out.split('\n').length).toBeLessThan(400)
  })
})

test('text fits 100 columns where there is no terminal, and a sound build says little', () => {
  for (const name of ['sound', 'wrong-base', 'environment-absent', 'endpoint-left', 'file-removed']) {
    const { out } = wardoscope([name, ...site, '--host', 'fallback'], demo)
    for (const line of out.split('\n')) expect(line.length, line).toBeLessThanOrEqual(100)
    if (name === 'sound') expect(out.trimEnd().split('\n')).toHaveLength(3)
  }
})

test('survey in text and JSON', () => {
  const text = wardoscope(['survey', 'sound'], demo)
  expect(text.status).toBe(0)
  expect(text.out).toMatch(/base path +\/crossings\/ +vite\.config\.ts:5/)
  const json = JSON.parse(wardoscope(['survey', 'sound', '--format', 'json'], demo).out)
  expect(json).toMatchObject({
    buildCommand: { value: 'npm run build', script: 'vite build' },
    publishDirectory: { value: 'dist' },
  })
  // A build folder is surveyed with the project that writes it, and by itself where none does.
  expect(wardoscope(['survey', 'sound/dist'], demo).out).toMatch(/build with +npm run build/)
  const bare = folderWith({
    'index.html': '<script src="/b/assets/index-BSKsdRK0.js"></script>',
    'assets/index-BSKsdRK0.js': '',
  })
  expect(wardoscope(['survey', bare, '--print', 'base-path']).out).toBe('/b/\n')
  expect(wardoscope(['survey', bare]).out).toMatch(/framework +vite +inferred from assets/)
  expect(wardoscope(['survey', folderWith({})])).toMatchObject({ status: 3, out: '' })
})

const member = (name: string, more: Record<string, string> = {}): string =>
  JSON.stringify({ name, scripts: { build: 'vite build' }, devDependencies: { vite: '8' }, ...more })

test('one bare value for scripts', () => {
  expect(wardoscope(['survey', 'sound', '--print', 'publish-directory'], demo)).toEqual({
    status: 0,
    out: 'dist\n',
    err: '',
  })
  expect(wardoscope(['survey', 'sound', '--print', 'node-version'], demo)).toMatchObject({
    status: 3,
    out: '',
  })
  expect(wardoscope(['survey', 'sound', '--print', 'publish-dir'], demo)).toMatchObject({
    status: 2,
    out: '',
  })
})

test('a repository of several: listed and requested, one named, one beside a server', () => {
  const two = folderWith({ 'a/package.json': member('a'), 'b/package.json': member('b') })
  const requested = wardoscope(['survey'], two)
  expect(requested).toMatchObject({ status: 0, err: '' })
  expect(requested.out).toMatch(
    /Projects in this repository\n +directory +built with .*\n +a +vite +npm run build +dist +\/\n +b +vite/,
  )
  const printed = JSON.parse(wardoscope(['survey', '--print', 'projects'], two).out)
  expect(printed).toMatchObject([{ directory: 'a', publishDirectory: 'dist', basePath: '/' }, {}])
  expect(wardoscope(['survey', '--print', 'base-path'], two)).toMatchObject({ status: 2, out: '' })
  expect(wardoscope([], two).err).toContain('One of them has to be named. Use --project.')
  expect(wardoscope(['check'], two)).toMatchObject({ status: 2, out: '' })
  expect(wardoscope(['survey', '--project', 'b', '--print', 'project'], two).out).toBe('b\n')
  const served = folderWith({
    'web/package.json': member('web'),
    'api/package.json': '{"dependencies":{"express":"5"}}',
  })
  expect(wardoscope([], served).out).toContain('the only front end; api is a server (express).')
})

test('a build folder named by itself is judged with the project that writes it', () => {
  const bare = wardoscope(['endpoint-left/dist', ...site, '--host', 'fallback'], demo)
  expect(bare.out).toContain('.env.production:2')
  expect(bare.status).toBe(1)
})

test('explain lists every code, and explains one', () => {
  const list = wardoscope(['explain'])
  expect(list.out.trim().split('\n').length).toBeGreaterThan(6)
  expect(wardoscope(['explain', 'env/absent'])).toMatchObject({ status: 0, err: '' })
})

test('hostile names and text reach the terminal harmless, and links that leave are not followed', () => {
  const outside = folderWith({ 'secret.js': 'fetch("http://localhost:9/secret")' })
  const folder = folderWith({
    'index.html':
      '<script src="a\u001b[2J\u202eb.js"></script><script src="link.js"></script><script src="sub/secret.js"></script>',
    'we\u001b[31mird/\u202egnp.js': 'import "./gone.js"',
  })
  symlinkSync(join(outside, 'secret.js'), join(folder, 'link.js'))
  symlinkSync(outside, join(folder, 'sub'))
  symlinkSync(folder, join(folder, 'circle'))
  const ran = wardoscope(['--color', folder].slice(1))
  expect(ran.status).toBe(1)
  expect(ran.out).not.toMatch(/[\u0000-\u0009\u000b-\u001f\u202e]/)
  expect(ran.out).toContain('link.js')
  expect(ran.out).not.toContain('localhost:9')
})

test('a file that cannot be read is named, and the rest is checked', () => {
  const folder = folderWith({ 'index.html': '<img src="/gone.png">', 'locked.js': '' })
  chmodSync(join(folder, 'locked.js'), 0)
  const ran = wardoscope([folder])
  expect(ran.status).toBe(1)
  // Root may read everything; then there is nothing to name.
  if (process.getuid?.() !== 0) expect(ran.out).toContain('locked.js could not be read')
  expect(ran.out).toContain('asset/missing')
})

test('a reader that closes the pipe early gets no stack trace', () => {
  const command = 'node dist/cli/bin.cjs demo | head -n 1; exit ${PIPESTATUS[0]}'
  const { status, stderr } = spawnSync('bash', ['-c', command], { encoding: 'utf8' })
  expect({ status, stderr }).toEqual({ status: 0, stderr: '' })
})

test('the version is the package version', () => {
  const { version } = JSON.parse(readFileSync('package.json', 'utf8'))
  expect(wardoscope(['--version'])).toMatchObject({ status: 0, out: `${version}\n` })
})

test('broken built files are read as far as they go', () => {
  const folder = folderWith({
    'index.html': '<script src=a.js',
    'a.js': '"unterminated\n`${',
    'a.css': '@import url(',
    'site.webmanifest': '{"icons":[{',
  })
  writeFileSync(join(folder, 'bytes.js'), Buffer.from([0xff, 0xfe, 0x00, 0x22, 0x60]))
  expect(wardoscope([folder])).toMatchObject({ status: 0, err: '' })
})

test('a host file describes the host, and --routes shows what answers each route', () => {
  const folder = folderWith({
    'host.json': '{"rules":[{"from":"/crossings/*","to":"/crossings/index.html"}]}',
  })
  const args = [`${demo}/sound`, ...site, '--host', `${folder}/host.json`, '--routes']
  const { status, out } = wardoscope(args)
  expect(status).toBe(0)
  expect(out).toMatch(/\/crossings\/sailings\s+200\s+index\.html\s+by a rule\s+src\/router\.tsx:16/)
})

test('missing fallback: the command that is named prints the rules for the servers people run whole', () => {
  const { status, out } = wardoscope([`${demo}/no-fallback`, ...site, '--host', 'files'])
  expect(status).toBe(1)
  const [, words = ''] = /wardoscope (explain route\/no-answer --site\s+\S+)/.exec(out) ?? []
  const explained = wardoscope(words.split(/\s+/))
  expect(explained.status).toBe(0)
  for (const text of ['alias /srv/site/;', 'RewriteEngine On', 'rewrite ^ /crossings/index.html last;'])
    expect(explained.out).toContain(text)
})

describe('a configuration', () => {
  const project = (configuration: string): string =>
    folderWith({
      'index.html': '<script src="/crossings/a.js"></script>',
      'a.js': '',
      'host/ours.json': '{"basedOn":"fallback"}',
      'wardoscope.config.json': configuration,
    })

  test('says where, how and what; the command line wins', () => {
    const folder = project(
      '{"site":"https://skerryline.example/crossings/","host":"./host/ours.json","routes":["/fleet"]}',
    )
    const { status, out } = wardoscope(['--routes'], folder)
    expect(status).toBe(0)
    expect(out).toContain('https://skerryline.example/crossings/')
    expect(out).toMatch(/\/crossings\/fleet\s+200\s+index\.html\s+by the fallback/)
    expect(wardoscope(['--host', 'files'], folder).status).toBe(1)
  })

  test.each([
    ['{', /^wardoscope: The configuration wardoscope\.config\.json is not JSON\.\n$/],
    [
      '{"sit":"x"}',
      /^wardoscope: The configuration wardoscope\.config\.json has a key "sit" that is not known\. Did you mean site\?\n$/,
    ],
    ['{"routes":"x"}', /^wardoscope: The configuration wardoscope\.config\.json has a wrong "routes": .*\n$/],
  ])('%s is reported in one sentence', (text, message) => {
    const { status, err } = wardoscope([], project(text))
    expect(status).toBe(2)
    expect(err).toMatch(message)
  })

  test('one that is named and not there is wrong use', () => {
    const { status, err } = wardoscope(['--config', 'none.json'], project('{}'))
    expect(status).toBe(2)
    expect(err).toBe("wardoscope: The configuration can't be read. There is no file at none.json.\n")
  })
})

describe('--build', () => {
  const manifest = (script: string): string =>
    JSON.stringify({ name: 'x', scripts: { build: script }, devDependencies: { vite: '8' } })

  test('runs the build command in the project, and checks what it wrote', () => {
    const folder = folderWith({
      'package.json': manifest(
        "node -e \"require('fs').mkdirSync('dist');require('fs').writeFileSync('dist/index.html','<p>x</p>')\" && echo vite build",
      ),
    })
    const { status, out, err } = wardoscope(['--build', ...site], folder)
    expect(err).toContain('Building: npm run build')
    expect(out).toMatch(/^CLEAR/)
    expect(status).toBe(0)
  })

  test('the folder that is named need not be there before the build', () => {
    const folder = folderWith({
      'package.json': manifest(
        "node -e \"require('fs').mkdirSync('site');require('fs').writeFileSync('site/index.html','<p>x</p>')\" && echo vite build",
      ),
    })
    const { status, out } = wardoscope(['--build', '--folder', 'site', ...site], folder)
    expect(out).toMatch(/^CLEAR/)
    expect(status).toBe(0)
  })

  test('a build that fails is reported with its status, and nothing is checked', () => {
    const folder = folderWith({
      'package.json': manifest('echo broken >&2; exit 7 # vite build'),
      'dist/index.html': '<p>x</p>',
    })
    const { status, out, err } = wardoscope(['--build'], folder)
    expect(status).toBe(3)
    expect(out).toBe('')
    expect(err).toContain('broken')
    expect(err).toMatch(/The build failed: npm run build ended with status 7\. Nothing was checked\.\n$/)
  })
})

test('a variable that was absent is shown in a table, with its state and places and no value', () => {
  const { out } = wardoscope([`${demo}/environment-absent`, ...site, '--host', 'fallback'])
  expect(out).toMatch(/VITE_SAILINGS_API\s+absent\s+not set in a file, read at src\/api\.ts:6/)
})

test('names from a build cannot write on the terminal, in the table of routes either', () => {
  const folder = folderWith({ 'index.html': '<p>x</p>', 'a\u001b[31m/b\u202ec.html': '<p>x</p>' })
  const { status, out } = wardoscope(['--routes', '--folder', '.', '--host', 'files'], folder)
  expect(status).toBe(0)
  expect(out).toContain('by its file')
  expect(out).not.toMatch(/[\u001b\u202e]/)
})
