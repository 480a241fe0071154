import { execFile } from 'node:child_process'
import { devNull } from 'node:os'

/**
 * Settings of a repository that run programs or reach for the network, turned off: a repository is looked at as untrusted
 * data. The process gets no terminal to ask at.
 */
const harmless = [
  '--no-pager',
  '--literal-pathspecs',
  ...[
    'core.fsmonitor=false',
    `core.hooksPath=${devNull}`,
    'log.showSignature=false',
    'protocol.allow=never',
  ].flatMap((setting) => ['-c', setting]),
]
const quiet = {
  GIT_OPTIONAL_LOCKS: '0',
  GIT_NO_LAZY_FETCH: '1',
  GIT_TERMINAL_PROMPT: '0',
  GIT_ASKPASS: '',
  LC_ALL: 'C',
}
const longest = 5_000
const mostOutput = 64 * 1024 * 1024

/** What git prints, or null when there is no git, no repository, or it takes too long. */
export function git(directory: string, words: readonly string[]): Promise<string | null> {
  return new Promise((resolve) => {
    execFile(
      'git',
      [...harmless, ...words],
      { cwd: directory, env: { ...process.env, ...quiet }, timeout: longest, maxBuffer: mostOutput },
      (error, output) => resolve(error ? null : output),
    )
  })
}
