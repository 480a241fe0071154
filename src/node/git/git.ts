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
    // In a pipeline the repository is often somebody else's. With all of this turned off nothing of it is run.
    'safe.directory=*',
  ].flatMap((setting) => ['-c', setting]),
]
const quiet = {
  // No transport at all, whatever a repository or a person allows: an object that is missing is not fetched.
  GIT_ALLOW_PROTOCOL: 'none',
  GIT_PROTOCOL_FROM_USER: '0',
  GIT_OPTIONAL_LOCKS: '0',
  GIT_NO_LAZY_FETCH: '1',
  GIT_TERMINAL_PROMPT: '0',
  GIT_ASKPASS: '',
  LC_ALL: 'C',
}
const longest = 5_000
const mostOutput = 64 * 1024 * 1024

/** Run by a hook, git is reported of another repository, index and work tree than those that are looked at. */
function withoutGit(environment: NodeJS.ProcessEnv): NodeJS.ProcessEnv {
  return Object.fromEntries(Object.entries(environment).filter(([name]) => !name.startsWith('GIT_')))
}

/** What git prints, or null when there is no git, no repository, or it takes too long. */
export function git(directory: string, words: readonly string[]): Promise<string | null> {
  return new Promise((resolve) => {
    execFile(
      'git',
      [...harmless, ...words],
      {
        cwd: directory,
        env: { ...withoutGit(process.env), ...quiet },
        timeout: longest,
        maxBuffer: mostOutput,
      },
      (error, output) => resolve(error ? null : output),
    )
  })
}
