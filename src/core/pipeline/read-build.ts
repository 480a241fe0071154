import type { FileFacts } from '../model/facts.ts'
import { filesBelow } from '../model/folder.ts'
import { beginningsOf } from '../model/forwarded.ts'
import type { Search } from '../model/search.ts'
import { listedFile } from '../output/read-file.ts'
import { type Reader, readInTurn } from '../output/reader.ts'
import { readFromProcess } from '../project/sources/process-reads.ts'
import { passedOn } from '../project/survey.ts'
import type { Target } from './open.ts'

/** How a build folder is read. */
export interface ReadOptions {
  /** How files are read; one after the other when nothing faster is at hand. */
  readonly reader?: Reader
  /** Called while files are read, with how many there are. */
  readonly onProgress?: (done: number, of: number) => void
  /** Called when another part of the work begins, in a few words. */
  readonly onStage?: (stage: string) => void
  /** Ends the work: what was begun throws the signal's reason, an `AbortError` where nobody gives another. */
  readonly signal?: AbortSignal
  /** Called with what is in the folder and is no regular file, and so is not read: pipes, links that lead out. */
  readonly onUnread?: (file: string, reason: string) => void
}

/**
 * Reads every file of the build folder. One that can't be read is named, and the rest goes on.
 * @throws the reason of `options.signal` when it is aborted
 */
export async function readBuild(target: Target, options: ReadOptions = {}): Promise<readonly FileFacts[]> {
  const { build, survey } = target
  if (!build) return []
  const paths = await filesBelow(build, () => true, options.onUnread)
  // A server's program is no site: that is said, and the program is not read.
  if (survey.output?.value === 'server' && !paths.includes('index.html')) {
    return paths.map((path) => listedFile(path))
  }
  const read = options.reader ?? readInTurn
  options.onStage?.('reading files')
  const onProgress = (done: number): void => options.onProgress?.(done, paths.length)
  options.signal?.throwIfAborted()
  return read(build, paths, searchOf(target), onProgress, options.signal)
}

/** What is looked for besides references. */
function searchOf({ survey, values, traces, sources }: Target): Search {
  const names = [...new Set(survey.reads.filter(({ guarded }) => !guarded).map(({ name }) => name))]
  return {
    values: values.searched(survey.prefixes?.value ?? [], passedOn(survey)),
    traces,
    secrets: values.secrets(),
    names,
    ofProcess: readFromProcess(survey, sources).filter((name) => !names.includes(name)),
    paths: forwardedPaths(survey),
  }
}

/** What the development server forwards, as the beginnings of paths. */
function forwardedPaths({ devProxy }: Target['survey']): string[] {
  return [...new Set((devProxy?.value ?? []).flatMap(beginningsOf))]
}
