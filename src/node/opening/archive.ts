import { statSync } from 'node:fs'
import { type Folder, largestFile } from '../../core/model/folder.ts'
import { readNamed } from '../regular-file.ts'

/** A larger archive is no site that was packed; bytes. */
const largestArchive = 5 * largestFile

/** Whether a path is that of an archive, by its ending. */
export function isArchive(path: string): boolean {
  return /\.(?:zip|tar|tar\.gz|tgz)$/i.test(path)
}

/** A zip or tar archive as a folder; null when the path names none. @throws {FolderError} when it can't be read. */
export async function openArchive(path: string): Promise<Folder | null> {
  if (!isArchive(path) || statSync(path, { throwIfNoEntry: false })?.isDirectory()) return null
  const bytes = readNamed(path, largestArchive)
  if (/\.zip$/i.test(path)) {
    const { folderOfZip } = await import('../../core/model/zip-folder.ts')
    return folderOfZip(bytes, path)
  }
  const { folderOfTar } = await import('./tar.ts')
  return folderOfTar(bytes, path)
}
