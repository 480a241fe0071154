import { UsageError } from '../core/model/errors.ts'
import { unknown } from '../core/model/unknown.ts'
import { writeBeside } from '../node/write-file.ts'
import type { Streams } from './streams.ts'

/** Formats a report can be written in. */
const formats = ['text', 'json', 'sarif', 'junit', 'markdown', 'html']

/** A format that was requested, and where it goes: a file, or standard output. */
export interface Delivery {
  readonly format: string
  readonly out: string | null
}

/**
 * Puts the formats and files of a command line together: an `--out` belongs to the `--format` before it. One of each belong
 * together in either order.
 */
export class Deliveries {
  readonly #list: { format: string; out: string | null }[] = []
  /** A file that no format was named before. */
  #early: string | null = null

  format(name: string): void {
    this.#list.push({ format: name, out: null })
  }

  out(file: string): void {
    const last = this.#list.at(-1)
    if (last && last.out === null) last.out = file
    else if (last || this.#early !== null) this.#list.push({ format: 'text', out: file })
    else this.#early = file
  }

  /** @throws {UsageError} when a format is not known, a file has no clear format, or two would go to standard output. */
  get all(): readonly Delivery[] {
    for (const { format } of this.#list) knownFormat(format)
    const [only, ...others] = this.#list
    if (this.#early !== null && only === undefined) return [{ format: 'text', out: this.#early }]
    if (this.#early !== null && only?.out === null && others.length === 0)
      return [{ format: only.format, out: this.#early }]
    if (this.#early !== null)
      throw new UsageError(
        `--out ${this.#early} stands before every --format, so its format is not clear. Write each --out behind its --format.`,
      )
    const open = this.#list.filter(({ out }) => out === null)
    if (open.length > 1) {
      throw new UsageError(
        `Two results can't both go to standard output: ${open.map(({ format }) => format).join(' and ')}. Give each its own --out.`,
      )
    }
    return this.#list.length > 0 ? this.#list : [{ format: 'text', out: null }]
  }
}

/** A format by name, of those that a command has. @throws {UsageError} when there is none of that name. */
export function knownFormat(name: string, known: readonly string[] = formats): string {
  if (known.includes(name)) return name
  throw new UsageError(unknown('format', name, known))
}

/** Writes a result to standard output, or to a file. @throws {FolderError} when the file can't be written. */
export async function writeOut(text: string, file: string | undefined, { out, err }: Streams): Promise<void> {
  if (file === undefined) {
    out.write(text)
    return
  }
  writeBeside(file, text)
  err.write(`Written to ${file}.\n`)
}
