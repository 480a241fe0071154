import { type Units, unitsOf } from './units.ts'

/** Three characters in a row, of each the lower five bits, in which letters of both cases are the same. */
const grams = 1 << 15

/** Hits of one text; grows as needed, and is used again: texts are gone through one after the other. */
let hits = new Int32Array(1 << 12)

/**
 * Words that are looked for in a text, all in one pass: at each character one look into a table tells whether any of them may begin two
 * characters before. Letters of both cases are the same in the pass; a word that is asked for as it is written is compared then.
 */
export class WordList {
  readonly #words: readonly string[]
  readonly #indices: ReadonlyMap<string, number>
  /** For each three characters the bucket of the words that begin with them, from one on; none for nearly all. */
  readonly #bucketOf = new Uint8Array(grams)
  readonly #buckets: number[][] = [[]]

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
  }

  /** Where the words stand in a text. */
  in(text: string): Mentions {
    const units = unitsOf(text)
    const [bucketOf, end] = [this.#bucketOf, text.length + 1]
    let gram = gramOf(0, units[0] as number, units[1] as number)
    let count = 0
    for (let i = 2; i < end; i++) {
      gram = ((gram << 5) | ((units[i] as number) & 31)) & (grams - 1)
      const bucket = bucketOf[gram] as number
      if (bucket !== 0) count = this.#verify(units, i - 2, bucket, count)
    }
    return new Mentions(text, this.#indices, hits.slice(0, count))
  }

  #add(gram: number, word: number): void {
    const known = this.#bucketOf[gram] ?? 0
    if (known === 0) {
      this.#bucketOf[gram] = this.#buckets.push([word]) - 1
      if (this.#buckets.length > 256) throw new RangeError('too many words to look for')
    } else this.#buckets[known]?.push(word)
  }

  /** Notes the words of a bucket that stand there. @returns how many numbers are noted then */
  #verify(units: Units, at: number, bucket: number, before: number): number {
    let count = before
    for (const index of this.#buckets[bucket] as number[]) {
      if (!standsAt(units, at, this.#words[index] as string)) continue
      if (count + 2 > hits.length) hits = grown(hits)
      hits[count++] = index
      hits[count++] = at
    }
    return count
  }
}

function gramOf(first: number, second: number, third: number): number {
  return ((first & 31) << 10) | ((second & 31) << 5) | (third & 31)
}

/** Behind the end of a text are zeros, which no word holds. */
function standsAt(units: Units, at: number, word: string): boolean {
  for (let i = 0; i < word.length; i++) {
    const unit = units[at + i] as number
    const letter = word.charCodeAt(i)
    if (unit !== letter && ((unit ^ letter) !== 32 || !isLetter(letter))) return false
  }
  return true
}

function isLetter(code: number): boolean {
  const small = code | 32
  return small >= 97 && small <= 122
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

function grown(full: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(full.length * 2)
  larger.set(full)
  return larger
}
