import type { HostFiles } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { directoryOf } from '../model/folder.ts'

/** The paths of a build folder, as a host sees them. */
export class FolderIndex implements HostFiles {
  readonly #files = new Set<string>()
  readonly #directories = new Map<string, number>()

  constructor(facts: Iterable<Pick<FileFacts, 'path'>>) {
    for (const { path } of facts) {
      this.#files.add(path)
      for (let at = directoryOf(path); at !== ''; at = directoryOf(at)) {
        this.#directories.set(at, (this.#directories.get(at) ?? 0) + 1)
      }
    }
  }

  has(path: string): boolean {
    return this.#files.has(path)
  }

  isDirectory(path: string): boolean {
    return this.#directories.has(path)
  }

  /** The longest tail of a path that is a file here, and what stands before it: `/b/assets/x.js` → `/b/`, `assets/x.js`. */
  tailOf(pathname: string): { prefix: string; file: string } | null {
    const path = safeDecode(pathname)
    for (let at = 0; at >= 0; at = path.indexOf('/', at + 1)) {
      const file = path.slice(at + 1)
      if (this.#files.has(file)) return { prefix: path.slice(0, at + 1), file }
    }
    return null
  }
}

/** Percent-decoding that leaves alone what is not well encoded. */
export function safeDecode(path: string): string {
  if (!path.includes('%')) return path
  try {
    return decodeURIComponent(path)
  } catch {
    return path
  }
}
