import type { Particulars } from '../../core/model/facts.ts'
import { type Texts, textIdsIn, translateReferences } from '../../core/model/reference-list.ts'
import type { Search } from '../../core/model/search.ts'
import { base64SpellingsOf, spellingsOf } from '../../core/model/spellings.ts'
import { keptFile, load, save } from './sealed-file.ts'

/** Facts that are the same wherever the content is. */
export interface CachedFacts {
  readonly numbers: Uint32Array
  /** Null where there are none. */
  readonly rest: Particulars | null
}

/** The form in which it is written. A change of the form, or of what is read, needs another number. */
const form = 33

interface Written {
  readonly form: number
  readonly version: string
  readonly keys: readonly string[]
  /** What the system said of each path when its content had a key, and the index of that key. */
  readonly stamps: ReadonlyMap<string, { readonly stamp: string; readonly index: number }>
  /** When this was written; milliseconds since the epoch. */
  readonly at: number
  readonly texts: readonly string[]
  /** All references, one file's after the other's, and how many numbers each has. */
  readonly numbers: Uint32Array
  readonly lengths: Uint32Array
  /** The little else that few files have, by their index. */
  readonly rest: ReadonlyMap<number, Particulars>
}

/** What the system tells of a file without reading it. */
export interface Stamp {
  readonly stamp: string
  /** The last change of content or inode; milliseconds since the epoch. */
  readonly changed: number
}

/** A file's key, and what the system reported of the file when it was read. */
export interface StampedKey {
  readonly key: string
  readonly stamp: string
}

/** Clocks of file systems may stand still for so long; milliseconds. */
const clockGrain = 2_000

/**
 * What was read of a folder before, by the content of its files. It is in the user's cache directory, holds no value
 * of any variable, and may be deleted at any time.
 */
export class FactsCache {
  readonly #file: string
  readonly #version: string
  readonly #found: Written | null
  readonly #index = new Map<string, number>()
  readonly #starts: number[] = []

  readonly #salt: Buffer
  readonly #secrets: readonly string[]

  private constructor(
    { file, salt }: { readonly file: string; readonly salt: Buffer },
    version: string,
    found: Written | null,
    secrets: readonly string[],
  ) {
    this.#secrets = secrets
    this.#salt = salt
    this.#file = file
    this.#version = version
    this.#found = found
    let start = 0
    for (const [index, key] of (found?.keys ?? []).entries()) {
      this.#index.set(key, index)
      this.#starts.push(start)
      start += found?.lengths[index] ?? 0
    }
  }

  /** The cache of one folder. What was searched for is part of the name, by a hash that only this machine can make. */
  static open(directory: string, folder: string, search: Search, version: string): FactsCache {
    const { file, salt } = keptFile(directory, 'facts', folder, search)
    const found = load<Written>(file, salt)
    const isOurs = found?.form === form && found.version === version
    return new FactsCache({ file, salt }, version, isOurs ? found : null, secretsOf(search))
  }

  get keys(): readonly string[] {
    return this.#found?.keys ?? []
  }

  /** The texts that the numbers of {@link get} stand for. */
  get texts(): readonly string[] {
    return this.#found?.texts ?? []
  }

  get(key: string): CachedFacts | null {
    const index = this.#index.get(key)
    if (index === undefined || this.#found === null) return null
    const start = this.#starts[index] ?? 0
    const numbers = this.#found.numbers.subarray(start, start + (this.#found.lengths[index] ?? 0))
    return { rest: this.#found.rest.get(index) ?? null, numbers }
  }

  /**
   * The key of a file that is as it was, by all that the system tells of it: size, inode, and the times of content and
   * inode. A change as old as the cache itself could hide in the clock's grain, so such a file is read again.
   */
  keyOf(path: string, { stamp, changed }: Stamp): string | null {
    const known = this.#found?.stamps.get(path)
    if (!this.#found || known?.stamp !== stamp || changed > this.#found.at - clockGrain) return null
    return this.#found.keys[known.index] ?? null
  }

  /** Writes what is known now. Facts that hold a secret text are left out; a disk that is full is no failure. */
  write(
    facts: ReadonlyMap<string, CachedFacts>,
    stamped: ReadonlyMap<string, StampedKey>,
    texts: Texts,
  ): void {
    const isSecret = secretsIn(texts, this.#secrets)
    const indices = new Map<string, number>()
    const keys: string[] = []
    const particulars = new Map<number, Particulars>()
    const kept: Uint32Array[] = []
    for (const [key, { numbers, rest }] of facts) {
      if (isSecret(numbers, rest)) continue
      if (rest) particulars.set(keys.length, rest)
      indices.set(key, keys.length)
      keys.push(key)
      kept.push(numbers)
    }
    const stamps = new Map<string, { stamp: string; index: number }>()
    for (const [path, { key, stamp }] of stamped) {
      const index = indices.get(key)
      if (index !== undefined) stamps.set(path, { stamp, index })
    }
    const used = onlyUsed(kept, texts)
    const written: Written = {
      form,
      version: this.#version,
      at: Date.now(),
      keys,
      stamps,
      rest: particulars,
      ...used,
    }
    save(this.#file, this.#salt, written)
  }
}

/** The texts that no file of ours holds, in every spelling. */
export function secretsOf({ secrets }: Search): string[] {
  return secrets.flatMap((each) => [...spellingsOf(each), ...base64SpellingsOf(each)])
}

/** Renumbers the texts, so that only those that are used are written. */
function onlyUsed(
  kept: readonly Uint32Array[],
  texts: Texts,
): Pick<Written, 'texts' | 'numbers' | 'lengths'> {
  const lengths = Uint32Array.from(kept, (numbers) => numbers.length)
  const numbers = new Uint32Array(lengths.reduce((sum, length) => sum + length, 0))
  let at = 0
  for (const part of kept) {
    numbers.set(part, at)
    at += part.length
  }
  const ids = new Uint32Array(texts.all.length)
  const list: string[] = []
  const use = (id: number): void => {
    if (ids[id] !== 0) return
    list.push(texts.text(id))
    ids[id] = list.length
  }
  for (const id of textIdsIn(numbers)) use(id)
  translateReferences(
    numbers,
    ids.map((id) => Math.max(0, id - 1)),
  )
  return { texts: list, numbers, lengths }
}

function secretsIn(
  texts: Texts,
  secrets: readonly string[],
): (numbers: Uint32Array, rest: Particulars | null) => boolean {
  if (secrets.length === 0) return () => false
  const holds = (text: string): boolean => secrets.some((secret) => text.includes(secret))
  const marked = new Set<number>()
  for (const [id, text] of texts.all.entries()) if (holds(text)) marked.add(id)
  return (numbers, rest) => {
    if (holdsAny(rest, holds)) return true
    if (marked.size === 0) return false
    for (const id of textIdsIn(numbers)) if (marked.has(id)) return true
    return false
  }
}

/** Whether any text in a value, however deep, is one of these. */
export function holdsAny(value: unknown, holds: (text: string) => boolean): boolean {
  if (typeof value === 'string') return holds(value)
  if (typeof value !== 'object' || value === null) return false
  return Object.values(value).some((each) => holdsAny(each, holds))
}
