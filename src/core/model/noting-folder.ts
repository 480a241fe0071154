import { FolderError } from './errors.ts'
import type { Folder } from './folder.ts'

/** A file or directory that is there and was not read, with the reason as one sentence. */
export interface Unread {
  readonly file: string
  readonly reason: string
}

/** Without its manifest a project can't be described: that is no file to go on without. */
const needed = /(?:^|\/)package\.json$/

/**
 * A folder whose files are read where they can be: one that can't be read is noted and counts as missing, so that a single
 * bad file never ends a survey. The manifest alone still throws.
 * @param notes is added to; each file once
 */
export function notingFolder(folder: Folder, notes: Map<string, Unread>): Folder {
  const note = (file: string, error: unknown): unknown => {
    if (!(error instanceof FolderError) || error.reason === 'missing' || needed.test(file)) return error
    if (!notes.has(file)) notes.set(file, { file, reason: error.message })
    return new FolderError('missing', error.message)
  }
  const { readUtf8, readNow, origin } = folder
  return {
    label: folder.label,
    ...(origin ? { origin } : {}),
    list: (directory) =>
      folder.list(directory).catch((error: unknown) => {
        throw directory === '' ? error : note(directory, error)
      }),
    read: (path, most) =>
      folder.read(path, most).catch((error: unknown) => {
        throw note(path, error)
      }),
    stat: (path) => folder.stat(path).catch(() => null),
    ...(readNow ? { readNow: readNow.bind(folder) } : {}),
    ...(readUtf8
      ? {
          readUtf8: (path: string, most?: number): string => {
            try {
              return readUtf8.call(folder, path, most)
            } catch (error) {
              throw note(path, error)
            }
          },
        }
      : {}),
  }
}
