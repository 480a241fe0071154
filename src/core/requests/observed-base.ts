import type { FileFacts } from '../model/facts.ts'
import { directoryOf, joinPath } from '../model/folder.ts'
import { markerIn } from '../model/marker.ts'
import { type ReferenceKind, withoutQuery } from '../model/reference.ts'
import { requestsIn } from '../model/reference-list.ts'
import type { FolderIndex } from './folder-index.ts'

/** The base path the output shows, with how much speaks for it. */
export interface ObservedBase {
  /** With a slash at both ends. */
  readonly base: string
  /** Distinct files that are requested below it. */
  readonly votes: number
  /** A file and offset that show it. */
  readonly file: string
  readonly offset: number
}

/** A bundler's own constant speaks for every chunk it loads. */
const constantVotes = 3

/**
 * Decides the base path by evidence: the prefix under which root-absolute references meet files of this folder,
 * and the constants bundlers write. Never the first `/x/` seen: a hand-written link may disagree with the build.
 */
export function observeBase(facts: readonly FileFacts[], index: FolderIndex): ObservedBase | null {
  const election = new Election(index)
  for (const file of facts) election.hear(file)
  return election.winner()
}

const loading: ReadonlySet<ReferenceKind> = new Set(['script', 'style', 'preload'])

interface Candidate {
  readonly files: Set<string>
  /** Those that pages load as scripts and styles: where a builder puts the base path, whoever wrote the others. */
  readonly loaded: Set<string>
  readonly file: string
  readonly offset: number
  extra: number
}

class Election {
  readonly #index: FolderIndex
  readonly #candidates = new Map<string, Candidate>()
  /** Files that pages request by relative URLs. Scripts import one another so under any base path. */
  readonly #relative = new Set<string>()
  /** Sites repeat their URLs: one that was heard tells nothing new. */
  readonly #heard = new Set<string>()

  constructor(index: FolderIndex) {
    this.#index = index
  }

  hear({ path, kind, references, bundleBase, baseHref }: FileFacts): void {
    if (bundleBase?.startsWith('/')) {
      this.#candidate(this.#above(bundleBase), path, 0).extra += constantVotes
    }
    for (const { raw, kind: what, offset, sure } of requestsIn(references)) {
      // With `<base href>`, relative URLs speak for it: they are meant from the top of the folder.
      if (baseHref?.startsWith('/')) this.#hearBased(baseHref, raw, path, offset)
      if (what === 'base') continue
      // A text that nothing is seen to request elects nobody.
      if (what === 'named' && sure !== true && kind === 'script') continue
      if (raw.charCodeAt(0) === 47)
        this.#hearAbsolute(raw, path, offset, kind === 'page' && loading.has(what))
      else if (kind === 'page' && baseHref === null && what !== 'named') this.#hearRelative(raw, path)
    }
  }

  /** Where the folder is, when a bundler's files are in a directory of it: `/b/` for `/b/_build/`. */
  #above(bundleBase: string): string {
    for (let at = 0; at >= 0; at = bundleBase.indexOf('/', at + 1)) {
      const directory = bundleBase.slice(at + 1, -1)
      if (directory !== '' && this.#index.isDirectory(directory)) return bundleBase.slice(0, at + 1)
    }
    return bundleBase
  }

  #hearBased(baseHref: string, raw: string, path: string, offset: number): void {
    const file = withoutQuery(raw)
    if (this.#index.has(file)) this.#candidate(baseHref, path, offset).files.add(file)
  }

  #hearAbsolute(raw: string, path: string, offset: number, isLoaded: boolean): void {
    if (this.#heard.has(raw) || raw.startsWith('//')) return
    this.#heard.add(raw)
    const tail = this.#index.tailOf(withoutQuery(raw))
    if (!tail || markerIn(tail.prefix) !== null) return
    const candidate = this.#candidate(tail.prefix, path, offset)
    candidate.files.add(tail.file)
    if (isLoaded) candidate.loaded.add(tail.file)
  }

  #hearRelative(raw: string, path: string): void {
    if (/^[a-z]+:/i.test(raw)) return
    const file = joinPath(directoryOf(path), withoutQuery(raw))
    if (this.#index.has(file)) this.#relative.add(file)
  }

  #candidate(base: string, file: string, offset: number): Candidate {
    const known = this.#candidates.get(base) ?? {
      files: new Set(),
      loaded: new Set(),
      extra: 0,
      file,
      offset,
    }
    this.#candidates.set(base, known)
    return known
  }

  winner(): ObservedBase | null {
    const found = [...this.#candidates].map(([base, { files, loaded, extra, file, offset }]) => ({
      base,
      votes: files.size + extra,
      builders: loaded.size,
      file,
      offset,
    }))
    // What sources write out by hand may be more, and say less.
    found.sort((a, b) => b.builders - a.builders || b.votes - a.votes)
    // A build of relative URLs has no base path, whatever a string in it looks like.
    const best = found.find(({ votes }) => votes > this.#relative.size)
    if (best === undefined) return null
    const { builders: _, ...observed } = best
    return observed
  }
}
