import { directoryOf, joinPath, nameOf } from '../model/folder.ts'
import { decode } from '../model/text.ts'
import { readHtml } from '../output/html/document.ts'
import type { Tree } from '../syntax/tree.ts'
import { settledAtOnce } from './flow/at-once.ts'
import { Excerpt } from './flow/excerpt.ts'
import { followAbsence, followImport, followText } from './flow/follow.ts'
import type { Exported, Outcome } from './flow/outcome.ts'

/** Reads a built file, or null when it can't be read. */
export type ReadFile = (path: string) => Promise<Uint8Array | null>

interface Script {
  readonly code: string
  /** Where the code begins in its file. */
  readonly offset: number
  readonly excerpt: Excerpt
}

/** Code kept parsed at a time: trees are many times as large as their texts. UTF-16 units. */
const mostKept = 4_000_000

/** Code parsed in one run, the same script again counted again; what comes after it is not followed. UTF-16 units. */
const mostParsed = 64_000_000

/** Scripts that are looked through for the use of one export. */
const mostImporters = 60

/** Follows literals through the scripts of a build. Only scripts that a question is requested from are parsed. */
export class Scripts {
  readonly #read: ReadFile
  readonly #paths: readonly string[]
  readonly #kept = new Map<string, readonly Script[]>()
  #parsed = 0
  /** Files with a script that holds a question and is too large to be followed. */
  readonly unfollowed = new Set<string>()

  /** @param paths the scripts of the build */
  constructor(read: ReadFile, paths: readonly string[]) {
    this.#read = read
    this.#paths = paths
  }

  /** What becomes of the text at an offset of a file; null when its script can't be parsed. */
  async follow(file: string, offset: number): Promise<Outcome | null> {
    const script = await this.#scriptAt(file, offset)
    const settled = script && settledAtOnce(script.code, offset - script.offset)
    if (settled) return { sinks: new Set(), harmless: new Set([settled]), exported: [], text: '' }
    const outcome =
      script &&
      this.#ask(script, file, offset - script.offset, (tree) =>
        followText(script.code, tree, offset - script.offset),
      )
    if (!outcome || outcome.sinks.size > 0 || outcome.exported.length === 0) return outcome ?? null
    return this.#inImporters(file, outcome)
  }

  /** The same for a value that is not there, and that others take the place of wherever the code asks for it. */
  async followAbsence(file: string, offset: number): Promise<Outcome | null> {
    const script = await this.#scriptAt(file, offset)
    if (!script) return null
    return this.#ask(script, file, offset - script.offset, (tree) =>
      followAbsence(script.code, tree, offset - script.offset),
    )
  }

  /** What the scripts that import it do with it. */
  async #inImporters(file: string, outcome: Outcome): Promise<Outcome> {
    const sinks = new Set(outcome.sinks)
    const harmless = new Set(outcome.harmless)
    let looked = 0
    for (const path of this.#paths) {
      if (path === file || sinks.size > 0 || looked >= mostImporters) continue
      for (const script of await this.#scriptsOf(path)) {
        if (!outcome.exported.some((each) => mayImport(script.code, file, each))) continue
        looked++
        const from = (specifier: string): boolean => joinPath(directoryOf(path), specifier) === file
        for (const each of outcome.exported) {
          const there = this.#ask(script, path, null, (tree) => followImport(script.code, tree, from, each))
          for (const sink of there?.sinks ?? []) sinks.add(sink)
          for (const reason of there?.harmless ?? []) harmless.add(reason)
        }
      }
    }
    return { ...outcome, sinks, harmless }
  }

  async #scriptAt(file: string, at: number): Promise<Script | undefined> {
    const scripts = await this.#scriptsOf(file)
    return scripts.find(({ offset, code }) => offset <= at && at < offset + code.length)
  }

  /** The scripts of a file. The oldest make room: what was requested last is requested again. */
  async #scriptsOf(file: string): Promise<readonly Script[]> {
    const known = this.#kept.get(file)
    if (known) return known
    const scripts = await this.#load(file)
    this.#kept.set(file, scripts)
    for (const oldest of this.#kept.keys()) {
      if (oldest === file || sizeOf([...this.#kept.values()].flat()) <= mostKept) break
      this.#kept.delete(oldest)
    }
    return scripts
  }

  #ask<Answer>(
    { excerpt }: Script,
    file: string,
    offset: number | null,
    answer: (tree: Tree) => Answer,
  ): Answer | null {
    if (this.#parsed > mostParsed) {
      this.unfollowed.add(file)
      return null
    }
    const before = excerpt.parsed
    const given = excerpt.ask(offset, answer)
    this.#parsed += excerpt.parsed - before
    if (excerpt.isBeyond) this.unfollowed.add(file)
    return given
  }

  async #load(file: string): Promise<readonly Script[]> {
    const bytes = await this.#read(file)
    if (!bytes) return []
    const code = decode(bytes)
    if (!/\.html?$/.test(file)) return [{ code, offset: 0, excerpt: new Excerpt(code) }]
    return readHtml(code).inline.flatMap(({ kind, text, offset }) =>
      kind === 'script' ? [{ code: text, offset, excerpt: new Excerpt(text) }] : [],
    )
  }
}

function sizeOf(scripts: readonly Script[]): number {
  return scripts.reduce((sum, { code }) => sum + code.length, 0)
}

/** A cheap look before a script is parsed: whether it imports that export, by the words of its imports. */
function mayImport(code: string, file: string, { name, module }: Exported): boolean {
  if (module !== null) return code.includes(`(${module})`) || code.includes(`("${module}")`)
  const base = nameOf(file)
  for (let at = code.indexOf(base); at >= 0; at = code.indexOf(base, at + 1)) {
    const before = code.slice(Math.max(0, at - longestImport), at)
    const words = before.slice(before.lastIndexOf('import') + 'import'.length)
    if (words.includes('*') || new RegExp(`(?<![\\w$])${escaped(name)}(?![\\w$])`).test(words)) return true
    if (name === 'default' && /^\s*[\w$]/.test(words)) return true
  }
  return false
}

/** The names of one import; UTF-16 units. */
const longestImport = 20_000

function escaped(name: string): string {
  return name.replace(/\$/g, '\\$')
}
