import { Inflate } from 'fflate'
import { ArchiveProblem, commonDirectory, mostBytes, mostFiles, mostRatio } from './archive.ts'
import { FolderError } from './errors.ts'
import { TreeFolder } from './tree-folder.ts'
import { checksumOf, type ZipEntry, zipEntries } from './zip-entries.ts'

/** Packed bytes that are given to the unpacker at a time, so that what comes out is looked at in between. */
const pieceSize = 16_384

/**
 * The files of a zip archive. When all are in one directory, as when a folder was packed, that directory is the folder.
 * All that the archive says of itself is held against what it holds: places, sizes and checksums.
 * @throws {FolderError} when it is no zip archive, was changed or cut off, or would unpack to more than a site has
 */
export function folderOfZip(archive: Uint8Array, label: string): TreeFolder {
  const found = unpacked(archive, label)
  const top = commonDirectory(found.map(({ path }) => path))
  return new TreeFolder(
    found.map(({ path, bytes }) => [
      path.slice(top.length),
      { size: bytes.length, modified: null, read: async () => bytes },
    ]),
    label,
  )
}

function unpacked(archive: Uint8Array, label: string): { path: string; bytes: Uint8Array }[] {
  try {
    const entries = zipEntries(archive, mostFiles)
    const total = entries.reduce((sum, { size }) => sum + size, 0)
    if (total > mostBytes || total > archive.length * mostRatio)
      throw new ArchiveProblem('unpacks to more than a site has')
    return entries.map((entry) => ({ path: entry.path, bytes: bytesOf(entry) }))
  } catch (error) {
    const why =
      error instanceof ArchiveProblem ? error.message : 'is no zip archive that can be read, or was cut off'
    throw new FolderError('unreadable', `${label} ${why}.`)
  }
}

function bytesOf({ path, packed, isDeflated, size, checksum }: ZipEntry): Uint8Array {
  const bytes = isDeflated ? inflated(packed, size) : packed
  if (bytes === null || bytes.length !== size || checksumOf(bytes) !== checksum)
    throw new ArchiveProblem(`holds another ${path} than its directory says: it was changed, or cut off`)
  return bytes
}

/** Null where more comes out than was said, or nothing that can be read. */
function inflated(packed: Uint8Array, size: number): Uint8Array | null {
  const bytes = new Uint8Array(size)
  let at = 0
  let fits = true
  const inflate = new Inflate((chunk) => {
    fits &&= at + chunk.length <= size
    if (fits) bytes.set(chunk, at)
    at += chunk.length
  })
  try {
    for (let from = 0; fits && from < Math.max(1, packed.length); from += pieceSize)
      inflate.push(packed.subarray(from, from + pieceSize), from + pieceSize >= packed.length)
  } catch {
    return null
  }
  return fits && at === size ? bytes : null
}
