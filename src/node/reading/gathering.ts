import { type FileFacts, type FileHead, factsOf, noParticulars } from '../../core/model/facts.ts'
import { PackedReferences, Texts, translateReferences } from '../../core/model/reference-list.ts'
import { listedFile } from '../../core/output/read-file.ts'
import type { Batch, BatchFile } from './batch.ts'
import type { CachedFacts, FactsCache, StampedKey } from './facts-cache.ts'
import type { SizedStamp } from './parallel-reader.ts'

/** Puts together what was read now and what the cache knew. */
export class Gathering {
  readonly #texts: Texts
  readonly #cache: FactsCache | null
  readonly #stamps: ReadonlyMap<string, SizedStamp>
  readonly #facts = new Map<string, FileFacts>()
  readonly #known = new Map<string, CachedFacts>()
  readonly #stamped = new Map<string, StampedKey>()
  #news = 0

  constructor(cache: FactsCache | null, stamps: ReadonlyMap<string, SizedStamp>) {
    this.#cache = cache
    this.#stamps = stamps
    // Cached numbers stay as they are: the table begins with their texts.
    this.#texts = new Texts(cache?.texts ?? [])
  }

  /** Takes a file from the cache without reading it, when it is as it was. */
  addKnown(path: string): boolean {
    const stamp = this.#stamps.get(path)
    const key = stamp ? (this.#cache?.keyOf(path, stamp) ?? null) : null
    const cached = key === null ? null : (this.#cache?.get(key) ?? null)
    if (!stamp || !cached || key === null) return false
    this.#put(listedFile(path, stamp.size), key, cached)
    return true
  }

  /** Takes in one batch; returns how many files there are now. */
  add({ files, texts, numbers }: Batch): number {
    translateReferences(
      numbers,
      Uint32Array.from(texts, (text) => this.#texts.idOf(text)),
    )
    let at = 0
    for (const file of files) {
      const length = Math.max(0, file.numbers)
      this.#addFile(file, numbers.subarray(at, at + length))
      at += length
    }
    return this.#facts.size
  }

  #addFile(file: BatchFile, own: Uint32Array): void {
    const { key, numbers: count, rest } = file
    const cached = count < 0 && key !== null ? (this.#cache?.get(key) ?? null) : null
    this.#news++
    this.#put(file, key, cached ?? { rest, numbers: own })
  }

  #put(file: FileHead, key: string | null, known: CachedFacts): void {
    const { path } = file
    const stamp = this.#stamps.get(path)?.stamp
    if (key !== null) {
      this.#known.set(key, known)
      if (stamp !== undefined) this.#stamped.set(path, { key, stamp })
    }
    const references = new PackedReferences(this.#texts, known.numbers)
    this.#facts.set(path, factsOf(file, references, known.rest ?? noParticulars))
  }

  /** What names the content of each file. */
  get keys(): Map<string, string> {
    return new Map([...this.#stamped].map(([path, { key }]) => [path, key]))
  }

  /** Keeps what is known for the next run, when there is anything new in it. */
  keep(): void {
    if (this.#news > 0) this.#cache?.write(this.#known, this.#stamped, this.#texts)
  }

  inOrder(paths: readonly string[]): FileFacts[] {
    return paths.flatMap((path) => this.#facts.get(path) ?? [])
  }
}
