import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'

const place = mkdtempSync(join(tmpdir(), 'wardoscope-completion-'))
const script = (shell: string): string => {
  const { status, out } = wardoscope(['completion', shell])
  expect(status).toBe(0)
  const file = join(place, `_wardoscope.${shell}`)
  writeFileSync(file, out)
  return file
}
const isThere = (shell: string): boolean => spawnSync(shell, ['-c', 'exit 0']).status === 0

/** What a shell proposes for the last word of a line. */
const proposals: Readonly<Record<string, (file: string, words: readonly string[]) => string[]>> = {
  bash: (file, words) => {
    const line = words.map((word) => `'${word}'`).join(' ')
    const run = `source ${file}; COMP_WORDS=(${line}); COMP_CWORD=$((\${#COMP_WORDS[@]}-1)); _wardoscope; printf '%s\\n' "\${COMPREPLY[@]}"`
    return spawnSync('bash', ['-c', run], { cwd: place, encoding: 'utf8' }).stdout.split('\n')
  },
  fish: (file, words) =>
    spawnSync('fish', ['-c', `source ${file}; complete -C '${words.join(' ')}'`], {
      cwd: place,
      encoding: 'utf8',
    })
      .stdout.split('\n')
      .map((line) => line.split('\t')[0] ?? ''),
}

const cases: readonly (readonly [words: readonly string[], proposed: string])[] = [
  [['wardoscope', 'se'], 'setup'],
  [['wardoscope', '--only'], '--only-changed'],
  [['wardoscope', 'live', '--wa'], '--wait'],
  [['wardoscope', 'check', '--format', 'ju'], 'junit'],
  [['wardoscope', '--hold-on', 'un'], 'unused-waivers'],
  [['wardoscope', 'explain', 'base/wr'], 'base/wrong-path'],
]

for (const [shell, propose] of Object.entries(proposals))
  test.skipIf(!isThere(shell))(`${shell} proposes commands, options, their values and finding codes`, () => {
    const file = script(shell)
    for (const [words, proposed] of cases) expect(propose(file, words)).toContain(proposed)
    expect(propose(file, ['wardoscope', 'live', '--only'])).not.toContain('--only-changed')
  })

test.skipIf(!isThere('zsh'))('zsh takes its script', () => {
  const { status, stderr } = spawnSync(
    'zsh',
    [
      '-f',
      '-c',
      `autoload -Uz compinit; compinit -u -d ${place}/dump; source ${script('zsh')}; whence -w _wardoscope`,
    ],
    { encoding: 'utf8' },
  )
  expect([status, stderr]).toEqual([0, ''])
})

test('another shell is one sentence', () => {
  const { status, err } = wardoscope(['completion', 'powershell'])
  expect(status).toBe(2)
  expect(err).toBe('wardoscope: There is no shell "powershell". There are: bash, zsh, fish.\n')
})
