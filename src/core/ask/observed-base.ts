import type { FileFacts } from '../model/facts.ts'
import { directoryOf, joinPath } from '../model/folder.ts'
import type { FolderIndex } from './folder-index.ts'

/** The base path the output shows, with how much speaks for it. */
export interface ObservedBase {
  /** With a slash at both ends. */
  readonly base: string
  /** Distinct files that are asked for below it. */
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
  const seen = new Map<string, { files: Set<string>; extra: number; file: string; offset: number }>()
  const vote = (base: string, file: string, offset: number): { files: Set<string>; extra: number } => {
    const known = seen.get(base) ?? { files: new Set(), extra: 0, file, offset }
    seen.set(base, known)
    return known
  }
  for (const { path, references, bundleBase, baseHref } of facts) {
    if (bundleBase?.startsWith('/')) vote(bundleBase, path, 0).extra += constantVotes
    // With `<base href>`, relative URLs speak for it: they are meant from the top of the folder.
    if (baseHref?.startsWith('/')) {
      for (const { raw, offset } of references) {
        const file = raw.replace(/[?#].*$/, '')
        if (index.has(file)) vote(baseHref, path, offset).files.add(file)
      }
    }
    for (const { raw, kind, offset } of references) {
      if (kind === 'page' || !raw.startsWith('/') || raw.startsWith('//')) continue
      const tail = index.tailOf(raw.replace(/[?#].*$/, ''))
      if (tail) vote(tail.prefix, path, offset).files.add(tail.file)
    }
  }
  let best: ObservedBase | null = null
  const relative = relativeVotes(facts, index)
  for (const [base, { files, extra, file, offset }] of seen) {
    const votes = files.size + extra
    // A build of relative URLs has no base path, whatever a string in it looks like.
    if (votes > (best?.votes ?? relative)) best = { base, votes, file, offset }
  }
  return best
}

/** Files that pages and style sheets ask for by relative URLs. Scripts import one another so under any base path. */
function relativeVotes(facts: readonly FileFacts[], index: FolderIndex): number {
  const files = new Set<string>()
  for (const { path, kind, references, baseHref } of facts) {
    if (kind !== 'page' || baseHref !== null) continue
    for (const { raw, kind: what } of references) {
      if (what === 'page' || what === 'named' || /^(?:\/|[a-z]+:)/i.test(raw)) continue
      const file = joinPath(directoryOf(path), raw.replace(/[?#].*$/, ''))
      if (index.has(file)) files.add(file)
    }
  }
  return files.size
}
