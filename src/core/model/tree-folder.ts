import { FolderError, tooLarge } from './errors.ts'
import { type Entry, type FileStat, type Folder, joinPath, joinUp, largestFile } from './folder.ts'

/** A file of a tree that is not on disk. */
export interface TreeFile {
  /** Bytes. */
  readonly size: number
  /** Milliseconds since the epoch, or null where nobody knows. */
  readonly modified: number | null
  read(): Promise<Uint8Array>
}

/** A folder made of files that somebody has: in memory, from an archive, given to a browser. No path leaves it. */
export class TreeFolder implements Folder {
  readonly label: string
  readonly #files = new Map<string, TreeFile>()
  readonly #directories = new Map<string, Map<string, Entry>>([['', new Map()]])

  constructor(files: Iterable<readonly [path: string, file: TreeFile]>, label: string) {
    this.label = label
    // Whoever gives them gives them in any order: two for one place must be the same choice each time.
    const sorted = [...files].map(([path, file]) => ({ path: joinPath(path), written: path, file }))
    sorted.sort((a, b) => compare(a.path, b.path) || compare(a.written, b.written))
    for (const { path, file } of sorted) if (!this.#files.has(path)) this.#add(path, file)
  }

  async list(directory: string): Promise<readonly Entry[]> {
    const entries = this.#directories.get(joinUp(directory))
    if (!entries) throw new FolderError('missing', `There is no directory ${directory || this.label}.`)
    return [...entries.values()].sort((a, b) => (a.name < b.name ? -1 : 1))
  }

  async read(path: string, most = largestFile): Promise<Uint8Array> {
    const file = this.#files.get(joinUp(path))
    if (!file) throw new FolderError('missing', `There is no file ${path}.`)
    if (file.size > most) throw tooLarge(path, most)
    try {
      return await file.read()
    } catch {
      throw new FolderError('unreadable', `${path} could not be read. Was it changed since it was given?`)
    }
  }

  async stat(path: string): Promise<FileStat | null> {
    const file = this.#files.get(joinUp(path))
    return file ? { size: file.size, modified: file.modified } : null
  }

  #add(path: string, file: TreeFile): void {
    if (path === '') return
    this.#files.set(path, file)
    let name = path
    for (let kind: Entry['kind'] = 'file'; name !== ''; kind = 'directory') {
      const slash = name.lastIndexOf('/')
      const directory = slash < 0 ? '' : name.slice(0, slash)
      const own = name.slice(slash + 1)
      let entries = this.#directories.get(directory)
      const known = entries !== undefined
      if (!entries) {
        entries = new Map()
        this.#directories.set(directory, entries)
      }
      if (!entries.has(own)) entries.set(own, { name: own, kind })
      // A directory that is known has all its parents known.
      if (known) return
      name = directory
    }
  }
}

function compare(a: string, b: string): number {
  return a === b ? 0 : a < b ? -1 : 1
}
