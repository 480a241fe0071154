import { type Braces, bracesAt, bracesIn } from '../../output/script/braces.ts'
import { declaredAtBrace } from '../../output/script/declared-at-brace.ts'
import { BuiltScript } from '../../syntax/built-script.ts'
import type { SyntaxNode } from '../../syntax/node.ts'
import { largestScript } from '../../syntax/parse.ts'
import { linkBraces, linked, type Tree, type Watch } from '../../syntax/tree.ts'

/** Shorter scripts are parsed as a whole, and what stands between nearer braces with what is around them; UTF-16 units. */
export interface Least {
  readonly script: number
  readonly braces: number
}

const least: Least = { script: 20_000, braces: 30 }

/** What a question looked for, and where; without a word, what begins there. */
interface Wanted {
  readonly from: number
  readonly to: number
  readonly word: string
  readonly isName: boolean
  /** Whether only what is declared around all of it is looked for, and nothing of the same name. */
  readonly isBinding: boolean
}

/**
 * A script of which only the functions and object literals are parsed that a question comes to. The tree tells what is looked for in
 * it; the braces in which such a word stands are parsed too, and the question is asked again. So the answer is the one that a tree of the whole gives.
 */
export class Excerpt {
  readonly #code: string
  readonly #least: Least
  #tree: Tree | null | undefined
  #lazy: BuiltScript | null = null
  #braces: Braces = { starts: [], ends: [], outer: [] }
  readonly #shown = new Set<number>()
  readonly #declared = new Map<number, ReadonlySet<string>>()
  #wanted: Wanted[] = []
  readonly #looked = new Set<string>()
  #whole = 0
  #isTooDeep = false

  constructor(code: string, shortest: Least = least) {
    this.#code = code
    this.#least = shortest
  }

  /** Code that was parsed up to now; UTF-16 units. */
  get parsed(): number {
    return this.#whole + (this.#lazy?.parsed ?? 0)
  }

  /** Whether it is nested too deeply, or questions came to more of it than is parsed. */
  get isBeyond(): boolean {
    return this.#isTooDeep || this.parsed > largestScript
  }

  /** Answers a question about what stands at an offset, if at one; null when the script can't be parsed, or is too large. */
  ask<Answer>(offset: number | null, answer: (tree: Tree) => Answer): Answer | null {
    if (this.#tree === undefined) this.#tree = this.#begin()
    if (offset !== null) this.#show(offset)
    while (this.#tree && !this.isBeyond) {
      this.#wanted = []
      const given = answer(this.#tree)
      if (!this.#showWanted()) return given
    }
    return null
  }

  #begin(): Tree | null {
    if (this.#code.length <= this.#least.script) return this.#asWhole()
    this.#braces = bracesIn(this.#code, this.#least.braces)
    if (this.#withoutBraces() > largestScript) return this.#asWhole()
    this.#lazy = new BuiltScript(this.#code, (start) => this.#passedUntil(start))
    const program = this.#lazy.program()
    this.#isTooDeep = this.#lazy.isTooDeep && program === null
    return program ? { ...linked(program), watch: this.#watch } : this.#asWhole()
  }

  /** Also what is left where a bracket was taken for another, so that there are no parts. */
  #asWhole(): Tree | null {
    this.#whole = this.#code.length
    this.#lazy = null
    if (this.isBeyond) return null
    const script = new BuiltScript(this.#code)
    const program = script.program()
    this.#isTooDeep = script.isTooDeep && program === null
    return program && linked(program)
  }

  #withoutBraces(): number {
    const { starts, ends, outer } = this.#braces
    return starts.reduce(
      (left, start, at) => (outer[at] === -1 ? left - (ends[at] as number) + start : left),
      this.#code.length,
    )
  }

  #passedUntil(start: number): number | null {
    const at = bracesAt(this.#braces, start)
    if (at < 0 || this.#braces.starts[at] !== start || this.#shown.has(at)) return null
    return this.#braces.ends[at] as number
  }

  readonly #watch: Watch = {
    name: (word, within) => this.#want(word, within, true),
    word: (word, within) => this.#want(word, within, false),
    within: ({ start }) =>
      this.#wanted.push({ from: start, to: start, word: '', isName: false, isBinding: false }),
  }

  #want(word: string, within: SyntaxNode | null, isName: boolean): void {
    const isBinding = isName && within !== null
    this.#wanted.push({
      from: within?.start ?? 0,
      to: within?.end ?? this.#code.length,
      word,
      isName,
      isBinding,
    })
  }

  /** Shows where the words stand that were looked for; whether one had not been seen. */
  #showWanted(): boolean {
    if (!this.#lazy) return false
    let isMore = false
    for (const wanted of this.#wanted) {
      const key = `${wanted.from} ${wanted.to} ${wanted.isName} ${wanted.isBinding} ${wanted.word}`
      if (this.#looked.has(key)) continue
      this.#looked.add(key)
      let hidden = 0
      for (const at of placesOf(this.#code, wanted)) {
        if (at < hidden) continue
        hidden = wanted.isBinding ? this.#hiddenUntil(at, wanted) : 0
        if (at >= hidden) isMore = this.#show(at) || isMore
      }
    }
    return isMore
  }

  /** The end of the outermost braces around a name in which it means something else, 0 where there are none: minified code has few names. */
  #hiddenUntil(offset: number, { word, from, to }: Wanted): number {
    const { starts, ends, outer } = this.#braces
    let end = 0
    for (let at = bracesAt(this.#braces, offset); at >= 0; at = outer[at] as number) {
      // Those of the scope itself declare what is looked for.
      if ((starts[at] as number) <= from || (ends[at] as number) >= to) break
      if (this.#declaredAt(at).has(word)) end = ends[at] as number
    }
    return end
  }

  #declaredAt(at: number): ReadonlySet<string> {
    const known = this.#declared.get(at) ?? declaredAtBrace(this.#code, this.#braces.starts[at] as number)
    this.#declared.set(at, known)
    return known
  }

  /** Parses the braces around an offset that were passed over; whether there were such. */
  #show(offset: number): boolean {
    const { starts, ends, outer } = this.#braces
    const around: number[] = []
    for (let at = bracesAt(this.#braces, offset); at >= 0 && !this.#shown.has(at); at = outer[at] as number)
      around.push(at)
    let isNew = false
    for (const at of around.reverse()) {
      this.#shown.add(at)
      isNew = this.#reveal(starts[at] as number, ends[at] as number) || isNew
    }
    return isNew
  }

  #reveal(start: number, end: number): boolean {
    if (!this.#tree || !this.#lazy) return false
    try {
      const braces = this.#lazy.reveal(start, end)
      if (!braces) return false
      linkBraces(this.#tree, braces)
    } catch {
      this.#tree = this.#asWhole()
    }
    return true
  }
}

/** Where a word stands as a whole one; a name not behind a point. */
function* placesOf(code: string, { word, from, to, isName }: Wanted): Generator<number> {
  if (word === '') yield from
  else
    for (let at = code.indexOf(word, from); at >= 0 && at < to; at = code.indexOf(word, at + 1)) {
      const before = code.charAt(at - 1)
      if (isPart(before) || isPart(code.charAt(at + word.length))) continue
      if (isName && before === '.' && code.charAt(at - 2) !== '.') continue
      yield at
    }
}

function isPart(character: string): boolean {
  return /[\w$]/.test(character)
}
