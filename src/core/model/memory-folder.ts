import { type Entry, type FileStat, type Folder, FolderError, joinPath } from './folder.ts'

/** A folder held in memory: for tests, for archives already opened, and for callers that made the files themselves. */
export class MemoryFolder implements Folder {
  readonly label: string
  readonly #files = new Map<string, Uint8Array>()
  readonly #directories = new Map<string, Map<string, Entry>>([['', new Map()]])

  constructor(files: Readonly<Record<string, string | Uint8Array>>, label = 'memory') {
    this.label = label
    for (const [path, content] of Object.entries(files)) {
      this.#add(joinPath(path), typeof content === 'string' ? new TextEncoder().encode(content) : content)
    }
  }

  async list(directory: string): Promise<readonly Entry[]> {
    const entries = this.#directories.get(joinPath(directory))
    if (!entries) throw new FolderError('missing', `There is no directory ${directory || this.label}.`)
    return [...entries.values()].sort((a, b) => (a.name < b.name ? -1 : 1))
  }

  async read(path: string): Promise<Uint8Array> {
    const bytes = this.#files.get(joinPath(path))
    if (!bytes) throw new FolderError('missing', `There is no file ${path}.`)
    return bytes
  }

  async stat(path: string): Promise<FileStat | null> {
    const bytes = this.#files.get(joinPath(path))
    return bytes ? { size: bytes.length, modified: null } : null
  }

  #add(path: string, bytes: Uint8Array): void {
    this.#files.set(path, bytes)
    let parent = ''
    const steps = path.split('/')
    for (const [index, name] of steps.entries()) {
      const last = index === steps.length - 1
      this.#directories.get(parent)?.set(name, { name, kind: last ? 'file' : 'directory' })
      parent = parent === '' ? name : `${parent}/${name}`
      if (!last && !this.#directories.has(parent)) this.#directories.set(parent, new Map())
    }
  }
}
