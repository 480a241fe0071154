import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { FolderError, UsageError } from '../core/model/errors.ts'
import type { Report, Verdict } from '../core/model/report.ts'
import { openProject } from '../core/pipeline/open.ts'
import type { CheckOptions } from '../core/pipeline/options.ts'
import { between } from '../core/report/between.ts'
import { checkPath } from '../node/check-path.ts'
import { DiskFolder } from '../node/disk-folder.ts'
import { directoriesAbove } from '../node/opening/above.ts'
import { renderBetween } from '../terminal/between.ts'
import { renderReport } from '../terminal/report.ts'
import { styleFor } from '../terminal/style.ts'

/** What is to be looked at, and how; data only, so that it passes between threads unless there are checks of one's own. */
export interface Job {
  readonly root: string
  /** The folder that was written, below the root. */
  readonly directory: string
  readonly site: string | readonly string[] | undefined
  readonly host: string | NonNullable<CheckOptions['host']> | undefined
  readonly options: Pick<
    CheckOptions,
    'routes' | 'samples' | 'waivers' | 'limits' | 'checks' | 'holdOn' | 'readings' | 'environment'
  >
  /** Whether it is looked at again and again: then what changed since the last time is reported. */
  readonly isWatched: boolean
  readonly terminal: { readonly isTTY: boolean; readonly columns: number | undefined }
}

/** What was found, as it is printed; or why nothing could be looked at. */
export type Result =
  | { readonly verdict: Verdict; readonly text: string }
  | { readonly verdict: null; readonly text: string }

/** What the last look at a folder came to, while it is watched. */
const seen = new Map<string, Report>()

/** Looks at one folder that the bundler wrote. */
export async function look({
  root,
  directory,
  site,
  host,
  options,
  isWatched,
  terminal,
}: Job): Promise<Result> {
  try {
    const report = await checkPath(root, { ...options, site, host, folder: directory, here: root })
    const { isTTY, columns } = terminal
    const style = styleFor({ isTTY, ...(columns === undefined ? {} : { columns }) }, true)
    const key = join(root, directory)
    const before = isWatched ? seen.get(key) : undefined
    if (isWatched) seen.set(key, report)
    const text = before ? renderBetween(report, between(before, report), style) : renderReport(report, style)
    return { verdict: report.verdict, text: text.trimEnd() }
  } catch (error) {
    // What can't be looked at is no reason to fail a build.
    if (error instanceof UsageError || error instanceof FolderError)
      return { verdict: null, text: saidOf(error) }
    throw error
  }
}

/** An error's sentence, with the plugin's option that would help. */
function saidOf(error: UsageError | FolderError): string {
  const setting = error instanceof UsageError ? error.setting : null
  return setting === null ? error.message : `${error.message} Use the option ${setting}.`
}

/** Where a project publishes. */
interface Published {
  readonly root: string
  readonly directory: string
}

/** Where the project says its pages go; a bundler may work in a directory of its sources. Null when it can't be known. */
export async function publishedBy(root: string): Promise<Published | null> {
  for (const at of [root, ...directoriesAbove(root)]) {
    try {
      const found = await openProject(await DiskFolder.open(at), { itself: true })
      const directory = found?.survey.publishDirectory?.value
      if (directory) return { root: at, directory }
      if (found) return null
    } catch (error) {
      if (!(error instanceof FolderError || error instanceof UsageError)) throw error
    }
  }
  return null
}

/** Looks at what the project publishes, when it was written since a time; null where it was not. */
export async function lookAtPublished(job: Job, started: number): Promise<Result | null> {
  const published = await publishedBy(job.root)
  const entry = published && join(published.root, published.directory, 'index.html')
  const isFresh = entry !== null && existsSync(entry) && statSync(entry).mtimeMs >= started
  return published && isFresh ? look({ ...job, ...published }) : null
}
