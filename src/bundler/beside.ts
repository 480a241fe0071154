// Runs beside the bundler, in a process of its own. While that works, this one loads its parsers and looks at what the build
// before left, so that little has to be loaded or compiled any more when there is something new to look at.
import { type Job, look, publishDirectoryOf } from './look.ts'

/** What the bundler's process asks. */
export type Ask = { readonly warm: Job } | { readonly job: Job }

let ready: Promise<unknown> = Promise.resolve()

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

async function warm(job: Job): Promise<void> {
  const { verdict } = await look(job).catch(() => ({ verdict: null }))
  if (verdict === null) await publishDirectoryOf(job.root).catch(() => null)
}
