import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { kindOf } from '../../core/output/read-file.ts'
import { type Reader, readInTurn } from '../../core/output/reader.ts'
import type { ReadFolder } from './answers-file.ts'
import { BatchReader } from './batch.ts'
import { FactsCache, type Stamp } from './facts-cache.ts'
import { Gathering } from './gathering.ts'
import type { WorkerTask } from './worker.ts'
import { readInWorkers, type SizedPath } from './workers.ts'

/** How a folder on disk is read. */
export interface ReadingOptions {
  /** Where facts are kept between runs; null to keep none. */
  readonly cache: string | null
  /** The program's version, on which the facts depend. */
  readonly version: string
  /** Called when a folder was read whose contents have names. */
  readonly onRead?: ((folder: ReadFolder) => void) | undefined
}

/** So much is read before a worker has started; bytes. */
const small = 3_000_000
/** So little is read before a cache was loaded; bytes. */
const tiny = 100_000

/** Reads folders on disk in several threads, and knows again what it has read before. Small ones, and others, in turn. */
export function parallelReader(options: ReadingOptions): Reader {
  return async (build, paths, search, onProgress, signal) => {
    const { origin } = build
    const script = workerScript()
    if (!origin || script === null) return readInTurn(build, paths, search, onProgress, signal)
    const place = join(origin.root, origin.directory)
    const { stamps, bytes } = stampsOf(place, paths)
    if (bytes < tiny) return readInTurn(build, paths, search, onProgress, signal)

    const version = `${options.version} ${stampOf(script)?.stamp}`
    const cache = options.cache === null ? null : FactsCache.open(options.cache, place, search, version)
    const gathering = new Gathering(cache, stamps)
    const rest = paths.filter((path) => !gathering.addKnown(path))
    const task: WorkerTask = { ...origin, search, known: cache?.keys ?? null }
    const few = sizeOf(rest, stamps) < small
    if (few) gathering.add(await new BatchReader(build, search, task.known && new Set(task.known)).read(rest))
    else
      await readInWorkers(
        script,
        task,
        sized(rest, stamps),
        (batch) => onProgress(gathering.add(batch)),
        signal,
      )
    gathering.keep()
    if (cache) options.onRead?.({ place, search, version, keys: gathering.keys })
    return gathering.inOrder(paths)
  }
}

/** The worker as it is beside this module, compiled or bundled. */
function workerScript(): string | null {
  const file = fileURLToPath(new URL('./worker.js', import.meta.url))
  return existsSync(file) ? file : null
}

/** A file's stamp with its size. */
export interface SizedStamp extends Stamp {
  readonly size: number
}

function stampsOf(
  place: string,
  paths: readonly string[],
): { stamps: Map<string, SizedStamp>; bytes: number } {
  const stamps = new Map<string, SizedStamp>()
  let bytes = 0
  for (const path of paths) {
    const stamp = stampOf(`${place}/${path}`)
    if (!stamp) continue
    stamps.set(path, stamp)
    if (kindOf(path) !== 'other') bytes += stamp.size
  }
  return { stamps, bytes }
}

function stampOf(file: string): SizedStamp | null {
  const found = statSync(file, { throwIfNoEntry: false })
  if (!found) return null
  const { size, ino, mtimeMs, ctimeMs } = found
  return { size, stamp: `${size} ${ino} ${mtimeMs} ${ctimeMs}`, changed: Math.max(mtimeMs, ctimeMs) }
}

function sized(paths: readonly string[], stamps: ReadonlyMap<string, SizedStamp>): SizedPath[] {
  return paths.map((path) => ({ path, size: kindOf(path) === 'other' ? 0 : (stamps.get(path)?.size ?? 0) }))
}

function sizeOf(paths: readonly string[], stamps: ReadonlyMap<string, SizedStamp>): number {
  return paths.reduce((sum, path) => sum + (kindOf(path) === 'other' ? 0 : (stamps.get(path)?.size ?? 0)), 0)
}
