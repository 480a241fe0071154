import ignore, { type Ignore } from 'ignore'
import { type Folder, joinPath } from '../model/folder.ts'
import { readText } from '../model/text.ts'

/** The `.gitignore` files on the way to a directory: what a project makes, as a rule. */
export class IgnoreRules {
  readonly #folder: Folder
  readonly #read = new Map<string, Promise<Ignore | null>>()

  constructor(folder: Folder) {
    this.#folder = folder
  }

  async has(directory: string): Promise<boolean> {
    const steps = directory.split('/')
    for (let depth = 0; depth < steps.length; depth++) {
      const rules = await this.#rulesIn(steps.slice(0, depth).join('/'))
      if (rules?.ignores(`${steps.slice(depth).join('/')}/`)) return true
    }
    return false
  }

  #rulesIn(directory: string): Promise<Ignore | null> {
    const known = this.#read.get(directory)
    if (known) return known
    const reading = readText(this.#folder, joinPath(directory, '.gitignore')).then((text) =>
      text === null ? null : ignore().add(text),
    )
    this.#read.set(directory, reading)
    return reading
  }
}
