import { createHash } from 'node:crypto'
import { mkdirSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { FolderError } from '../../core/model/errors.ts'
import type { Folder } from '../../core/model/folder.ts'
import type { Compress, Compressed } from '../../core/release/weight.ts'
import { readRegularText } from '../regular-file.ts'

const gzipped = promisify(gzip)
const brotlied = promisify(brotliCompress)

/** Files compressed at a time: the threads that Node keeps for it. */
const atOnce = 4
/** Sizes remembered over all folders; the oldest go. */
const mostKept = 20_000
/** Larger files are no part of a page, and compressing one takes seconds; bytes. */
const largest = 50_000_000

/**
 * Compresses files as hosts do while they send: gzip at level 6, Brotli at quality 5. Sizes are remembered by content in
 * a file of the cache directory, which may be deleted at any time.
 * @param cache where sizes are kept between runs; null to keep none
 */
export function compressor(cache: string | null): (build: Folder) => Compress {
  return (build) => async (paths) => {
    const file = cache === null ? null : join(cache, 'compressed.json')
    const known = file === null ? new Map<string, Compressed>() : load(file)
    const before = known.size
    const found = new Map<string, Compressed>()
    const waiting = [...paths]
    const work = async (): Promise<void> => {
      for (let path = waiting.pop(); path !== undefined; path = waiting.pop()) {
        const sizes = await sizesOf(build, path, known)
        if (sizes) found.set(path, sizes)
      }
    }
    await Promise.all(Array.from({ length: atOnce }, work))
    if (file !== null && known.size > before) save(file, known)
    return found
  }
}

async function sizesOf(
  build: Folder,
  path: string,
  known: Map<string, Compressed>,
): Promise<Compressed | null> {
  const bytes = await read(build, path)
  if (bytes === null || bytes.length > largest) return null
  const key = createHash('sha1').update(bytes).digest('base64')
  const before = known.get(key)
  if (before) return before
  const [one, other] = await Promise.all([
    gzipped(bytes, { level: 6 }),
    brotlied(bytes, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: 5,
        [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
      },
    }),
  ])
  const sizes = { gzip: one.length, brotli: other.length }
  known.set(key, sizes)
  return sizes
}

async function read(build: Folder, path: string): Promise<Uint8Array | null> {
  try {
    return await build.read(path)
  } catch (error) {
    if (error instanceof FolderError) return null
    throw error
  }
}

/** Written as a list of key, gzip, Brotli; whatever else is found is left out. */
function load(file: string): Map<string, Compressed> {
  const known = new Map<string, Compressed>()
  try {
    const written: unknown = JSON.parse(readRegularText(file, file, largest))
    if (!Array.isArray(written)) return known
    for (const [key, one, other] of written) {
      if (typeof key === 'string' && Number.isInteger(one) && Number.isInteger(other)) {
        known.set(key, { gzip: one, brotli: other })
      }
    }
  } catch {
    // Never written, deleted, or cut off: it is compressed anew.
  }
  return known
}

function save(file: string, known: ReadonlyMap<string, Compressed>): void {
  const list = [...known].slice(-mostKept).map(([key, { gzip, brotli }]) => [key, gzip, brotli])
  try {
    mkdirSync(join(file, '..'), { recursive: true })
    const fresh = `${file}.${process.pid}`
    writeFileSync(fresh, JSON.stringify(list), { mode: 0o600 })
    renameSync(fresh, file)
  } catch {
    // The next run compresses again.
  }
}
