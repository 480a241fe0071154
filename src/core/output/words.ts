import { find, keep } from './scanner.ts'

/** Three characters in a row, of each the lower five bits, in which letters of both cases are the same. */
const grams = 1 << 15
/** As many as a byte can number, and none. */
const mostBuckets = 256

/**
 * Words that are looked for in a text, all in one pass. Letters of both cases are the same in the pass; a word that is asked for
 * as it is written is compared then.
 */
export class WordList {
  readonly #words: readonly string[]
  readonly #indices: ReadonlyMap<string, number>
  /** For some three characters the words that begin with them. */
  readonly #buckets = new Map<number, number[]>()
  #table: number | null = null

  /** @throws {RangeError} when a word is shorter than two characters, or there are too many */
  constructor(words: readonly string[]) {
    this.#words = [...new Set(words)]
    this.#indices = new Map(this.#words.map((word, index) => [word, index]))
    for (const [index, word] of this.#words.entries()) {
      if (word.length < 2) throw new RangeError(`"${word}" is too short to look for`)
      const begin = gramOf(word.charCodeAt(0), word.charCodeAt(1), word.length > 2 ? word.charCodeAt(2) : 0)
      // Behind a word of two characters anything may stand.
      for (let last = 0; last < (word.length > 2 ? 1 : 32); last++) this.#add(begin + last, index)
    }
    if (this.#buckets.size >= mostBuckets) throw new RangeError('too many words to look for')
  }

  /** Where the words stand in a text. */
  in(text: string): Mentions {
    this.#table ??= keep(this.#inBytes())
    return new Mentions(text, this.#indices, find(text, this.#table))
  }

  #add(gram: number, word: number): void {
    const known = this.#buckets.get(gram)
    if (known) known.push(word)
    else this.#buckets.set(gram, [word])
  }

  /** The table of these words that the scanner looks into; `scanner/words.ts` says its form. */
  #inBytes(): Uint8Array {
    const buckets = [...this.#buckets.values()].map((bucket) => [
      ...bucket.flatMap((word) => this.#entry(word)),
      0,
    ])
    const head = grams / 4 + mostBuckets
    const table = new Int32Array(head + buckets.reduce((sum, { length }) => sum + length, 0))
    const bytes = new Uint8Array(table.buffer)
    let at = head
    for (const [index, gram] of [...this.#buckets.keys()].entries()) {
      bytes[gram] = index + 1
      table[grams / 4 + index + 1] = at * 4
      table.set(buckets[index] ?? [], at)
      at += buckets[index]?.length ?? 0
    }
    return bytes
  }

  /** How many units a word has, its number, and its units, two in a number. */
  #entry(index: number): number[] {
    const word = this.#words[index] ?? ''
    const units = Array.from({ length: (word.length + 1) >> 1 }, (_, pair) => {
      return word.charCodeAt(pair * 2) | ((word.charCodeAt(pair * 2 + 1) || 0) << 16)
    })
    return [word.length, index, ...units]
  }
}

function gramOf(first: number, second: number, third: number): number {
  return ((first & 31) << 10) | ((second & 31) << 5) | (third & 31)
}

const nowhere: readonly number[] = []

/** Where words of a list stand in a text. */
export class Mentions {
  readonly #text: string
  readonly #indices: ReadonlyMap<string, number>
  readonly #hits: Int32Array
  #byWord: (number[] | undefined)[] | null = null

  /** @param found for each mention the index of its word and its offset */
  constructor(text: string, indices: ReadonlyMap<string, number>, found: Int32Array) {
    this.#text = text
    this.#indices = indices
    this.#hits = found
  }

  /** The offsets of a word, in letters of either case. @throws {RangeError} when it is not of the list */
  ofAnyCase(word: string): readonly number[] {
    const index = this.#indices.get(word)
    if (index === undefined) throw new RangeError(`"${word}" was not looked for`)
    return this.#sorted()[index] ?? nowhere
  }

  /** The offsets of a word as it is written. @throws {RangeError} when it is not of the list */
  of(word: string): readonly number[] {
    return this.ofAnyCase(word).filter((at) => this.#text.startsWith(word, at))
  }

  /** Whether a word is there as it is written. @throws {RangeError} when it is not of the list */
  has(word: string): boolean {
    return this.ofAnyCase(word).some((at) => this.#text.startsWith(word, at))
  }

  /** The offsets of any of some words as they are written, in order. */
  ofAll(words: readonly string[]): number[] {
    return words.flatMap((word) => this.of(word)).sort((a, b) => a - b)
  }

  #sorted(): readonly (readonly number[] | undefined)[] {
    if (this.#byWord !== null) return this.#byWord
    const found: (number[] | undefined)[] = []
    for (let i = 0; i < this.#hits.length; i += 2) {
      const [word, at] = [this.#hits[i] ?? 0, this.#hits[i + 1] ?? 0]
      const known = found[word]
      if (known) known.push(at)
      else found[word] = [at]
    }
    this.#byWord = found
    return found
  }
}
