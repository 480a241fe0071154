import type { RouteAnswer } from '../model/report.ts'

/** What opening a route downloads before anybody does anything. */
export interface FirstVisit {
  /** The route that stands for all that begin with the same entry file. */
  readonly route: string
  readonly entryFile: string
  /** The entry file and all that it leads to, each once. */
  readonly files: readonly string[]
  /** As the files are in the folder. */
  readonly bytes: number
}

/**
 * Follows from each entry file what a browser fetches by itself: scripts and their static imports, style sheets, fonts
 * for Latin letters, pictures that do not wait, preloads. The heaviest first.
 * @param loads what each file makes a browser fetch at once
 */
export function firstVisitsOf(
  routes: readonly RouteAnswer[],
  loads: ReadonlyMap<string, ReadonlySet<string>>,
  sizeOf: (path: string) => number,
): FirstVisit[] {
  const visits = new Map<string, FirstVisit>()
  for (const { path, entryFile, status } of routes) {
    if (entryFile === null || status >= 400 || visits.has(entryFile)) continue
    const files = [...reach(entryFile, loads)]
    const bytes = files.reduce((sum, file) => sum + sizeOf(file), 0)
    visits.set(entryFile, { route: path, entryFile, files, bytes })
  }
  return [...visits.values()].sort((a, b) => b.bytes - a.bytes)
}

/** A file and all that it makes a browser fetch at once, each once. */
export function reach(entry: string, loads: ReadonlyMap<string, ReadonlySet<string>>): Set<string> {
  const found = new Set([entry])
  // A set is walked in the order in which it grows.
  for (const file of found) for (const next of loads.get(file) ?? []) found.add(next)
  return found
}
