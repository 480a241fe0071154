import { createHash } from 'node:crypto'
import { FolderError } from '../../core/model/errors.ts'
import { type FileFacts, type Particulars, particularsOf } from '../../core/model/facts.ts'
import type { Folder } from '../../core/model/folder.ts'
import { packReferences, Texts } from '../../core/model/reference-list.ts'
import type { Search } from '../../core/model/search.ts'
import { kindOf, listedFile, readFile } from '../../core/output/read-file.ts'
import { listed, notRead } from '../../core/output/reader.ts'

/** What one file turned out to be, its references apart. */
export interface BatchFile extends Pick<FileFacts, 'path' | 'kind' | 'size' | 'unread'> {
  /** Null where there are none, and where the cache knows them. */
  readonly rest: Particulars | null
  /** Kind and content, as the cache knows them; null for what was not read. */
  readonly key: string | null
  /** How many numbers of the batch are this file's; -1 when the cache knows the rest. */
  readonly numbers: number
}

/** What was read of some files, in a form that passes between threads as it is. */
export interface Batch {
  readonly files: readonly BatchFile[]
  readonly texts: readonly string[]
  readonly numbers: Uint32Array<ArrayBuffer>
}

/** Reads some files, leaving out what the cache knows and what was read before with the same content. */
export class BatchReader {
  readonly #build: Folder
  readonly #search: Search
  readonly #known: ReadonlySet<string> | null

  /** @param known what the cache knows; null where none is kept, and contents need no names */
  constructor(build: Folder, search: Search, known: ReadonlySet<string> | null) {
    this.#build = build
    this.#search = search
    this.#known = known
  }

  async read(paths: readonly string[]): Promise<Batch> {
    const texts = new Texts()
    const files: BatchFile[] = []
    const parts: Uint32Array[] = []
    let total = 0
    for (const path of paths) {
      const { file, numbers } = await this.#readOne(path, texts)
      files.push(file)
      parts.push(numbers)
      total += numbers.length
    }
    const numbers = new Uint32Array(total)
    let at = 0
    for (const part of parts) {
      numbers.set(part, at)
      at += part.length
    }
    return { files, texts: texts.all, numbers }
  }

  async #readOne(path: string, texts: Texts): Promise<{ file: BatchFile; numbers: Uint32Array }> {
    try {
      if (kindOf(path) === 'other') return without(await listed(this.#build, path))
      const bytes = await this.#build.read(path)
      const key = this.#known && `${kindOf(path)}:${createHash('sha1').update(bytes).digest('base64')}`
      if (key !== null && this.#known?.has(key))
        return { file: { ...headOf(listedFile(path, bytes.length)), key, numbers: -1 }, numbers: none }
      const facts = readFile(path, bytes, this.#search)
      const numbers = packReferences(facts.references, texts)
      return { file: { ...headOf(facts), rest: particularsOf(facts), key, numbers: numbers.length }, numbers }
    } catch (error) {
      if (error instanceof FolderError) return without(await notRead(this.#build, path, error))
      throw error
    }
  }
}

const none = new Uint32Array()

function without(facts: FileFacts): { file: BatchFile; numbers: Uint32Array } {
  return { file: { ...headOf(facts), key: null, numbers: 0 }, numbers: none }
}

function headOf({ path, kind, size, unread }: FileFacts): Omit<BatchFile, 'key' | 'numbers'> {
  return { path, kind, size, unread, rest: null }
}
