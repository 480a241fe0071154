import type { FileFacts } from '../model/facts.ts'
import { directoryOf, joinPath } from '../model/folder.ts'
import { withoutQuery } from '../model/reference.ts'
import { requestsIn } from '../model/reference-list.ts'
import type { FolderIndex } from './folder-index.ts'

/** The base paths that bundlers wrote into their scripts. A folder may hold several applications, each with its own. */
export class BundleBases {
  readonly #known: readonly { readonly directory: string; readonly base: string }[]

  constructor(facts: readonly FileFacts[]) {
    this.#known = facts.flatMap(({ path, bundleBase }) =>
      bundleBase === null ? [] : [{ directory: directoryOf(path), base: bundleBase }],
    )
  }

  /** The base path that holds for a file: that of the script nearest to it. */
  for(path: string): string | null {
    let best: string | null = null
    let most = -1
    for (const { directory, base } of this.#known) {
      const shared = sharedSteps(directory, path)
      if (shared > most) [best, most] = [base, shared]
    }
    return best
  }
}

function sharedSteps(a: string, b: string): number {
  const left = a.split('/')
  const right = b.split('/')
  let count = 0
  while (count < left.length && count < right.length && left[count] === right[count]) count++
  return count
}

/**
 * Bundlers write chunk names in tables, below a directory that the loader puts before them when the page runs:
 * `static/chunks/4f2a.js` is `_next/static/chunks/4f2a.js` in the folder. Where the files are tells which directory,
 * and then a name of the same kind that matches no file is a missing one.
 */
export class ChunkRoots {
  readonly #index: FolderIndex
  readonly #votes = new Map<string, Map<string, number>>()

  constructor(facts: readonly FileFacts[], index: FolderIndex) {
    this.#index = index
    const seen = new Set<string>()
    for (const { references } of facts) {
      for (const { kind, raw, against } of requestsIn(references)) {
        if (kind !== 'named' || against === 'behind' || !isBare(raw) || seen.has(raw)) continue
        seen.add(raw)
        this.#learn(withoutQuery(raw))
      }
    }
  }

  /** The file that a bare name in a script means: one that is there, or one that should be; null when it is no file's name. */
  fileOf(raw: string, from: string): string | null {
    const name = withoutQuery(raw)
    if (this.#index.has(name)) return name
    const beside = joinPath(directoryOf(from), name)
    if (this.#index.has(beside)) return beside
    const roots = this.#votes.get(directoryOf(name))
    if (!roots) return null
    const ranked = [...roots].sort((a, b) => b[1] - a[1]).map(([root]) => root)
    const there = ranked.find((root) => this.#index.has(root + name))
    if (there !== undefined) return there + name
    const [likely] = ranked
    return likely !== undefined && this.#index.isOfKind(likely + name) ? likely + name : null
  }

  #learn(name: string): void {
    const directory = directoryOf(name)
    for (const file of this.#index.endingWith(name)) {
      const root = file.slice(0, file.length - name.length)
      const roots = this.#votes.get(directory) ?? new Map<string, number>()
      this.#votes.set(directory, roots)
      roots.set(root, (roots.get(root) ?? 0) + 1)
    }
  }
}

/** A name without a slash or point before it, and with no scheme. */
export function isBare(raw: string): boolean {
  return /^[\w@~(]/.test(raw) && !/^[a-z][a-z\d+.-]*:/i.test(raw)
}
