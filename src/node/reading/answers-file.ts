import { createHash } from 'node:crypto'
import type { KeptAnswer, KeptAnswers } from '../../core/endpoints/kept-answers.ts'
import type { Search } from '../../core/model/search.ts'
import { holdsAny, secretsOf } from './facts-cache.ts'
import { type KeptFile, keptFile, load, save } from './sealed-file.ts'

/** The form in which it is written. A change of the form, or of what is followed, needs another number. */
const form = 5

interface Written {
  readonly form: number
  readonly version: string
  readonly answers: ReadonlyMap<string, KeptAnswer>
}

/** A folder that was read: where it is, what was searched for, and what names the contents of its files. */
export interface ReadFolder {
  readonly place: string
  readonly search: Search
  readonly version: string
  readonly keys: ReadonlyMap<string, string>
}

/** What was followed through the scripts of one folder before, in the user's cache directory. It holds no value of any variable. */
export class AnswersFile implements KeptAnswers {
  readonly #directory: string
  #folder: ReadFolder | null = null
  #file: KeptFile | null = null
  #found: ReadonlyMap<string, KeptAnswer> = new Map()
  #asked = new Map<string, KeptAnswer>()
  #secrets: readonly string[] = []
  #isNew = false
  all: string | null = null

  /** @param directory the cache directory */
  constructor(directory: string) {
    this.#directory = directory
  }

  /** A folder was read: what is asked from now on is asked of it. */
  readonly begin = (folder: ReadFolder): void => {
    const { place, search, version, keys } = folder
    const hash = createHash('sha256')
    for (const [path, key] of [...keys].sort(([a], [b]) => (a < b ? -1 : 1))) hash.update(`${path}\0${key}\0`)
    this.all = hash.digest('base64url').slice(0, 22)
    this.#folder = folder
    this.#file = keptFile(this.#directory, 'answers', place, search)
    const written = load<Written>(this.#file.file, this.#file.salt)
    this.#found = written?.form === form && written.version === version ? written.answers : new Map()
    this.#asked = new Map()
    this.#secrets = secretsOf(search)
    this.#isNew = false
  }

  keyOf(path: string): string | null {
    return this.#folder?.keys.get(path) ?? null
  }

  get(question: string): KeptAnswer | undefined {
    const known = this.#asked.get(question) ?? this.#found.get(question)
    if (known) this.#asked.set(question, known)
    return known
  }

  set(question: string, answer: KeptAnswer): void {
    if (holdsAny(answer, (text) => this.#secrets.some((secret) => text.includes(secret)))) return
    this.#asked.set(question, answer)
    this.#isNew = true
  }

  keep(): void {
    if (!this.#isNew || !this.#file || !this.#folder) return
    const written: Written = { form, version: this.#folder.version, answers: this.#asked }
    save(this.#file.file, this.#file.salt, written)
    this.#isNew = false
  }
}
