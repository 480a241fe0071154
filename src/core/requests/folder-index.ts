import type { HostFiles } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { hashShape } from '../model/fingerprint.ts'
import { directoryOf, nameOf } from '../model/folder.ts'
import { hole } from '../model/reference.ts'
import { safeDecode } from '../model/text.ts'

/** The paths of a build folder, as a host sees them. */
export class FolderIndex implements HostFiles {
  readonly #files = new Set<string>()
  readonly #directories = new Set([''])
  #byFold: Map<string, string> | null = null
  #steps: readonly { readonly file: string; readonly steps: readonly string[] }[] | null = null
  readonly #fitting = new Map<string, readonly string[]>()
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

  /** The file that a path without its first slash means, or its page: `about`, `about/`. Null for none. */
  fileAt(path: string): string | null {
    const name = safeDecode(path).replace(/\/$/, '')
    const names = [...(path.endsWith('/') ? [] : [name]), `${name}/index.html`, `${name}.html`]
    return names.find((each) => this.#files.has(each)) ?? null
  }

  /**
   * Whether what a browser takes for a host and a path is a path of this folder: `logo.svg`, `data/tides.json`. A first step
   * with a point is a host of that name, unless it is all of a file's.
   */
  isOwnPath(path: string): boolean {
    const isHost = path.includes('/') && path.slice(0, path.indexOf('/')).includes('.')
    return !isHost && this.fileAt(path) !== null
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

  /**
   * The files that a name with holes may mean: what is not known stays within one step of the path.
   * @param base the path below which the folder is asked for, where a name may begin with it
   */
  fitting(name: string, base = '/'): readonly string[] {
    const below = (name.startsWith(base) ? name.slice(base.length) : name).replace(/^[./]+/, '')
    // Many files of a build write the same names.
    let known = this.#fitting.get(below)
    if (known === undefined) {
      known = this.#lookFor(below.split('/').map((step) => step.split(hole)))
      this.#fitting.set(below, known)
    }
    return known
  }

  #lookFor(wanted: readonly (readonly string[])[]): string[] {
    this.#steps ??= [...this.#files].map((file) => ({ file, steps: file.split('/') }))
    const found: string[] = []
    for (const { file, steps } of this.#steps) {
      const from = steps.length - wanted.length
      if (from >= 0 && wanted.every((parts, at) => fitsParts(steps[from + at] ?? '', parts))) found.push(file)
    }
    return found
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

/** Whether a step is these parts with anything between them. Each is looked for behind the one before, once: no pattern of many holes does. */
function fitsParts(step: string, parts: readonly string[]): boolean {
  const [first = '', ...rest] = parts
  const last = rest.pop()
  if (last === undefined) return step === first
  if (!step.startsWith(first) || !step.endsWith(last)) return false
  let at = first.length
  for (const part of rest) {
    const found = step.indexOf(part, at)
    if (found < 0) return false
    at = found + part.length
  }
  return at + last.length <= step.length
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
