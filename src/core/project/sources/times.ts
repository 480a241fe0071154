import { type Folder, joinPath } from '../../model/folder.ts'
import type { History } from '../../model/history.ts'
import { type ChangedCopy, changedCopies } from './copied-files.ts'

/** The source that was changed last, when that was after the build. */
export interface LaterSource {
  readonly source: string
  /** How long after. */
  readonly seconds: number
  /** What says so, when it is not the file's own time: "the last commit". */
  readonly by: string | null
}

/** Whether the sources are those that were built. */
export interface Freshness {
  readonly later: LaterSource | null
  /** Whether it can be reported at all. */
  readonly known: boolean
  /** Why it is known, or why not: one sentence. */
  readonly reason: string
  /** Files whose copies in the build are of an earlier state: proof without any time. */
  readonly copies: readonly ChangedCopy[]
  /** Whether the configuration was last written after the build, where times tell. */
  readonly configuration: 'before' | 'after' | null
}

/** What is compared in age. */
export interface Compared {
  readonly project: Folder
  /** All files that the survey read. */
  readonly files: readonly string[]
  readonly configFile: string | null
  readonly build: Folder
  readonly buildPath: string
  /** Pages of the build: the newest tells when it was written. */
  readonly pages: readonly string[]
}

/** Clocks and copies are not more exact; milliseconds. */
const grain = 2_000
/** A checkout writes all files within so long, and then their times tell nothing; milliseconds. */
const checkout = 60_000

/** Files that tools write by themselves, whenever they run. */
const generated = /\.gen\.\w+$|(?:^|\/)\.|\.d\.\w+$/

interface Times {
  readonly built: number
  readonly newest: { readonly file: string; readonly at: number }
  readonly spread: number
  readonly configured: number | null
}

type Judged = Pick<Freshness, 'later' | 'known' | 'reason'>

/**
 * Whether a source was changed after the build. The times of files are taken where they differ among the sources; where a
 * checkout made them all alike, the repository is requested; and where that knows nothing, nobody can tell.
 */
export async function freshness(compared: Compared, history: History | null): Promise<Freshness> {
  const { project, build, buildPath } = compared
  const times = await timesOf(compared)
  const copies = await changedCopies(project, build, buildPath)
  return { ...(await judged(compared, times, history)), copies, configuration: ageOfConfiguration(times) }
}

/** Where a checkout gave all files one time, it says nothing of the configuration either. */
function ageOfConfiguration(times: Times | null): Freshness['configuration'] {
  if (times?.configured == null || times.spread < checkout) return null
  return times.configured > times.built + grain ? 'after' : 'before'
}

async function judged(
  { files, buildPath }: Compared,
  times: Times | null,
  history: History | null,
): Promise<Judged> {
  if (times === null) return unknown('the files have no times')
  const { built, newest, spread } = times
  const ahead = newest.at > built + grain
  const alike = spread < checkout
  // The repository is requested only where times leave a doubt: it takes longer than all else here.
  if (!ahead && !(alike && built - newest.at < checkout)) {
    return known(`${newest.file} was changed last, and that was before the build`)
  }
  const committed = history && (await byBuildInRepository(history, files, buildPath))
  if (committed && (committed.later || alike)) return committed
  if (alike) return byHistory(times, files, history)
  return history ? byNewest(times, history) : later(newest.file, newest.at - built, null)
}

/** Pages that are looked at: of a build that writes some pages only, the newest is among the first or the entry. */
const mostPages = 200

async function timesOf({ project, files, configFile, build, pages }: Compared): Promise<Times | null> {
  let built: number | null = null
  for (const page of new Set(['index.html', ...pages.slice(0, mostPages)])) {
    const at = (await build.stat(page))?.modified ?? null
    if (at !== null) built = Math.max(built ?? at, at)
  }
  if (built === null) return null
  let newest: Times['newest'] | null = null
  let oldest = Number.POSITIVE_INFINITY
  const own = configFile === null || files.includes(configFile) ? files : [...files, configFile]
  let configured: number | null = null
  for (const file of own) {
    const at = (await project.stat(file))?.modified ?? null
    if (at === null) return null
    if (file === configFile) configured = at
    if (generated.test(file)) continue
    oldest = Math.min(oldest, at)
    if (newest === null || at > newest.at) newest = { file, at }
  }
  return newest && { built, newest, spread: newest.at - oldest, configured }
}

/** A build that is kept in the repository is as old as the commit that brought it, whatever a checkout does to its times. */
async function byBuildInRepository(
  history: History,
  files: readonly string[],
  buildPath: string,
): Promise<Judged | null> {
  if (!(await history.isCommitted(joinPath(buildPath, 'index.html')))) return null
  const built = await history.changeOf(buildPath)
  if (built === null) return null
  const change = await history.lastChange(new Set(files))
  if (change === null) return null
  return change.at > built
    ? later(change.file, change.at - built, 'by the commits that changed each')
    : known('no commit changed a source after the one that brought the build')
}

/** All sources have one time: a checkout wrote them, so only the commits tell when they changed. */
async function byHistory(
  { built, newest }: Times,
  files: readonly string[],
  history: History | null,
): Promise<Judged> {
  if (newest.at <= built + grain) return known('the build was written after all sources')
  const change = history && (await history.lastChange(new Set(files)))
  if (!change)
    return unknown('all sources have the time of a checkout, and no repository says when they changed')
  if (change.at > built + grain) return later(change.file, change.at - built, 'by its last commit')
  return unknown('all sources have the time of a checkout, and their last commit is older than the build')
}

/** A file that holds what a commit before the build held was touched, not changed; what was built may be another branch. */
async function byNewest({ built, newest }: Times, history: History): Promise<Judged> {
  if (await history.isCommitted(newest.file)) {
    const change = await history.lastChange(new Set([newest.file]))
    if (change && change.at <= built) {
      return unknown(
        `${newest.file} was written after the build, and holds what its last commit before the build holds`,
      )
    }
  }
  return later(newest.file, newest.at - built, null)
}

function later(source: string, milliseconds: number, by: string | null): Judged {
  return {
    later: { source, seconds: milliseconds / 1000, by },
    known: true,
    reason: `${source} was changed later`,
  }
}

function known(reason: string): Judged {
  return { later: null, known: true, reason }
}

function unknown(reason: string): Judged {
  return { later: null, known: false, reason }
}
