import { spawn } from 'node:child_process'

/** How a build ended: its exit status, or the signal that ended it. */
export interface BuildEnd {
  readonly status: number | null
  readonly signal: NodeJS.Signals | null
}

/**
 * Runs a project's build command in its directory, as a person would type it there. It asks nothing: it has no input.
 * @param onOutput gets all that it prints, as it comes
 */
export function runBuild(
  directory: string,
  command: string,
  onOutput: (text: string) => void,
): Promise<BuildEnd> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, { cwd: directory, shell: true, stdio: ['ignore', 'pipe', 'pipe'] })
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', onOutput)
    child.on('error', reject)
    child.on('close', (status, signal) => resolve({ status, signal }))
  })
}
