import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { parseSite } from '../../core/model/site.ts'
import { check } from '../../core/pipeline/check.ts'
import { DiskFolder } from '../disk-folder.ts'
import { git } from './git.ts'
import { historyBelow } from './history.ts'

const project = {
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/' }",
  'src/a.js': 'one()',
  'src/b.js': 'two()',
}
const built = { 'dist/index.html': '<!doctype html>' }

/** A repository whose commits and files have ages in minutes. */
class Repository {
  readonly root = mkdtempSync(join(tmpdir(), 'wardoscope-git-'))

  constructor() {
    this.run(['init', '-q'])
  }

  run(words: readonly string[], at = 0): void {
    const date = new Date(Date.now() - at * 60_000).toISOString()
    const name = { GIT_AUTHOR_NAME: 'A', GIT_AUTHOR_EMAIL: 'a@skerryline.test' }
    const committer = { GIT_COMMITTER_NAME: 'A', GIT_COMMITTER_EMAIL: 'a@skerryline.test' }
    const dates = { GIT_AUTHOR_DATE: date, GIT_COMMITTER_DATE: date }
    execFileSync('git', words, { cwd: this.root, env: { ...process.env, ...name, ...committer, ...dates } })
  }

  write(files: Readonly<Record<string, string>>, age: number): this {
    for (const [path, text] of Object.entries(files)) {
      mkdirSync(dirname(join(this.root, path)), { recursive: true })
      writeFileSync(join(this.root, path), text)
      this.touch(path, age)
    }
    return this
  }

  touch(path: string, age: number): this {
    const time = Date.now() / 1000 - age * 60
    utimesSync(join(this.root, path), time, time)
    return this
  }

  commit(paths: readonly string[], age: number): this {
    this.run(['add', '--', ...paths])
    this.run(['commit', '-q', '-m', 'x'], age)
    return this
  }

  async looked(): Promise<{
    found: boolean
    known: boolean | undefined
    reason: string | undefined
    cause: string
  }> {
    const report = await check(await DiskFolder.open(this.root), {
      site: parseSite('https://skerryline.example/b/'),
      history: historyBelow(this.root),
    })
    const finding = report.findings.find(({ code }) => code === 'fresh/source-newer')
    const { known, reason } = report.freshness ?? {}
    return { found: finding !== undefined, known, reason, cause: finding?.cause ?? '' }
  }
}

describe('a fresh checkout, where all sources have one time', () => {
  test('and the last commit of a source is later than the build', async () => {
    const repository = new Repository().write(project, 1).commit(['.'], 30).write(built, 60)
    const { found, cause } = await repository.looked()
    expect(found).toBe(true)
    expect(cause).toContain('by its last commit')
  })

  test('and the last commit is older than the build: nobody can tell', async () => {
    const repository = new Repository().write(project, 1).commit(['.'], 90).write(built, 60)
    expect(await repository.looked()).toMatchObject({ found: false, known: false })
  })

  test('of a shallow clone, whose only commit says nothing', async () => {
    const whole = new Repository()
      .write(project, 1)
      .commit(['.'], 90)
      .write({ 'src/c.js': '' }, 1)
      .commit(['.'], 30)
    const clone = join(whole.root, 'clone')
    whole.run(['clone', '-q', '--depth', '1', `file://${whole.root}`, clone])
    expect(await historyBelow(clone)('')).toBeNull()
  })
})

describe('times that differ', () => {
  const mixed = (): Repository => new Repository().write(project, 500).commit(['.'], 400)

  test('a source saved after the build and not committed', async () => {
    const repository = mixed().write(built, 60).write({ 'src/a.js': 'changed()' }, 5)
    expect(await repository.looked()).toMatchObject({ found: true })
  })

  test('a source written again with what it held before the build', async () => {
    const repository = mixed().write(built, 60).touch('src/a.js', 5)
    expect(await repository.looked()).toMatchObject({
      found: false,
      known: false,
      reason: expect.stringContaining('src/a.js'),
    })
  })
})

describe('a build that is kept in the repository', () => {
  test('and is older than the last commit of a source', async () => {
    const repository = new Repository().write({ ...project, ...built }, 1).commit(['.'], 90)
    const { found, cause } = await repository.write({ 'src/a.js': 'later()' }, 1).commit(['.'], 30).looked()
    expect(found).toBe(true)
    expect(cause).toContain('60 minutes after')
  })

  test('and came with the last commit of a source', async () => {
    const repository = new Repository().write({ ...project, ...built }, 1).commit(['.'], 90)
    expect(await repository.looked()).toMatchObject({ found: false, known: true })
  })
})

test('nothing that a repository names is run', async () => {
  const repository = new Repository().write(project, 1).commit(['.'], 30).write(built, 60)
  const ran = join(repository.root, 'ran')
  const script = join(repository.root, 'program')
  writeFileSync(script, `#!/bin/sh\ntouch ${ran}\n`, { mode: 0o755 })
  const settings = [
    'core.fsmonitor',
    'core.pager',
    'core.sshCommand',
    'diff.external',
    'gpg.program',
    'filter.x.clean',
  ]
  for (const name of settings) repository.run(['config', name, script])
  repository.run(['config', 'log.showSignature', 'true'])
  repository.write({ '.gitattributes': '* filter=x diff=x' }, 1)
  await repository.looked()
  expect(existsSync(ran)).toBe(false)
})

test('where there is no repository, nothing is known', async () => {
  const root = mkdtempSync(join(tmpdir(), 'wardoscope-none-'))
  expect(await git(root, ['rev-parse', '--is-shallow-repository'])).toBeNull()
  expect(await historyBelow(root)('')).toBeNull()
})
