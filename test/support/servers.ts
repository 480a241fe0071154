import { spawnSync } from 'node:child_process'

/** Whether a program is on this machine. Servers lie where a user's path may not lead. */
export function installed(command: string): boolean {
  const { status } = spawnSync('sh', ['-c', `PATH="$PATH:/usr/sbin" command -v ${command}`])
  return status === 0
}
