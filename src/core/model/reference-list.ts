import { type Against, kindsByWeight, type Reference, type ReferenceKind } from './reference.ts'

/** The references of one file, in the order in which they are written. An array is one; so is a packed list. */
export interface ReferenceList extends Iterable<Reference> {
  readonly length: number
}

/** Every URL of a folder, once. The pages of a site repeat one another's links. */
export class Texts {
  readonly #list: string[]
  readonly #ids = new Map<string, number>()
  readonly #judged = new Map<(text: string) => boolean, (boolean | undefined)[]>()

  constructor(list: readonly string[] = []) {
    this.#list = [...list]
    for (const [id, text] of this.#list.entries()) this.#ids.set(text, id)
  }

  /** The number of a text, given anew when it was not seen before. */
  idOf(text: string): number {
    const known = this.#ids.get(text)
    if (known !== undefined) return known
    const id = this.#list.length
    this.#list.push(text)
    this.#ids.set(text, id)
    return id
  }

  /** The same question of texts by their numbers: each is asked once. */
  judgedBy(judge: (text: string) => boolean): (id: number) => boolean {
    let known = this.#judged.get(judge)
    if (!known) {
      known = []
      this.#judged.set(judge, known)
    }
    const answers = known
    return (id) => {
      answers[id] ??= judge(this.text(id))
      return answers[id] === true
    }
  }

  text(id: number): string {
    return this.#list[id] ?? ''
  }

  get all(): readonly string[] {
    return this.#list
  }
}

const starts: readonly Against[] = ['document', 'file', 'bundle-base', 'page', 'site', 'map', 'behind']
const kindIds = new Map(kindsByWeight.map((kind, id) => [kind, id]))

/** Where a person goes on, which no page requests by itself. Pages have many more of these than of all others. */
function isLink(kind: ReferenceKind): boolean {
  return kind === 'page' || kind === 'navigation'
}

const links = new Set(kindsByWeight.filter(isLink).map((kind) => kindsByWeight.indexOf(kind)))
const noLinks: ReadonlySet<number> = new Set()

/** Numbers a reference takes: its text, its integrity (0 for none, else one more than its text's), kind and start, offset, length. */
const width = 5

/** Below the kind stand one bit for `classic`, three for the start and one each for `later` and `sure`. */
const kindBits = 6
const classicBit = 32

/**
 * References as numbers. A folder of a hundred thousand pages has millions, and as objects they would fill the memory.
 */
export class PackedReferences implements ReferenceList {
  readonly length: number
  readonly #texts: Texts
  readonly #numbers: Uint32Array
  /** One bit for each kind; below 0 where nobody has asked. */
  #kinds = -1

  constructor(texts: Texts, numbers: Uint32Array) {
    this.#texts = texts
    this.#numbers = numbers
    this.length = numbers.length / width
  }

  [Symbol.iterator](): Iterator<Reference> {
    return this.#iterate(noLinks, null)
  }

  /** All but the links that `keep` does not want; those cost nothing. */
  withoutLinks(keep: (raw: string) => boolean): IterableIterator<Reference> {
    return this.#iterate(links, keep)
  }

  /** Those of one kind, each put together only where it is asked for. */
  forEachOf(kind: ReferenceKind, visit: VisitReference): void {
    const numbers = this.#numbers
    const wanted = kindIds.get(kind) ?? -1
    if (!this.#holds(wanted)) return
    for (let at = 0; at < numbers.length; at += width) {
      if ((numbers[at + 2] ?? 0) >> kindBits !== wanted) continue
      const id = numbers[at] ?? 0
      visit(this.#texts.text(id), at, id)
    }
  }

  /** Most lists have no reference of most kinds: one look at all tells that of every kind. */
  #holds(kind: number): boolean {
    if (this.#kinds < 0) {
      this.#kinds = 0
      for (let at = 2; at < this.#numbers.length; at += width)
        this.#kinds |= 1 << ((this.#numbers[at] ?? 0) >> kindBits)
    }
    return (this.#kinds & (1 << kind)) !== 0
  }

  *#iterate(skipped: ReadonlySet<number>, keep: ((raw: string) => boolean) | null): Generator<Reference> {
    const numbers = this.#numbers
    const isKept = keep && this.#texts.judgedBy(keep)
    for (let at = 0; at < numbers.length; at += width) {
      const isSkipped = skipped.has((numbers[at + 2] ?? 0) >> kindBits)
      if (!isSkipped || isKept?.(numbers[at] ?? 0)) yield this.at(at)
    }
  }

  /** The reference whose numbers begin there. */
  at(at: number): Reference {
    const numbers = this.#numbers
    const bits = numbers[at + 2] ?? 0
    const integrity = numbers[at + 1] ?? 0
    const plain: Reference = {
      kind: kindsByWeight[bits >> kindBits] ?? 'named',
      raw: this.#texts.text(numbers[at] ?? 0),
      against: starts[(bits >> 2) & 7] ?? 'document',
      offset: numbers[at + 3] ?? 0,
      length: numbers[at + 4] ?? 0,
    }
    const sure = (bits & 1) === 1
    const later = (bits & 2) === 2
    // Few have any, and spreading costs more than all the rest.
    const classic = (bits & classicBit) !== 0
    if (!sure && !later && !classic && integrity === 0) return plain
    return {
      ...plain,
      ...(classic ? { classic } : {}),
      ...(sure ? { sure } : {}),
      ...(later ? { later } : {}),
      ...(integrity > 0 ? { integrity: this.#texts.text(integrity - 1) } : {}),
    }
  }
}

/** Is given a reference's URL as written, where it stands in its list, and the URL's number among all of the folder; -1 where it has none. */
export type VisitReference = (raw: string, at: number, id: number) => void

/** Visits the references of one kind. A site's pages have millions of links, and few of them are looked at. */
export function forEachOf(list: ReferenceList, kind: ReferenceKind, visit: VisitReference): void {
  if (list instanceof PackedReferences) {
    list.forEachOf(kind, visit)
    return
  }
  let at = 0
  for (const each of list) {
    if (each.kind === kind) visit(each.raw, at, -1)
    at++
  }
}

/** The reference at a place that {@link forEachOf} gave. */
export function referenceAt(list: ReferenceList, at: number): Reference {
  if (list instanceof PackedReferences) return list.at(at)
  return [...list][at] as Reference
}

const never = (): boolean => false

/** What a file makes a browser fetch by itself: its references without its links, but for those that `keep` wants. */
export function requestsIn(list: ReferenceList, keep: (raw: string) => boolean = never): Iterable<Reference> {
  if (list instanceof PackedReferences) return list.withoutLinks(keep)
  return [...list].filter(({ kind, raw }) => !isLink(kind) || keep(raw))
}

/** References as numbers, their texts entered into the table. */
export function packReferences(references: ReferenceList, texts: Texts): Uint32Array<ArrayBuffer> {
  const numbers = new Uint32Array(references.length * width)
  let at = 0
  for (const { kind, raw, against, offset, length, sure, later, classic, integrity } of references) {
    numbers[at] = texts.idOf(raw)
    numbers[at + 1] = integrity === undefined ? 0 : texts.idOf(integrity) + 1
    numbers[at + 2] =
      ((kindIds.get(kind) ?? 0) << kindBits) |
      (classic ? classicBit : 0) |
      (starts.indexOf(against) << 2) |
      (later ? 2 : 0) |
      (sure ? 1 : 0)
    numbers[at + 3] = offset
    numbers[at + 4] = length
    at += width
  }
  return numbers
}

/** The texts that packed references use, by their numbers. */
export function* textIdsIn(numbers: Uint32Array): Generator<number> {
  for (let at = 0; at < numbers.length; at += width) {
    yield numbers[at] ?? 0
    const integrity = numbers[at + 1] ?? 0
    if (integrity > 0) yield integrity - 1
  }
}

/** The same numbers in another table of texts. Changes them in place. */
export function translateReferences(numbers: Uint32Array, ids: Uint32Array): void {
  for (let at = 0; at < numbers.length; at += width) {
    numbers[at] = ids[numbers[at] ?? 0] ?? 0
    const integrity = numbers[at + 1] ?? 0
    if (integrity > 0) numbers[at + 1] = (ids[integrity - 1] ?? 0) + 1
  }
}
