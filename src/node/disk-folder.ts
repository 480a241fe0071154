import { lstatSync, readdirSync, realpathSync, statSync } from 'node:fs'
import { dirname, join, sep } from 'node:path'
import { FolderError } from '../core/model/errors.ts'
import {
  climbs,
  type Entry,
  type FileStat,
  type Folder,
  joinUp,
  largestFile,
  outsideOf,
} from '../core/model/folder.ts'
import { asFolderError, codeOf, isMissing, kindOf, readRegular, readRegularText } from './regular-file.ts'

/**
 * A folder on disk. Links are followed only as far as they stay inside it.
 *
 * The calls are synchronous inside: thousands of small files come several times faster so than through the thread pool.
 */
export class DiskFolder implements Folder {
  readonly label: string
  readonly #root: string
  /** Paths known to be inside, so that only links need a closer look. */
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
          if (entry.isSymbolicLink()) return { name, ...this.#kindOfLink(join(path, name)) }
          if (entry.isFile()) return { name, kind: 'file' }
          if (!entry.isDirectory()) return { name, kind: 'other', what: kindOf(entry) }
          this.#inside.add(join(path, name))
          return { name, kind: 'directory' }
        })
        .sort((a, b) => (a.name < b.name ? -1 : 1))
    } catch (error) {
      throw asFolderError(error, directory || this.label, 'directory')
    }
  }

  async read(path: string, most = largestFile): Promise<Uint8Array> {
    return this.#opened(path, (at) => readRegular(at, path, most))
  }

  readUtf8(path: string, most = largestFile): string {
    return this.#opened(path, (at) => readRegularText(at, path, most))
  }

  /** The same at this moment: what is found to be inside now, whatever was found before. */
  readNow(path: string, most = largestFile): Uint8Array {
    this.#forget()
    return this.#opened(path, (at) => {
      const bytes = readRegular(at, path, most)
      // It may have been changed between the look and the reading.
      this.#forget()
      this.#mustBeInside(dirname(at), path)
      return bytes
    })
  }

  #forget(): void {
    this.#inside.clear()
    this.#inside.add(this.#root)
  }

  /** Reads at a path; when a link stands there, where it leads to, as long as that is inside. */
  #opened<T>(path: string, read: (at: string) => T): T {
    const at = this.#at(path)
    try {
      // What is no link is in its directory: the system refuses to follow one.
      this.#mustBeInside(dirname(at), path)
      try {
        return read(at)
      } catch (error) {
        if (codeOf(error) !== 'ELOOP') throw error
      }
      this.#mustBeInside(at, path)
      return read(realpathSync(at))
    } catch (error) {
      throw asFolderError(error, path, 'file')
    }
  }

  async stat(path: string): Promise<FileStat | null> {
    if (climbs(joinUp(path))) return null
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

  #at(path: string): string {
    const plain = path !== '' && !path.startsWith('/') && !/(?:^|\/)\.{0,2}(?:\/|$)/.test(path)
    if (plain && sep === '/') return `${this.#root}/${path}`
    const joined = joinUp(path)
    if (climbs(joined)) throw outsideOf(this.label, path)
    return join(this.#root, joined)
  }

  #kindOfLink(path: string): Pick<Entry, 'kind' | 'what'> {
    try {
      if (!this.#isInside(path)) return { kind: 'other', what: 'a link that leads out of the folder' }
      const found = statSync(path)
      if (found.isFile()) return { kind: 'file' }
      if (!found.isDirectory()) return { kind: 'other', what: kindOf(found) }
      return isFollowed(path) ? { kind: 'directory' } : { kind: 'other', what: 'a link to a directory' }
    } catch {
      return { kind: 'other', what: 'a link that leads nowhere' }
    }
  }

  #mustBeInside(path: string, shown: string): void {
    if (!this.#isInside(path)) throw new FolderError('unreadable', `${shown} leads out of ${this.label}.`)
  }

  /** Whether a path stays in the folder. What is no link is where its directory is. */
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

/**
 * Whether a link to a directory is followed: hosts send what is behind it. Once, and not back up, so that no walk goes on for
 * ever: links in a directory that is linked itself stay as they are.
 */
function isFollowed(path: string): boolean {
  const around = dirname(path)
  const target = realpathSync(path)
  return realpathSync(around) === around && around !== target && !around.startsWith(target + sep)
}
