import type { HostFiles } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { hashShape } from '../model/fingerprint.ts'
import { directoryOf, nameOf } from '../model/folder.ts'
import { hole } from '../model/reference.ts'
import { escapePattern, safeDecode } from '../model/text.ts'

/** The paths of a build folder, as a host sees them. */
export class FolderIndex implements HostFiles {
  readonly #files = new Set<string>()
  readonly #directories = new Set([''])
  #byFold: Map<string, string> | null = null
  #byName: Map<string, string[]> | null = null
  #shapes: Set<string> | null = null

  constructor(facts: Iterable<Pick<FileFacts, 'path'>>) {
    for (const { path } of facts) {
      this.#files.add(path)
      // A directory that is known has all its parents known.
      for (let at = directoryOf(path); at !== '' && !this.#directories.has(at); at = directoryOf(at)) {
        this.#directories.add(at)
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

  /** A file whose name is the same but for letter case or the form of its Unicode letters, when the path itself is none. */
  nearlyNamed(path: string): string | null {
    this.#byFold ??= new Map([...this.#files].map((file) => [folded(file), file]))
    return this.#files.has(path) ? null : (this.#byFold.get(folded(path)) ?? null)
  }

  /** Whether a hashed name is of the kind that this build emits: beside files whose hashes stand alike. */
  isOfKind(path: string): boolean {
    this.#shapes ??= new Set([...this.#files].flatMap(shapeOf))
    return shapeOf(path).some((shape) => this.#shapes?.has(shape))
  }

  /** The files that a name with holes may mean: what is not known stays within one step of the path. */
  fitting(name: string): string[] {
    const steps = name.replace(/^[./]+/, '').split(hole)
    const pattern = steps.map((step) => escapePattern(step)).join('[^/]*')
    const whole = new RegExp(`(?:^|/)${pattern}$`)
    return [...this.#files].filter((file) => whole.test(file))
  }

  /** The files whose path ends with these steps. */
  endingWith(tail: string): string[] {
    if (this.#byName === null) {
      this.#byName = new Map()
      for (const file of this.#files) {
        const name = nameOf(file)
        const known = this.#byName.get(name)
        if (known) known.push(file)
        else this.#byName.set(name, [file])
      }
    }
    const named = this.#byName.get(nameOf(tail)) ?? []
    return named.filter((file) => file === tail || file.endsWith(`/${tail}`))
  }
}

/** Disks that do not tell letter case apart hold one file for all of these. */
function folded(path: string): string {
  return path.normalize('NFC').toLowerCase()
}

/** Of one or no item. */
function shapeOf(path: string): string[] {
  const shape = hashShape(path)
  return shape === null ? [] : [`${directoryOf(path)}/${shape}`]
}
