import { UsageError } from '../core/model/errors.ts'
import { unknown } from '../core/model/unknown.ts'
import { writeBeside } from '../node/write-file.ts'
import type { Streams } from './streams.ts'

/** Formats a report can be written in. */
const formats = ['text', 'json', 'sarif', 'junit', 'markdown', 'html']

/** A format that was asked for, and where it goes: a file, or standard output. */
export interface Delivery {
  readonly format: string
  readonly out: string | null
}

/** Puts the formats and files of a command line together: an `--out` belongs to the `--format` before it. */
export class Deliveries {
  readonly #list: { format: string; out: string | null }[] = []

  format(name: string): void {
    this.#list.push({ format: name, out: null })
  }

  out(file: string): void {
    const last = this.#list.at(-1)
    if (last && last.out === null) last.out = file
    else this.#list.push({ format: 'text', out: file })
  }

  /** @throws {UsageError} when a format is not known, or two would go to standard output. */
  get all(): readonly Delivery[] {
    for (const { format } of this.#list) knownFormat(format)
    const open = this.#list.filter(({ out }) => out === null)
    if (open.length > 1) {
      throw new UsageError(
        `Two results can't both go to standard output: ${open.map(({ format }) => format).join(' and ')}. Give each its own --out.`,
      )
    }
    return this.#list.length > 0 ? this.#list : [{ format: 'text', out: null }]
  }
}

/** A format by name. @throws {UsageError} when there is none of that name. */
export function knownFormat(name: string): string {
  if (formats.includes(name)) return name
  throw new UsageError(unknown('format', name, formats))
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
