import type { Folder } from '../../../src/core/model/folder.ts'
import type { Compress, Compressed } from '../../../src/core/release/weight.ts'

/** Larger files are no part of a page, and take seconds; bytes. */
const largest = 20_000_000

/** Compresses with what the browser has: gzip, and no Brotli. Sizes are kept while the page is open. */
export function compressor(build: Folder): Compress {
  return async (paths) => {
    const known = kept.get(build) ?? new Map<string, Compressed>()
    kept.set(build, known)
    for (const path of paths) {
      if (known.has(path)) continue
      const bytes = await build.read(path)
      if (bytes.length <= largest) known.set(path, { gzip: await gzipSize(bytes), brotli: null })
    }
    return known
  }
}

const kept = new WeakMap<Folder, Map<string, Compressed>>()

async function gzipSize(bytes: Uint8Array): Promise<number> {
  const stream = new Blob([new Uint8Array(bytes)]).stream().pipeThrough(new CompressionStream('gzip'))
  let size = 0
  for await (const part of stream) size += part.length
  return size
}
