import type { Folder } from '../../model/folder.ts'
import type { Sources } from './sources.ts'

/** The source that was changed last, when that was after the build. */
export interface LaterSource {
  readonly source: string
  /** How long after. */
  readonly seconds: number
}

/** Clocks and copies are not more exact; milliseconds. */
const grain = 2_000
/** A checkout writes all files within so long, and then their times tell nothing; milliseconds. */
const checkout = 60_000

/** Files that tools write by themselves, whenever they run. */
const generated = /\.gen\.\w+$|(?:^|\/)\.|\.d\.\w+$/

/** Whether a source was changed after the build, as far as times can be trusted; null when not, or when nobody can tell. */
export async function laterSource(
  project: Folder,
  sources: Sources,
  build: Folder,
): Promise<LaterSource | null> {
  const built = (await build.stat('index.html'))?.modified ?? null
  if (built === null) return null
  let newest: { file: string; at: number } | null = null
  let oldest = Number.POSITIVE_INFINITY
  for (const file of sources.files) {
    const at = (await project.stat(file))?.modified ?? null
    if (at === null) return null
    if (generated.test(file)) continue
    oldest = Math.min(oldest, at)
    if (newest === null || at > newest.at) newest = { file, at }
  }
  if (newest === null || newest.at <= built + grain || newest.at - oldest < checkout) return null
  return { source: newest.file, seconds: (newest.at - built) / 1000 }
}
