import { unzipSync } from 'fflate'
import { FolderError } from './errors.ts'
import { TreeFolder } from './tree-folder.ts'

/** What an archive may hold unpacked. More is no site, or is made to fill a memory. Bytes; files. */
const mostBytes = 1_500_000_000
const mostFiles = 200_000

/**
 * The files of a zip archive. When all are in one directory, as when a folder was packed, that directory is the folder.
 * @throws {FolderError} when it is no zip archive, is cut off, or would unpack to more than a site has
 */
export function folderOfZip(archive: Uint8Array, label: string): TreeFolder {
  const found = unpacked(archive, label)
  const paths = Object.keys(found)
  const top = commonDirectory(paths)
  return new TreeFolder(
    paths.map((path) => {
      const bytes = found[path] ?? new Uint8Array()
      return [
        path.slice(top.length),
        { size: bytes.length, modified: null, read: async () => bytes },
      ] as const
    }),
    label,
  )
}

function unpacked(archive: Uint8Array, label: string): Record<string, Uint8Array> {
  let bytes = 0
  let files = 0
  try {
    return unzipSync(archive, {
      filter: ({ name, originalSize }) => {
        bytes += originalSize
        files++
        if (bytes > mostBytes || files > mostFiles) throw new RangeError('too much')
        return !name.endsWith('/')
      },
    })
  } catch (error) {
    const why =
      error instanceof RangeError
        ? 'unpacks to more than a site has'
        : 'is no zip archive that can be read, or was cut off'
    throw new FolderError('unreadable', `${label} ${why}.`)
  }
}

/** `dist/` when every path begins with it. What file managers add beside it does not count. */
function commonDirectory(paths: readonly string[]): string {
  const own = paths.filter((path) => !path.startsWith('__MACOSX/'))
  const slash = own[0]?.indexOf('/') ?? -1
  const top = slash < 0 ? '' : (own[0]?.slice(0, slash + 1) ?? '')
  return own.every((path) => path.startsWith(top)) ? top : ''
}
