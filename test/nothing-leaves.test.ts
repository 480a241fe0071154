import { execFileSync, spawnSync } from 'node:child_process'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const bin = join(import.meta.dirname, '../dist/cli/bin.cjs')
const site = ['--site', 'https://skerryline.example/']
const manifest = '{"name":"x","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}'
const page = '<!doctype html><title>Skerry Line</title>'

/** The program with another environment; what is undefined is not set. */
function run(
  args: readonly string[],
  environment: Record<string, string | undefined> = {},
  cwd = process.cwd(),
): { status: number | null; out: string; err: string } {
  const env = Object.fromEntries(
    Object.entries({ ...process.env, ...environment }).filter(([, value]) => value !== undefined),
  ) as Record<string, string>
  const { status, stdout, stderr } = spawnSync('node', [bin, ...args], { cwd, env, encoding: 'utf8' })
  return { status, out: stdout, err: stderr }
}

describe('compiled code', () => {
  const build = folderWith({ 'index.html': page })
  const keptIn = (directory: string): string[] =>
    existsSync(directory)
      ? readdirSync(directory, { recursive: true, encoding: 'utf8' }).filter((path) =>
          /\.code$|compiled./.test(path),
        )
      : []

  test('is kept below the home directory', () => {
    const home = folderWith({})
    run([build, ...site], { HOME: home, XDG_CACHE_HOME: undefined })
    expect(keptIn(home)).not.toEqual([])
  })

  test.each<[string, (home: string) => Record<string, string | undefined>]>([
    [
      'a home that others can write',
      (home) => {
        chmodSync(home, 0o777)
        return { HOME: home, XDG_CACHE_HOME: undefined }
      },
    ],
    [
      'a cache directory that others can write',
      (home) => {
        mkdirSync(join(home, '.cache/wardoscope'), { recursive: true })
        chmodSync(join(home, '.cache/wardoscope'), 0o777)
        return { HOME: home, XDG_CACHE_HOME: undefined }
      },
    ],
    [
      'a cache directory outside the home',
      (home) => ({ HOME: join(home, 'me'), XDG_CACHE_HOME: join(home, 'shared') }),
    ],
    [
      'a cache directory that is a link out of the home',
      (home) => {
        mkdirSync(join(home, 'me'))
        mkdirSync(join(home, 'shared'))
        symlinkSync(join(home, 'shared'), join(home, 'me/.cache'))
        return { HOME: join(home, 'me'), XDG_CACHE_HOME: undefined }
      },
    ],
    [
      'a directory for temporary files',
      (home) => ({ HOME: '', TEMP: home, TMPDIR: home, XDG_CACHE_HOME: undefined }),
    ],
  ])('is not kept in %s', (_, place) => {
    const home = folderWith({})
    expect(run([build, ...site], place(home)).status).toBe(0)
    expect(keptIn(home)).toEqual([])
  })

  test('of a command that there is none of leaves nothing behind', () => {
    const home = folderWith({})
    const ran = run(['chek'], { HOME: home, XDG_CACHE_HOME: undefined }, build)
    expect(ran.err).toMatch(/Did you mean check\?/)
    expect(readdirSync(home)).toEqual([])
  })
})

describe('a configuration that is code', () => {
  const ran = 'the-code-ran'
  const code = `import { writeFileSync } from 'node:fs'\nwriteFileSync(new URL('./${ran}', import.meta.url), '')\nexport default { routes: ['/from-code'] }\n`
  const project = { 'package.json': manifest, 'dist/index.html': page, 'wardoscope.config.mjs': code }
  const below = (directory: string, files: Record<string, string>): Record<string, string> =>
    Object.fromEntries(Object.entries(files).map(([path, text]) => [`${directory}/${path}`, text]))

  const repository = (files: Record<string, string>): string => {
    const root = folderWith(files)
    execFileSync('git', ['init', '-q', root])
    return root
  }

  test.each<[string, () => { at: string; cwd: string; args: string[] }]>([
    ['in the working directory', () => ({ at: '.', cwd: folderWith(project), args: ['.'] })],
    [
      'in the repository one works in',
      () => ({ at: 'site', cwd: repository(below('site', project)), args: ['site'] }),
    ],
    [
      'above a build folder that is named, in the repository one works in',
      () => ({ at: 'site', cwd: repository(below('site', project)), args: ['site/dist'] }),
    ],
    [
      'that is named',
      () => {
        const cwd = folderWith(project)
        return { at: '.', cwd, args: [join(cwd, 'dist'), '--config', join(cwd, 'wardoscope.config.mjs')] }
      },
    ],
  ])('runs %s', (_, make) => {
    const { at, cwd, args } = make()
    const { out, err } = wardoscope([...args, ...site, '--routes'], cwd)
    expect(err).toBe('')
    expect(existsSync(join(cwd, at, ran))).toBe(true)
    expect(out).toContain('/from-code')
  })

  test.each<[string, () => { root: string; cwd: string; path: string }]>([
    ['in a folder of strangers', () => ({ root: '.', cwd: process.cwd(), path: folderWith(project) })],
    [
      'above a build folder of strangers',
      () => ({ root: '..', cwd: process.cwd(), path: join(folderWith(project), 'dist') }),
    ],
    [
      'below a working directory that is no repository',
      () => {
        const cwd = folderWith(below('site', project))
        return { root: '.', cwd, path: join(cwd, 'site') }
      },
    ],
    [
      'in a repository within one’s own',
      () => {
        const cwd = repository(below('theirs', project))
        execFileSync('git', ['init', '-q', join(cwd, 'theirs')])
        return { root: '.', cwd, path: join(cwd, 'theirs') }
      },
    ],
    [
      'in a package that is installed',
      () => {
        const cwd = repository(below('node_modules/theirs', project))
        return { root: '.', cwd, path: join(cwd, 'node_modules/theirs') }
      },
    ],
    [
      'in a build folder',
      () => {
        const cwd = folderWith({ 'index.html': page, 'wardoscope.config.mjs': code })
        return { root: '.', cwd, path: cwd }
      },
    ],
  ])('does not run %s, and that is said', (_, make) => {
    const { root, cwd, path } = make()
    const { out, status } = wardoscope([path, ...site, '--routes'], cwd)
    expect(status).toBe(0)
    expect(existsSync(join(path, root, ran))).toBe(false)
    expect(out.replace(/\s+/g, ' ')).toContain('was found and not run: it is code')
    expect(out).not.toContain('/from-code')
  })

  test('does not run for the matcher and the library either', () => {
    const folder = folderWith(project)
    const script = `import { checkPath } from ${JSON.stringify(join(process.cwd(), 'dist/node/index.js'))}; const { survey } = await checkPath(${JSON.stringify(folder)}); console.log(survey.remarks.join())`
    const out = execFileSync('node', ['--input-type=module', '-e', script], { encoding: 'utf8' })
    expect(out).toContain('was found and not run')
    expect(existsSync(join(folder, ran))).toBe(false)
  })
})

test('the folder of a configuration stays in the repository; one on the command line need not', () => {
  const outside = folderWith({ 'index.html': page })
  const config = JSON.stringify({ folder: outside })
  const root = folderWith({ 'package.json': manifest, 'wardoscope.config.json': config })
  const ran = wardoscope([root, ...site])
  expect(ran.status).toBe(2)
  expect(ran.err).toMatch(
    /^wardoscope: The configuration names the folder .* which is outside the project's repository\./,
  )
  expect(wardoscope([root, ...site, '--folder', outside]).status).toBe(0)
  // A link is followed to where it leads.
  symlinkSync(outside, join(root, 'link'))
  writeFileSync(join(root, 'wardoscope.config.json'), '{ "folder": "link" }')
  expect(wardoscope([root, ...site]).status).toBe(2)
})

test('a source map quotes no file that is no source of the project', () => {
  const token = 'token-3fK9-of-a-registry'
  const secrets = [
    '.npmrc',
    '.yarnrc.yml',
    '.git/config',
    'notes.pem',
    '.env.old',
    '../outside.js',
    'deploy.key',
  ]
  const map = (source: string): string =>
    JSON.stringify({ version: 3, sources: [source], names: [], mappings: 'AAAA,CAAC,GAAG,CAAC,GAAG,CAAC' })
  const scripts = secrets.map((name, index): [string, string][] => [
    [
      `dist/a${index}.js`,
      `fetch("http://localhost:90${10 + index}/v1")\n//# sourceMappingURL=a${index}.js.map`,
    ],
    [`dist/a${index}.js.map`, map(`../${name}`)],
  ])
  const files = Object.fromEntries([
    ...secrets
      .filter((name) => !name.startsWith('..'))
      .map((name) => [name, `//registry/:_authToken=${token}`]),
    ...scripts.flat(),
    ['package.json', manifest],
    ['src/main.js', 'fetch(1)'],
    [
      'dist/index.html',
      `<!doctype html>${secrets.map((_, index) => `<script src="a${index}.js"></script>`).join('')}`,
    ],
  ])
  const root = folderWith(files)
  for (const format of ['text', 'json', 'html', 'markdown', 'sarif']) {
    const { out, status } = wardoscope([root, ...site, '--format', format])
    expect(status).toBe(1)
    expect(out).toContain('9010')
    expect(out, format).not.toContain(token)
  }
})

test('git fetches nothing, whatever its environment and the repository allow', () => {
  const root = folderWith({
    'package.json': manifest,
    'src/main.js': 'export {}',
    'dist/index.html': page,
  })
  const sentinel = join(folderWith({}), 'ran')
  const git = (...args: string[]): string =>
    execFileSync('git', ['-C', root, ...args], { encoding: 'utf8' }).trim()
  git('init', '-q')
  git('-c', 'user.name=x', '-c', 'user.email=x@x.example', 'add', 'package.json', 'src')
  git('-c', 'user.name=x', '-c', 'user.email=x@x.example', 'commit', '-qm', 'one')
  const tree = git('rev-parse', 'HEAD^{tree}')
  git('config', 'remote.origin.url', `file://${root}`)
  git('config', 'remote.origin.promisor', 'true')
  git('config', 'remote.origin.uploadpack', `touch ${sentinel} #`)
  git('config', 'core.repositoryFormatVersion', '1')
  git('config', 'extensions.partialClone', 'origin')
  execFileSync('rm', ['-f', join(root, '.git/objects', tree.slice(0, 2), tree.slice(2))])
  const allowing = { GIT_ALLOW_PROTOCOL: 'file:ext', GIT_NO_LAZY_FETCH: '0' }
  // The trap is real: git by itself runs what the repository names.
  spawnSync('git', ['-C', root, 'log', '--name-only'], { env: { ...process.env, ...allowing } })
  expect(existsSync(sentinel)).toBe(true)
  execFileSync('rm', ['-f', sentinel])
  expect(run([root, ...site], allowing).status).toBe(0)
  expect(existsSync(sentinel)).toBe(false)
})

describe('a result that cannot be written', () => {
  const build = folderWith({ 'index.html': page })

  test.each([
    ['text', []],
    ['JSON', ['--format', 'json']],
  ])('on a full disk is exit status 3 and one sentence, as %s', (_, args) => {
    const command = `node ${bin} ${[build, ...site, ...args].join(' ')} > /dev/full`
    const { status, stderr } = spawnSync('bash', ['-c', command], { encoding: 'utf8' })
    expect(status).toBe(3)
    expect(stderr).toBe('wardoscope: The result could not be written: the disk is full.\n')
  })

  test.each(['--out', '--record'])('leaves what was there under the name given to %s', (option) => {
    const folder = folderWith({ 'kept.json': 'what was there' })
    const command = `ulimit -f 0; node ${bin} ${[build, ...site, '--format', 'json', option, join(folder, 'kept.json')].join(' ')}`
    const { status, stderr } = spawnSync('bash', ['-c', command], { encoding: 'utf8' })
    expect(status).toBe(3)
    expect(stderr).toMatch(/kept\.json could not be written: /)
    expect(readFileSync(join(folder, 'kept.json'), 'utf8')).toBe('what was there')
    expect(readdirSync(folder)).toEqual(['kept.json'])
  })

  test('a reader that has seen enough ends it quietly, and the status is the verdict', () => {
    const held = folderWith({ 'index.html': '<!doctype html><script src="gone.js"></script>' })
    const command =
      `node ${bin} ${[held, ...site, '--format', 'html'].join(' ')} | head -c 10; echo " $` +
      '{PIPESTATUS[0]}"'
    const { stdout, stderr } = spawnSync('bash', ['-c', command], { encoding: 'utf8' })
    expect(stdout).toBe('<!doctype  1\n')
    expect(stderr).toBe('')
  })
})
