import { spawn } from 'node:child_process'

/** How a build ended: its exit status, or the signal that ended it. */
export interface BuildEnd {
  readonly status: number | null
  readonly signal: NodeJS.Signals | null
}

/**
 * Runs a project's build command in its directory, as a person would type it there. It asks nothing: it has no input.
 * @param onOutput gets all that it prints, as it comes
 * @param options `signal` ends it, and whatever it started; `variables` it gets beside those of this process
 */
export function runBuild(
  directory: string,
  command: string,
  onOutput: (text: string) => void,
  {
    signal,
    variables = {},
  }: { readonly signal?: AbortSignal; readonly variables?: Readonly<Record<string, string>> } = {},
): Promise<BuildEnd> {
  return new Promise((resolve, reject) => {
    // A group of its own where it may be ended: the shell's own children would go on.
    const detached = signal !== undefined && process.platform !== 'win32'
    const child = spawn(command, {
      cwd: directory,
      env: { ...process.env, ...variables },
      shell: true,
      detached,
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    const end = (): void => {
      if (child.pid !== undefined) kill(detached ? -child.pid : child.pid)
    }
    if (signal?.aborted) end()
    else signal?.addEventListener('abort', end, { once: true })
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', onOutput)
    child.on('error', reject)
    child.on('close', (status, ended) => {
      signal?.removeEventListener('abort', end)
      resolve({ status, signal: ended })
    })
  })
}

function kill(pid: number): void {
  try {
    process.kill(pid, 'SIGTERM')
  } catch {
    // It has ended by itself.
  }
}
