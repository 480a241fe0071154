import { Readable } from 'node:stream'
import { createGunzip } from 'node:zlib'
import { extract, type Header } from 'tar-stream'
import {
  ArchiveProblem,
  commonDirectory,
  leadsOut,
  mostBytes,
  mostFiles,
  mostRatio,
} from '../../core/model/archive.ts'
import { FolderError } from '../../core/model/errors.ts'
import { joinPath } from '../../core/model/folder.ts'
import { TreeFolder } from '../../core/model/tree-folder.ts'

/** Entries that say something of the archive or of others, and hold no file. */
const aside = new Set(['directory', 'pax-header', 'pax-global-header', 'gnu-long-path', 'gnu-long-link-path'])

/**
 * The files of a tar archive, packed with gzip or not. When all are in one directory, that is the folder.
 * @throws {FolderError} when it is none, was cut off, holds what is no file, or would unpack to more than a site has
 */
export async function folderOfTar(archive: Uint8Array, label: string): Promise<TreeFolder> {
  try {
    const files = await filesOf(archive)
    const top = commonDirectory([...files.keys()])
    return new TreeFolder(
      [...files].map(([name, bytes]) => [
        name.slice(top.length),
        { size: bytes.length, modified: null, read: async () => bytes },
      ]),
      label,
    )
  } catch (error) {
    const why =
      error instanceof ArchiveProblem ? error.message : 'is no tar archive that can be read, or was cut off'
    throw new FolderError('unreadable', `${label} ${why}.`)
  }
}

async function filesOf(archive: Uint8Array): Promise<Map<string, Uint8Array>> {
  const found = new Map<string, Uint8Array>()
  const most = Math.min(mostBytes, archive.length * mostRatio)
  const entries = extract()
  const source = Readable.from([archive])
  const unpacked = isGzip(archive) ? source.pipe(createGunzip()) : source
  unpacked.on('error', (error) => entries.destroy(error))
  unpacked.pipe(entries)
  let total = 0
  for await (const entry of entries) {
    const name = nameOf(entry.header)
    total += entry.header.size ?? 0
    if (total > most || found.size >= mostFiles) throw new ArchiveProblem('unpacks to more than a site has')
    const bytes = await bytesOf(entry)
    if (name === null) continue
    if (found.has(name)) throw new ArchiveProblem(`holds ${name} twice`)
    found.set(name, bytes)
  }
  return found
}

/** By its first bytes (RFC 1952, 2.3.1), whatever its name says. */
function isGzip([first, second]: Uint8Array): boolean {
  return first === 0x1f && second === 0x8b
}

/** The path of a file; null for what is none. */
function nameOf({ name, type }: Header): string | null {
  if (leadsOut(name)) throw new ArchiveProblem(`holds a name that leads out of it, ${name}`)
  if (type === 'symlink' || type === 'link') throw new ArchiveProblem(`holds a link, ${name}`)
  if (aside.has(type ?? 'file')) return null
  if (type !== 'file' && type !== 'contiguous-file')
    throw new ArchiveProblem(`holds ${name}, which is no file`)
  return joinPath(name)
}

async function bytesOf(entry: AsyncIterable<unknown>): Promise<Uint8Array> {
  const parts: Uint8Array[] = []
  for await (const part of entry) parts.push(part as Uint8Array)
  return Buffer.concat(parts)
}
