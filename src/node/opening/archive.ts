import { statSync } from 'node:fs'
import { type Folder, largestFile } from '../../core/model/folder.ts'
import { readNamed } from '../regular-file.ts'

/** A larger archive is no site that was packed; bytes. */
const largestArchive = 5 * largestFile

/** A zip archive as a folder; null when the path names none. @throws {FolderError} when it can't be read. */
export async function openArchive(path: string): Promise<Folder | null> {
  if (!/\.zip$/i.test(path) || statSync(path, { throwIfNoEntry: false })?.isDirectory()) return null
  const bytes = readNamed(path, largestArchive)
  const { folderOfZip } = await import('../../core/model/zip-folder.ts')
  return folderOfZip(bytes, path)
}
