import { readdir, readFile, realpath, stat } from 'node:fs/promises'
import { join, sep } from 'node:path'
import { type Entry, type FileStat, type Folder, FolderError, joinPath } from '../core/model/folder.ts'

/** A folder on disk. Links are followed only as far as they stay inside it. */
export class DiskFolder implements Folder {
  readonly label: string
  readonly #root: string

  private constructor(root: string, label: string) {
    this.#root = root
    this.label = label
  }

  /**
   * Opens a directory.
   * @throws {FolderError} when there is none at this path, or it can't be read.
   */
  static async open(path: string, label = path): Promise<DiskFolder> {
    try {
      const found = await stat(path)
      if (!found.isDirectory()) throw new FolderError('missing', `${label} is a file, not a directory.`)
      return new DiskFolder(await realpath(path), label)
    } catch (error) {
      throw asFolderError(error, label, 'directory')
    }
  }

  async list(directory: string): Promise<readonly Entry[]> {
    const path = this.#at(directory)
    try {
      if (!(await this.#isInside(path)))
        throw new FolderError('unreadable', `${directory} leads out of ${this.label}.`)
      const entries = await readdir(path, { withFileTypes: true })
      const found = await Promise.all(
        entries.map(async (entry): Promise<Entry> => {
          if (entry.isSymbolicLink())
            return { name: entry.name, kind: await this.#kindOfLink(join(path, entry.name)) }
          return {
            name: entry.name,
            kind: entry.isFile() ? 'file' : entry.isDirectory() ? 'directory' : 'other',
          }
        }),
      )
      return found.sort((a, b) => (a.name < b.name ? -1 : 1))
    } catch (error) {
      throw asFolderError(error, directory || this.label, 'directory')
    }
  }

  async read(path: string): Promise<Uint8Array> {
    const at = this.#at(path)
    try {
      if (!(await this.#isInside(at)))
        throw new FolderError('unreadable', `${path} leads out of ${this.label}.`)
      return await readFile(at)
    } catch (error) {
      throw asFolderError(error, path, 'file')
    }
  }

  async stat(path: string): Promise<FileStat | null> {
    const at = this.#at(path)
    try {
      const found = await stat(at)
      if (!found.isFile() || !(await this.#isInside(at))) return null
      return { size: found.size, modified: found.mtimeMs }
    } catch (error) {
      if (isMissing(error)) return null
      throw asFolderError(error, path, 'file')
    }
  }

  #at(path: string): string {
    return join(this.#root, joinPath(path))
  }

  async #kindOfLink(path: string): Promise<Entry['kind']> {
    try {
      if (!(await this.#isInside(path))) return 'other'
      const found = await stat(path)
      // A link to a directory could lead back up and walk for ever; its target is walked where it really lies.
      return found.isFile() ? 'file' : 'other'
    } catch {
      return 'other'
    }
  }

  async #isInside(path: string): Promise<boolean> {
    const real = await realpath(path)
    return real === this.#root || real.startsWith(this.#root + sep)
  }
}

function codeOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : ''
}

function isMissing(error: unknown): boolean {
  return codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR'
}

function asFolderError(error: unknown, path: string, what: string): FolderError {
  if (error instanceof FolderError) return error
  if (isMissing(error)) return new FolderError('missing', `There is no ${what} at ${path}.`)
  const code = codeOf(error)
  const why = code === 'EACCES' || code === 'EPERM' ? 'permission was refused' : code || 'an unknown error'
  return new FolderError('unreadable', `The ${what} ${path} could not be read: ${why}.`)
}
