import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

/** What the real program did. */
export interface Ran {
  readonly status: number | null
  readonly out: string
  readonly err: string
}

const bin = join(import.meta.dirname, '../../dist/cli/bin.cjs')

/** Runs the compiled program as a person would. */
export function wardoscope(args: readonly string[], cwd = process.cwd()): Ran {
  const { status, stdout, stderr } = spawnSync('node', [bin, ...args], { cwd, encoding: 'utf8' })
  return { status, out: stdout, err: stderr }
}
