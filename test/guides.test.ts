import { spawnSync } from 'node:child_process'
import { chmodSync, cpSync, mkdirSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { folderWith } from './support/folders.ts'

const guides = 'docs/guides'
const names = readdirSync(guides)

/** Commands of a guide, where they are run, how they end, and what they print, as the guide says it. */
interface Run {
  readonly commands: string
  readonly directory: string
  readonly status: number
  readonly prints: readonly string[]
}

/** The blocks of commands that say where they are run, each with the block of output behind it. */
function runsOf(guide: string): Run[] {
  const text = readFileSync(join(guides, guide), 'utf8')
  const blocks = text.matchAll(
    /```sh in=(\S+)(?: exits=(\d))?\n([\s\S]*?)```\n(?:\n```text\n([\s\S]*?)```)?/g,
  )
  return [...blocks].map(([, directory = '', status = '0', commands = '', printed = '']) => ({
    commands,
    directory,
    status: Number(status),
    prints: printed
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== '' && line !== '…'),
  }))
}

/** The demo's projects with their builds, and the package installed beside them. */
function home(): string {
  const at = folderWith({ 'readme.txt': '' })
  for (const name of readdirSync('dist/demo'))
    if (!name.endsWith('.json')) cpSync(join('dist/demo', name), join(at, name), { recursive: true })
  mkdirSync(join(at, 'node_modules/.bin'), { recursive: true })
  symlinkSync(process.cwd(), join(at, 'node_modules/wardoscope'), 'dir')
  writeFileSync(
    join(at, 'node_modules/.bin/wardoscope'),
    `#!/bin/sh\nexec node ${process.cwd()}/dist/cli/bin.cjs "$@"\n`,
  )
  chmodSync(join(at, 'node_modules/.bin/wardoscope'), 0o755)
  cpSync('scripts/serve-folder.mjs', join(at, 'serve.mjs'))
  return at
}

test.each(names)('the commands of %s run as they stand, and print what it says', (guide) => {
  const at = home()
  const runs = runsOf(guide)
  expect(runs.length).toBeGreaterThan(0)
  for (const { commands, directory, status, prints } of runs) {
    const ran = spawnSync('bash', ['-e', '-c', commands], {
      cwd: join(at, directory),
      encoding: 'utf8',
      env: { ...process.env, NO_COLOR: '1', COLUMNS: '100', npm_config_offline: 'true' },
    })
    const out = ran.stdout + ran.stderr
    expect([ran.status, out], commands).toEqual([status, expect.any(String)])
    for (const line of prints) expect(out, commands).toContain(line)
    if (process.env.SHOW_GUIDES) console.log(`${guide}\n$ ${commands}${out}`)
  }
})
