import { directoryOf, joinPath, nameOf } from '../model/folder.ts'
import { decode } from '../model/text.ts'
import { readHtml } from '../output/html/document.ts'
import type { Tree } from '../syntax/tree.ts'
import { settledAtOnce } from './flow/at-once.ts'
import { Excerpt } from './flow/excerpt.ts'
import { followAbsence, followImport, followText } from './flow/follow.ts'
import type { Exported, ForHost, Harmless, Outcome } from './flow/outcome.ts'
import type { Sink } from './flow/sinks.ts'
import { type FreeUse, freeUseAt } from './free-use.ts'
import type { Importers } from './importers.ts'
import { type KeptAnswers, keptForm, outcomeFrom } from './kept-answers.ts'
import { ShownMembers } from './shown-members.ts'

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

const nothing: Outcome = {
  sinks: new Set(),
  harmless: new Set(),
  exported: [],
  hosts: [],
  before: [],
  isLost: false,
  lostAs: new Set(),
  text: '',
}

/** Scripts that are looked through for the use of one export. */
const mostImporters = 60

/** Follows literals through the scripts of a build. Only scripts that a question is requested from are parsed. */
export class Scripts {
  readonly #read: ReadFile
  readonly #paths: readonly string[]
  readonly #importers: Importers
  readonly #kept = new Map<string, readonly Script[]>()
  readonly #answers: KeptAnswers | null
  #parsed = 0
  #shown: ShownMembers | null = null
  /** What is asked from now on is not followed, and its answer is no property of the contents. */
  #isOver = false
  /** Files that the question under way came to and that hold more than is followed. */
  #beyond = new Set<string>()
  /** Files with a script that holds a question and is too large to be followed. */
  readonly unfollowed = new Set<string>()

  /**
   * @param paths the scripts of the build
   * @param importers which of them import a script, as far as that is known without looking
   * @param answers those of earlier runs
   */
  constructor(
    read: ReadFile,
    paths: readonly string[],
    importers: Importers = () => paths,
    answers: KeptAnswers | null = null,
  ) {
    this.#read = read
    this.#paths = paths
    this.#importers = importers
    this.#answers = answers
  }

  /** All questions are asked. */
  end(): void {
    this.#answers?.keep()
  }

  /** What becomes of the text at an offset of a file; null when its script can't be parsed. */
  follow(file: string, offset: number): Promise<Outcome | null> {
    const all = this.#answers?.all ?? null
    return this.#known(all, `whole ${file} ${offset}`, async () => {
      const key = this.#answers?.keyOf(file) ?? null
      const outcome = await this.#known(key, `text ${file} ${offset}`, () => this.#followText(file, offset))
      if (!outcome || outcome.sinks.size > 0 || outcome.exported.length === 0) return outcome
      return this.#inImporters(file, outcome)
    })
  }

  async #followText(file: string, offset: number): Promise<Outcome | null> {
    const script = await this.#scriptAt(file, offset)
    if (!script) return null
    const at = offset - script.offset
    const settled = settledAtOnce(script.code, at)
    if (settled) return { ...nothing, harmless: new Set([settled]) }
    return this.#ask(script, file, at, (tree) => followText(script.code, tree, at))
  }

  /** The same for a value that is not there, and that others take the place of wherever the code asks for it. */
  followAbsence(file: string, offset: number): Promise<Outcome | null> {
    const key = this.#answers?.keyOf(file) ?? null
    return this.#known(key, `absence ${file} ${offset}`, async () => {
      const script = await this.#scriptAt(file, offset)
      if (!script) return null
      const at = offset - script.offset
      return this.#ask(script, file, at, (tree) => followAbsence(script.code, tree, at))
    })
  }

  /** How the name at an offset of a file is used; null where it is bound, asked for before, or no name. */
  async useOf(file: string, offset: number): Promise<FreeUse | null> {
    const key = this.#answers?.keyOf(file) ?? null
    const asked = `${key} use ${file} ${offset}`
    const known = key === null || this.#isOver ? undefined : this.#answers?.get(asked)
    if (known?.use !== undefined) {
      this.#parsed += known.parsed
      return known.use
    }
    const script = await this.#scriptAt(file, offset)
    if (!script) return null
    if (this.#parsed > mostParsed) return null
    const at = offset - script.offset
    const before = script.excerpt.parsed
    // No address is at stake: what is too large for it holds nothing up.
    const use = script.excerpt.ask(at, (tree) => freeUseAt(tree, at))
    const parsed = script.excerpt.parsed - before
    this.#parsed += parsed
    if (key !== null) this.#answers?.set(asked, { outcome: null, use, parsed, beyond: [] })
    return use
  }

  /** A file's text; of a page its first script. */
  async textOf(file: string): Promise<string> {
    return (await this.#scriptsOf(file))[0]?.code ?? ''
  }

  /** What scripts show of the lists that they have. Made when it is first asked for. */
  async shownMembers(): Promise<ShownMembers> {
    if (this.#shown) return this.#shown
    const shown = new ShownMembers()
    let room = mostParsed
    for (const path of this.#paths) {
      const code = await this.textOf(path)
      room -= code.length
      if (room < 0) break
      shown.add(code)
    }
    this.#shown = shown
    return shown
  }

  /** The answer of an earlier run where the contents are the same, else one that is kept for the next. */
  async #known(
    key: string | null,
    question: string,
    answer: () => Promise<Outcome | null>,
  ): Promise<Outcome | null> {
    if (!this.#answers || key === null || this.#isOver) return answer()
    const asked = `${key} ${question}`
    const known = this.#answers.get(asked)
    if (known) {
      this.#parsed += known.parsed
      for (const each of known.beyond) this.#noteBeyond(each)
      return outcomeFrom(known)
    }
    const [before, outer] = [this.#parsed, this.#beyond]
    this.#beyond = new Set()
    const outcome = await answer()
    const beyond = [...this.#beyond]
    this.#beyond = outer
    for (const each of beyond) outer.add(each)
    if (!this.#isOver)
      this.#answers.set(asked, { outcome: keptForm(outcome), parsed: this.#parsed - before, beyond })
    return outcome
  }

  #noteBeyond(file: string): void {
    this.unfollowed.add(file)
    this.#beyond.add(file)
  }

  /** What the scripts that import it do with it. */
  async #inImporters(file: string, outcome: Outcome): Promise<Outcome> {
    const sinks = new Set(outcome.sinks)
    const harmless = new Set(outcome.harmless)
    const hosts = [...outcome.hosts]
    const before = [...outcome.before]
    const lostAs = new Set(outcome.lostAs)
    let { isLost } = outcome
    let looked = 0
    // A numbered module is asked for by its number, by whichever script.
    const isNumbered = outcome.exported.some(({ module }) => module !== null)
    for (const path of isNumbered ? this.#paths : this.#importers(file)) {
      if (path === file || sinks.size > 0 || looked >= mostImporters) continue
      const importing = (await this.#scriptsOf(path)).filter(({ code }) =>
        outcome.exported.some((each) => mayImport(code, file, each)),
      )
      if (importing.length === 0) continue
      looked += importing.length
      const key = this.#answers?.keyOf(path) ?? null
      const question = `import ${path} ${file} ${JSON.stringify(outcome.exported)}`
      const there = await this.#known(key, question, async () =>
        this.#askEach(importing, path, file, outcome.exported),
      )
      for (const sink of there?.sinks ?? []) sinks.add(sink)
      for (const reason of there?.harmless ?? []) harmless.add(reason)
      hosts.push(...(there?.hosts ?? []))
      before.push(...(there?.before ?? []))
      isLost ||= there?.isLost === true
      for (const name of there?.lostAs ?? []) lostAs.add(name)
    }
    return { ...outcome, sinks, harmless, hosts, before, isLost, lostAs }
  }

  /** What some scripts of one file do with what another one exports. */
  #askEach(scripts: readonly Script[], path: string, file: string, exported: readonly Exported[]): Outcome {
    const sinks = new Set<Sink>()
    const harmless = new Set<Harmless>()
    const hosts: ForHost[] = []
    const before: (string | null)[] = []
    const lostAs = new Set<string>()
    let isLost = false
    const from = (specifier: string): boolean => joinPath(directoryOf(path), specifier) === file
    for (const script of scripts) {
      for (const each of exported) {
        const there = this.#ask(script, path, null, (tree) => followImport(script.code, tree, from, each))
        for (const sink of there?.sinks ?? []) sinks.add(sink)
        for (const reason of there?.harmless ?? []) harmless.add(reason)
        hosts.push(...(there?.hosts ?? []))
        before.push(...(there?.before ?? []))
        isLost ||= there?.isLost === true
        for (const name of there?.lostAs ?? []) lostAs.add(name)
      }
    }
    return { ...nothing, sinks, harmless, hosts, before, isLost, lostAs }
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
      this.#isOver = true
      this.unfollowed.add(file)
      return null
    }
    const before = excerpt.parsed
    const given = excerpt.ask(offset, answer)
    this.#parsed += excerpt.parsed - before
    if (excerpt.isBeyond) this.#noteBeyond(file)
    return given
  }

  async #load(file: string): Promise<readonly Script[]> {
    const bytes = await this.#read(file)
    if (!bytes) return []
    const code = decode(bytes)
    if (!/\.html?$/.test(file)) return [{ code, offset: 0, excerpt: new Excerpt(code) }]
    return readHtml(code).inline.flatMap(({ kind, text, offset, within }) =>
      kind === 'script' || (kind === 'handler' && within === undefined)
        ? [{ code: text, offset, excerpt: new Excerpt(text) }]
        : [],
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
