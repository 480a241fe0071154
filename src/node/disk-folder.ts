import { constants, lstatSync, readdirSync, readFileSync, realpathSync, statSync } from 'node:fs'
import { dirname, join, sep } from 'node:path'
import { type Entry, type FileStat, type Folder, FolderError, joinPath } from '../core/model/folder.ts'

/** Opens for reading and refuses a link; unknown to some systems. */
const notLinks: string | undefined =
  constants.O_NOFOLLOW === undefined
    ? undefined
    : ((constants.O_RDONLY | constants.O_NOFOLLOW) as unknown as string)

/**
 * A folder on disk. Links are followed only as far as they stay inside it.
 *
 * The calls are synchronous inside: thousands of small files come several times faster so than through the thread pool.
 */
export class DiskFolder implements Folder {
  readonly label: string
  readonly #root: string
  /** Paths known to lie inside, so that only links need a closer look. */
  readonly #inside = new Set<string>()

  get origin(): { readonly root: string; readonly directory: string } {
    return { root: this.#root, directory: '' }
  }

  private constructor(root: string, label: string) {
    this.#root = root
    this.#inside.add(root)
    this.label = label
  }

  /**
   * Opens a directory.
   * @throws {FolderError} when there is none at this path, or it can't be read.
   */
  static async open(path: string, label = path): Promise<DiskFolder> {
    try {
      const found = statSync(path)
      if (!found.isDirectory()) throw new FolderError('missing', `${label} is a file, not a directory.`)
      return new DiskFolder(realpathSync(path), label)
    } catch (error) {
      throw asFolderError(error, label, 'directory')
    }
  }

  async list(directory: string): Promise<readonly Entry[]> {
    const path = this.#at(directory)
    try {
      this.#mustBeInside(path, directory)
      const entries = readdirSync(path, { withFileTypes: true })
      return entries
        .map((entry): Entry => {
          const { name } = entry
          if (entry.isSymbolicLink()) return { name, kind: this.#kindOfLink(join(path, name)) }
          if (entry.isDirectory()) this.#inside.add(join(path, name))
          return { name, kind: entry.isFile() ? 'file' : entry.isDirectory() ? 'directory' : 'other' }
        })
        .sort((a, b) => (a.name < b.name ? -1 : 1))
    } catch (error) {
      throw asFolderError(error, directory || this.label, 'directory')
    }
  }

  async read(path: string): Promise<Uint8Array> {
    return this.#readBytes(path)
  }

  #readBytes(path: string): Uint8Array {
    const at = this.#at(path)
    try {
      return this.#readPlain(at) ?? this.#readLinked(at, path)
    } catch (error) {
      throw asFolderError(error, path, 'file')
    }
  }

  readUtf8(path: string): string {
    const at = this.#at(path)
    try {
      // One call of the system's for all of it, where there are four for bytes.
      if (notLinks !== undefined && this.#isInside(dirname(at))) {
        return readFileSync(at, { encoding: 'utf8', flag: notLinks })
      }
    } catch (error) {
      if (codeOf(error) !== 'ELOOP') throw asFolderError(error, path, 'file')
    }
    return new TextDecoder('utf-8', { ignoreBOM: true }).decode(this.#readBytes(path))
  }

  async stat(path: string): Promise<FileStat | null> {
    const at = this.#at(path)
    try {
      const found = statSync(at, { throwIfNoEntry: false })
      if (!found?.isFile() || !this.#isInside(at)) return null
      return { size: found.size, modified: found.mtimeMs }
    } catch (error) {
      if (isMissing(error)) return null
      throw asFolderError(error, path, 'file')
    }
  }

  /** A file that is no link, in a directory known to be inside: the system itself refuses to follow one. */
  #readPlain(at: string): Uint8Array | null {
    if (notLinks === undefined || !this.#isInside(dirname(at))) return null
    try {
      return readFileSync(at, { flag: notLinks })
    } catch (error) {
      if (codeOf(error) === 'ELOOP') return null
      throw error
    }
  }

  #readLinked(at: string, shown: string): Uint8Array {
    this.#mustBeInside(at, shown)
    return readFileSync(at)
  }

  #at(path: string): string {
    const plain = path !== '' && !path.startsWith('/') && !/(?:^|\/)\.{0,2}(?:\/|$)/.test(path)
    return plain && sep === '/' ? `${this.#root}/${path}` : join(this.#root, joinPath(path))
  }

  #kindOfLink(path: string): Entry['kind'] {
    try {
      // A link to a directory could lead back up and walk for ever; its target is walked where it really lies.
      return this.#isInside(path) && statSync(path).isFile() ? 'file' : 'other'
    } catch {
      return 'other'
    }
  }

  #mustBeInside(path: string, shown: string): void {
    if (!this.#isInside(path)) throw new FolderError('unreadable', `${shown} leads out of ${this.label}.`)
  }

  /** Whether a path stays in the folder. What is no link lies where its directory lies. */
  #isInside(path: string): boolean {
    if (this.#inside.has(path)) return true
    const parent = dirname(path)
    if (parent !== path && parent.startsWith(this.#root) && this.#isInside(parent)) {
      const found = lstatSync(path)
      if (found.isDirectory()) this.#inside.add(path)
      if (!found.isSymbolicLink()) return true
    }
    const real = realpathSync(path)
    const inside = real === this.#root || real.startsWith(this.#root + sep)
    if (inside && statSync(path).isDirectory()) this.#inside.add(path)
    return inside
  }
}

function codeOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : ''
}

function isMissing(error: unknown): boolean {
  return codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR'
}

/** What the system refused, in one sentence. Anything else is a defect, and stays what it is. */
function asFolderError(error: unknown, path: string, what: string): unknown {
  if (error instanceof FolderError) return error
  if (isMissing(error)) return new FolderError('missing', `There is no ${what} at ${path}.`)
  const code = codeOf(error)
  if (code === '') return error
  const why = code === 'EACCES' || code === 'EPERM' ? 'permission was refused' : code
  return new FolderError('unreadable', `The ${what} ${path} could not be read: ${why}.`)
}
