// Runs beside the bundler, in a process of its own. While that works, this one loads its parsers and looks at what the build
// before left, so that little has to be loaded or compiled any more when there is something new to look at.
import { readFileSync, writeSync } from 'node:fs'
import { type Job, look, lookAtPublished, publishedBy } from './look.ts'

/** What the bundler's process asks. */
export type Ask = { readonly warm: Job } | { readonly job: Job }

let ready: Promise<unknown> = Promise.resolve()

// At the very end of a bundler's process there is no time but for a child that it waits for.
if (process.argv[2] === 'once') void once()
else {
  process.on('message', async (ask: Ask) => {
    if ('warm' in ask) {
      ready = warm(ask.warm)
      return
    }
    await ready
    try {
      process.send?.({ result: await look(ask.job) })
    } catch (error) {
      process.send?.({ failure: error instanceof Error ? error.message : String(error) })
    }
  })
  // The bundler is done, or gone.
  process.on('disconnect', () => process.exit())
}

async function warm(job: Job): Promise<void> {
  const { verdict } = await look(job).catch(() => ({ verdict: null }))
  if (verdict === null) await publishedBy(job.root).catch(() => null)
}

async function once(): Promise<void> {
  const { job, started } = JSON.parse(readFileSync(0, 'utf8')) as { job: Job; started: number }
  const result = await lookAtPublished(job, started)
  writeSync(1, JSON.stringify(result))
}
