import type { FileFacts } from '../model/facts.ts'
import type { Requested } from './request.ts'

/** The pages, the scripts that one starts, and all that these import. What a page only may start is left out. */
export function loadedByPages(facts: readonly FileFacts[], loads: Requested['loads']): ReadonlySet<string> {
  const found = new Set(facts.filter(({ kind }) => kind === 'page').map(({ path }) => path))
  // A set is walked in the order in which it grows.
  for (const path of found) {
    for (const target of loads.get(path) ?? []) if (/\.[cm]?js$/.test(target)) found.add(target)
  }
  return found
}
