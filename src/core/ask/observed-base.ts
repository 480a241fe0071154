import type { FileFacts } from '../model/facts.ts'
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
  for (const { path, references, bundleBase } of facts) {
    if (bundleBase?.startsWith('/')) vote(bundleBase, path, 0).extra += constantVotes
    for (const { raw, kind, offset } of references) {
      if (kind === 'page' || !raw.startsWith('/') || raw.startsWith('//')) continue
      const tail = index.tailOf(raw.replace(/[?#].*$/, ''))
      if (tail) vote(tail.prefix, path, offset).files.add(tail.file)
    }
  }
  let best: ObservedBase | null = null
  for (const [base, { files, extra, file, offset }] of seen) {
    const votes = files.size + extra
    if (!best || votes > best.votes) best = { base, votes, file, offset }
  }
  return best
}
