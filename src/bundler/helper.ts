import { type ChildProcess, fork, spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Ask } from './beside.ts'
import type { Job, Result } from './look.ts'

type HelperReply = { readonly result: Result } | { readonly failure: string }

/** Looks at folders in a process beside this one where that can be had, else in this one. */
export class Helper {
  readonly #beside: ChildProcess | null

  /** @param alone when checks of one's own are given: they are code, which passes to no other process */
  constructor(alone: boolean) {
    this.#beside = alone ? null : start()
  }

  /** Gets ready while the bundler works. */
  warm(job: Job): void {
    this.#send({ warm: job })
  }

  async look(job: Job): Promise<Result> {
    const beside = this.#beside
    if (!beside?.connected) return (await import('./look.ts')).look(job)
    const reply = await new Promise<HelperReply>((resolve) => {
      beside.ref()
      beside.channel?.ref()
      beside.once('message', (message) => resolve(message as HelperReply))
      beside.once('exit', () => resolve({ failure: 'the process beside the bundler ended' }))
      this.#send({ job })
    })
    beside.removeAllListeners()
    rest(beside)
    if ('result' in reply) return reply.result
    throw new Error(`wardoscope: something went wrong that is a defect of ours: ${reply.failure}`)
  }

  end(): void {
    if (this.#beside?.connected) this.#beside.disconnect()
  }

  #send(ask: Ask): void {
    if (this.#beside?.connected) this.#beside.send(ask)
  }
}

const script = fileURLToPath(new URL('./beside-start.cjs', import.meta.url))

/**
 * Looks at what the project publishes at the very end of this process, which waits for it; null where nothing was written since it started,
 * or that can't be had.
 */
export function lookAtExit(job: Job, started: number): Result | null {
  if (!existsSync(script)) return null
  const { stdout } = spawnSync(process.execPath, [script, 'once'], {
    input: JSON.stringify({ job, started }),
    encoding: 'utf8',
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  return stdout ? (JSON.parse(stdout) as Result | null) : null
}

function start(): ChildProcess | null {
  if (!existsSync(script)) return null
  const beside = fork(script, { stdio: ['ignore', 'ignore', 'inherit', 'ipc'], execArgv: [] })
  rest(beside)
  return beside
}

/** It keeps no process alive that has nothing left to do. */
function rest(beside: ChildProcess): void {
  beside.unref()
  beside.channel?.unref()
}
