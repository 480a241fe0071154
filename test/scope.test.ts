import { execFileSync, spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, symlinkSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const bin = join(import.meta.dirname, '../dist/cli/bin.cjs')
const hook = join(import.meta.dirname, 'support/trace-files.cjs')
const manifest = (more: Record<string, unknown> = {}): string =>
  JSON.stringify({ name: 'x', scripts: { build: 'vite build' }, devDependencies: { vite: '8' }, ...more })
const site = ['--site', 'https://skerryline.example/']
const page = '<!doctype html><title>Skerry Line</title>'

/** What the program opened and listed below a directory, and its memory in kilobytes. */
function traced(
  root: string,
  args: readonly string[],
  cwd = root,
): { out: string; err: string; status: number | null; opened: string[]; listed: string[]; memory: number } {
  const log = join(folderWith({}), 'trace')
  const { status, stdout, stderr } = spawnSync('node', [bin, ...args], {
    cwd,
    encoding: 'utf8',
    timeout: 60_000,
    env: { ...process.env, NODE_OPTIONS: `--require ${hook}`, WARDOSCOPE_TRACE: log },
  })
  const lines = readFileSync(log, 'utf8').trim().split('\n')
  const of = (kind: string): string[] =>
    lines
      .filter((line) => line.startsWith(`${kind} ${root}/`) || line === `${kind} ${root}`)
      .map((line) => line.slice(kind.length + root.length + 2))
      .sort()
  const memory = Number(lines.find((line) => line.startsWith('memory '))?.slice(7))
  return { status, out: stdout, err: stderr, opened: of('open'), listed: of('list'), memory }
}

const pages = Object.fromEntries(
  ['index.html', 'a/index.html', 'b/index.html', 'c/index.html', 'd/index.html'].map((path) => [path, page]),
)

/** Five pages beside 300 projects of other people, one with a pipe and one with a huge environment file. */
function amongNeighbours(): string {
  const neighbours = Array.from({ length: 300 }, (_, index): [string, string][] => [
    [`n${index}/package.json`, manifest({ name: `n${index}` })],
    [`n${index}/.env`, 'VITE_API=https://api.skerryline.example'],
    [`n${index}/src/main.js`, 'fetch(import.meta.env.VITE_API)'],
  ]).flat()
  const root = folderWith({
    ...Object.fromEntries(neighbours),
    ...Object.fromEntries(Object.entries(pages).map(([path, text]) => [`mine/${path}`, text])),
  })
  execFileSync('mkfifo', [join(root, 'n7/.env.production')])
  writeFileSync(join(root, 'n8/.env.local'), '')
  truncateSync(join(root, 'n8/.env.local'), 700_000_000)
  return root
}

test('a bare folder beside 300 projects reads none of them, and costs what it costs alone', () => {
  const alone = folderWith(pages)
  const root = amongNeighbours()
  const [one, other] = [traced(alone, [alone, ...site]), traced(root, [join(root, 'mine'), ...site])]
  expect(one.status).toBe(0)
  expect(other.status).toBe(0)
  expect(other.opened.filter((path) => !path.startsWith('mine/'))).toEqual([])
  expect(other.listed.filter((path) => path !== 'mine' && !path.startsWith('mine/'))).toEqual([])
  expect(other.opened.map((path) => path.slice(5))).toEqual(one.opened)
  expect(other.memory).toBeLessThan(100_000)
})

test('of the other projects of a repository only manifests and names are read', () => {
  const root = folderWith({
    'package.json': JSON.stringify({ private: true, workspaces: ['apps/*', '!apps/old'] }),
    'apps/site/package.json': manifest({ name: 'site' }),
    'apps/site/dist/index.html': page,
    'apps/site/src/main.js': 'fetch("/x")',
    'apps/site/.env': 'VITE_A=1',
    'apps/api/package.json': '{"name":"api","dependencies":{"express":"5"}}',
    'apps/api/.env': 'TOKEN=1',
    'apps/api/src/server.js': '',
    'apps/old/package.json': manifest({ name: 'old' }),
    'elsewhere/package.json': manifest({ name: 'elsewhere' }),
  })
  const { opened, out, status } = traced(root, ['.', ...site])
  expect(status).toBe(0)
  expect(out).toContain('the only front end; apps/api is a server (express).')
  expect(opened.filter((path) => !path.startsWith('apps/site/'))).toEqual(
    expect.arrayContaining(['apps/api/package.json', 'package.json']),
  )
  for (const path of [
    'apps/api/.env',
    'apps/api/src/server.js',
    'apps/old/package.json',
    'elsewhere/package.json',
  ])
    expect(opened).not.toContain(path)
})

test('without a list of workspaces, what git ignores, hides or vendors holds no project', () => {
  const inner = (name: string): Record<string, string> => ({ [`${name}/package.json`]: manifest({ name }) })
  const root = folderWith({
    '.gitignore': 'drafts/\n',
    'web/.gitignore': '/generated\n',
    ...inner('web/app'),
    'web/app/dist/index.html': page,
    ...inner('drafts/app'),
    ...inner('web/generated/app'),
    ...inner('.hidden/app'),
    ...inner('vendor/app'),
    ...inner('a/b/c/d'),
  })
  const { out, err } = wardoscope(['survey'], root)
  expect(err).toBe('')
  expect(out).toMatch(/^web\/app/)
  expect(out).not.toContain('drafts')
})

test('more directories than are looked at are said', () => {
  const root = folderWith({ 'web/package.json': manifest(), 'web/dist/index.html': page })
  for (let index = 0; index < 201; index++) {
    const directory = join(root, `x${String(index).padStart(3, '0')}`)
    mkdirSync(directory)
    for (let file = 0; file < 100; file++) writeFileSync(join(directory, `${file}`), '')
  }
  expect(wardoscope(['survey'], root).out.replace(/\s+/g, ' ')).toContain(
    'More than 20000 directory entries were looked at for projects',
  )
})

describe('a project', () => {
  test('opens nothing above it but the manifest, lockfile and workspaces of its repository', () => {
    const root = folderWith({
      'package.json': JSON.stringify({
        private: true,
        workspaces: ['apps/*'],
        packageManager: 'pnpm@10.0.0',
      }),
      'pnpm-lock.yaml': 'lockfileVersion: "9.0"',
      '.env': 'SECRET=1',
      'vite.config.js': 'export default { base: "/above/" }',
      'apps/site/package.json': manifest(),
      'apps/site/dist/index.html': page,
      'apps/other/package.json': manifest({ name: 'other' }),
    })
    const { opened, listed, status, out } = traced(root, ['survey', 'apps/site'])
    expect(status).toBe(0)
    expect(out).toMatch(/package manager +pnpm/)
    expect(opened.filter((path) => !path.startsWith('apps/site/'))).toEqual(['package.json'])
    expect(listed.filter((path) => !path.startsWith('apps/site'))).toEqual([])
  })

  test('without a manifest is one by its own configuration, and so is its build found', () => {
    const root = folderWith({
      'hugo.toml': 'baseURL = "https://skerryline.example/crossings/"\n',
      'public/index.html': page,
      'content/a.md': '# A',
      '../neighbour': '',
    })
    expect(wardoscope(['survey', '--print', 'framework'], root).out).toBe('hugo\n')
    expect(wardoscope(['survey', 'public', '--print', 'base-path'], root).out).toBe('/crossings/\n')
    expect(wardoscope([join(root, 'public')], root).out).toContain('/crossings/')
  })

  test('is found from a directory of its sources, and that is said', () => {
    const root = folderWith({
      'package.json': manifest(),
      'src/main.js': 'import "./style.css"',
      'src/style.css': '',
      'dist/index.html': page,
    })
    const { out, status } = wardoscope(['src', ...site], root)
    expect(status).toBe(0)
    expect(out.replace(/\s+/g, ' ')).toContain('src is a directory of the project here')
    expect(out).toContain('dist: 1 file')
  })

  test('is found through a link to it, or to a directory above it', () => {
    const root = folderWith({
      'work/app/package.json': manifest(),
      'work/app/vite.config.js': "export default { base: '/b/' }",
      'work/app/dist/index.html': page,
    })
    symlinkSync(join(root, 'work'), join(root, 'link'))
    symlinkSync(join(root, 'work/app'), join(root, 'app'))
    for (const path of ['link/app/dist', 'app/dist'])
      expect(wardoscope(['survey', path, '--print', 'base-path'], root).out).toBe('/b/\n')
  })

  test('above a folder that it does not write is left alone', () => {
    const root = folderWith({
      'package.json': manifest(),
      '.env': 'VITE_A=https://a.example',
      'src/main.js': '',
      'elsewhere/index.html': page,
    })
    const { opened, out } = traced(root, ['elsewhere', ...site])
    expect(out).toContain('elsewhere: 1 file')
    expect(opened).not.toContain('src/main.js')
  })
})

describe('what is no regular file', () => {
  test.each(['.env', '.env.production', 'vite.config.js', 'src/api.js'])(
    'a pipe at %s is not waited for, and is named where something requests it',
    (name) => {
      const root = folderWith({ 'package.json': manifest(), 'src/main.js': '', 'dist/index.html': page })
      execFileSync('mkfifo', [join(root, name)])
      const { out, status } = wardoscope([...site], root)
      expect(status).toBe(0)
      // A pipe among the sources is no source.
      if (!name.startsWith('src/')) expect(out).toContain(`${name} is a named pipe, and is not read.`)
    },
  )

  test('an environment file above 1 MB is none, and is named', () => {
    const root = folderWith({
      'package.json': manifest(),
      'src/main.js': 'fetch(import.meta.env.VITE_API)',
      'dist/index.html': page,
      '.env': `VITE_API=https://api.example\n#${'x'.repeat(1_000_001)}`,
    })
    const { out } = wardoscope([...site, '--variables'], root)
    expect(out).toContain('.env is larger than 1 MB, and is not read.')
  })

  test('in a build folder, pipes, sockets and links that lead out are named', () => {
    const root = folderWith({ 'index.html': page, 'a.js': '' })
    const server = `require('net').createServer().listen(${JSON.stringify(join(root, 'sock'))}, () => process.kill(process.pid, 'SIGKILL'))`
    spawnSync('node', ['-e', server])
    execFileSync('mkfifo', [join(root, 'pipe.js')])
    execFileSync('ln', ['-s', '/etc/hostname', join(root, 'out.js')])
    execFileSync('ln', ['-s', 'nowhere', join(root, 'gone.js')])
    const { unread } = JSON.parse(wardoscope([root, ...site, '--format', 'json']).out)
    expect(unread).toEqual([
      { file: 'gone.js', reason: 'gone.js is a link that leads nowhere, and is not read.' },
      { file: 'out.js', reason: 'out.js is a link that leads out of the folder, and is not read.' },
      { file: 'pipe.js', reason: 'pipe.js is a named pipe, and is not read.' },
      { file: 'sock', reason: 'sock is a socket, and is not read.' },
    ])
  })

  test.each([
    ['--config', 2],
    ['--host', 2],
  ])('a pipe given to %s is one sentence', (option, status) => {
    const root = folderWith({ 'index.html': page })
    const pipe = join(folderWith({}), 'pipe.json')
    execFileSync('mkfifo', [pipe])
    const ran = wardoscope([root, option, pipe])
    expect(ran.status).toBe(status)
    expect(ran.err).toMatch(/is a named pipe, and is not read/)
    expect(ran.err.trim().split('\n')).toHaveLength(1)
  })

  test('a manifest that is a pipe is one sentence', () => {
    const root = folderWith({ 'dist/index.html': page })
    execFileSync('mkfifo', [join(root, 'package.json')])
    expect(wardoscope([root])).toMatchObject({
      status: 3,
      err: 'wardoscope: package.json is a named pipe, and is not read.\n',
    })
  })
})
