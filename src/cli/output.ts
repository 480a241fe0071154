import { UsageError } from '../core/model/errors.ts'
import type { ReportFormat } from '../core/report/formats/format.ts'
import { formatNamed } from '../core/report/formats/index.ts'
import { json } from '../core/report/formats/json.ts'
import { markdown } from '../core/report/formats/markdown.ts'
import { text as plain } from '../core/report/formats/text.ts'
import { appendTo, writeBeside } from '../node/write-file.ts'
import type { Streams } from './streams.ts'

/** A format that was requested, and where it goes: a file, or standard output. */
export interface ReportDestination {
  readonly format: ReportFormat
  readonly out: string | null
  /** It comes behind what the file holds. */
  readonly append?: true
}

/**
 * Puts the formats and files of a command line together: an `--out` belongs to the `--format` before it. One of each belong
 * together in either order.
 */
export class Deliveries {
  readonly #list: { format: string; out: string | null }[] = []
  readonly #summaries: string[] = []
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

  summary(file: string): void {
    this.#summaries.push(file)
  }

  /** @throws {UsageError} when a format is not known, a file has no clear format, or two would go to standard output. */
  get all(): readonly ReportDestination[] {
    const summaries = this.#summaries.map(
      (out): ReportDestination => ({ format: markdown, out, append: true }),
    )
    return [...this.#named(), ...summaries]
  }

  #named(): readonly ReportDestination[] {
    const list = this.#list.map(({ format, out }) => ({ format: formatNamed(format), out }))
    const [only, ...others] = list
    if (this.#early !== null && only === undefined) return [{ format: plain, out: this.#early }]
    if (this.#early !== null && only?.out === null && others.length === 0)
      return [{ format: only.format, out: this.#early }]
    if (this.#early !== null)
      throw new UsageError(
        `--out ${this.#early} stands before every --format, so its format is not clear. Write each --out behind its --format.`,
      )
    const open = list.filter(({ out }) => out === null)
    if (open.length > 1) {
      throw new UsageError(
        `Two results can't both go to standard output: ${open.map(({ format: { name } }) => name).join(' and ')}. Give each its own --out.`,
      )
    }
    return list.length > 0 ? list : [{ format: plain, out: null }]
  }
}

/** The formats of a survey. */
export const surveyFormats: readonly ReportFormat[] = [plain, json]

/** Writes a result to standard output, or to a file. @throws {FolderError} when the file can't be written. */
export async function writeOut(
  text: string,
  file: string | undefined,
  { out, err }: Streams,
  append = false,
): Promise<void> {
  if (file === undefined) {
    out.write(text)
    return
  }
  if (append) appendTo(file, text)
  else writeBeside(file, text)
  err.write(`${append ? 'Added' : 'Written'} to ${file}.\n`)
}
