import { type Folder, joinPath } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import { readText } from '../model/text.ts'

/** One environment file: its names with their places. Values are kept apart, see {@link EnvironmentValues}. */
export interface EnvironmentFile {
  readonly file: string
  readonly names: ReadonlyMap<string, Place>
}

/**
 * The values behind the names, in memory only: nothing here is reachable by walking an object's properties, so no
 * report, log or cache can carry a value by accident.
 */
export class EnvironmentValues {
  readonly #values: ReadonlyMap<string, string>

  constructor(values: ReadonlyMap<string, string> = new Map()) {
    this.#values = values
  }

  /** The values, for searching. Never store or print what comes back. */
  forSearching(): ReadonlyMap<string, string> {
    return this.#values
  }

  /** A text with every value in it covered, at its old length so that offsets hold. */
  cover(text: string): string {
    let covered = text
    for (const value of this.#values.values()) {
      if (isTelling(value)) covered = covered.replaceAll(value, '•'.repeat(value.length))
    }
    return covered
  }
}

/** Short and common values stand in every bundle: they prove nothing and give nothing away. */
const shortest = 6
const common = /^(?:true|false|production|development|staging|default|\d+)$/i

/** Whether a value is long and rare enough to be known again. */
export function isTelling(value: string): boolean {
  return value.length >= shortest && !common.test(value)
}

const line =
  /^[ \t]*(?:export[ \t]+)?([\w.-]+)[ \t]*(?:=[ \t]*|:[ \t]+)("(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|`(?:\\.|[^`\\])*`|[^\r\n#]*)/gm

/** Reads environment files in the given order; a later file's value wins. Missing files are passed over. */
export async function readEnvironmentFiles(
  folder: Folder,
  files: readonly string[],
): Promise<{ files: EnvironmentFile[]; values: EnvironmentValues }> {
  const found: EnvironmentFile[] = []
  const values = new Map<string, string>()
  for (const path of files) {
    const file = joinPath(path)
    const text = await readText(folder, file)
    if (text === null) continue
    const names = new Map<string, Place>()
    for (const { name, value, at } of parseEnvironment(text)) {
      names.set(name, { file, line: at, column: 1 })
      values.set(name, value)
    }
    found.push({ file, names })
  }
  return { files: found, values: new EnvironmentValues(expandAll(values)) }
}

/** Names, values and lines of one environment file, in the form the common readers of such files share. */
function parseEnvironment(text: string): { name: string; value: string; at: number }[] {
  const found: { name: string; value: string; at: number }[] = []
  let counted = 0
  let at = 1
  for (const match of text.matchAll(line)) {
    const name = match[1] ?? ''
    for (; counted < match.index; counted++) if (text.charCodeAt(counted) === 10) at++
    const written = (match[2] ?? '').trim()
    const quote = /^(["'`])([\s\S]*)\1$/.exec(written)
    const plain = quote?.[2] ?? written
    const value = quote?.[1] === '"' ? plain.replace(/\\n/g, '\n').replace(/\\r/g, '\r') : plain
    // Leading blanks of the match hold no line break, so the line counted to here is the name's.
    found.push({ name, value, at })
  }
  return found
}

/** Replaces `$NAME`, `${NAME}` and `${NAME:-default}` by values of the same set. A circle is left as written. */
function expandAll(values: ReadonlyMap<string, string>): Map<string, string> {
  const expand = (text: string, seen: readonly string[]): string =>
    text.replace(
      /(\\)?\$(?:\{([\w.-]+)(?::?-([^}]*))?\}|(\w+))/g,
      (whole, escaped, braced, fallback, bare) => {
        if (escaped !== undefined) return whole.slice(1)
        const name: string = braced ?? bare
        const value = values.get(name)
        if (seen.includes(name)) return whole
        return value === undefined ? (fallback ?? '') : expand(value, [...seen, name])
      },
    )
  return new Map([...values].map(([name, value]) => [name, expand(value, [name])]))
}
