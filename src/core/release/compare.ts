import { isHashed, withoutHash } from '../model/fingerprint.ts'
import { extensionOf } from '../model/folder.ts'
import type { Comparison } from '../model/report.ts'
import { groupedBy } from '../model/text.ts'
import { fallbackChange, type Hosting, purgeList } from './purge.ts'
import type { Release, ReleasedFile } from './release.ts'

/** Files written out of each sort; all are counted. */
const mostListed = 5_000

/** What a later release changes. */
export function compareReleases(earlier: Release, later: Release, hosting: Hosting): Comparison {
  const { kept, changed, renamed, added, gone } = sortFiles(earlier.files, later.files)
  const moved = moveOf(earlier, later)
  const elsewhere = earlier.base !== later.base
  const same = moved === null && changed.length + renamed.length + added.length + gone.length === 0
  return {
    same,
    moved,
    kept: kept.length,
    counts: { changed: changed.length, renamed: renamed.length, added: added.length, gone: gone.length },
    bytes: { before: sum(earlier.files), after: sum(later.files) },
    changed: changed.slice(0, mostListed).map(([before, after]) => pair(before, after)),
    renamed: renamed.slice(0, mostListed).map(([before, after]) => pair(before, after)),
    added: added.slice(0, mostListed).map(({ path, bytes }) => ({ path, bytes })),
    gone: gone.slice(0, mostListed).map(({ path, bytes }) => ({ path, bytes })),
    // At another base path every URL is another, and no cache holds one.
    purge: elsewhere ? [] : purgeList(earlier, later, hosting),
    purgeBelow: elsewhere ? null : fallbackChange(earlier, later, hosting),
    needNone: renamed.length + added.filter(({ path }) => isHashed(path)).length,
    rewritten: changed.filter(([before]) => isHashed(before.path)).map(([before]) => before.path),
    chunksGone: elsewhere ? [] : chunksGone(earlier, later),
    routes: difference(
      earlier.routes.filter(isOpen).map(({ path }) => below(path, earlier.base)),
      later.routes.filter(isOpen).map(({ path }) => below(path, later.base)),
    ),
    endpoints: difference(earlier.endpoints, later.endpoints),
    variables: difference(earlier.variables, later.variables),
    firstVisits: visitChanges(earlier, later),
  }
}

/** A site that is served under another path, or built for one. */
function moveOf(earlier: Release, later: Release): Comparison['moved'] {
  if (earlier.base !== later.base) return { from: earlier.base, to: later.base }
  const [from, to] = [earlier.observed, later.observed]
  return from !== null && to !== null && from !== to ? { from, to } : null
}

type Pair = readonly [before: ReleasedFile, after: ReleasedFile]

interface Sorted {
  readonly kept: readonly ReleasedFile[]
  readonly changed: readonly Pair[]
  /** The same file under another hash. */
  readonly renamed: readonly Pair[]
  readonly added: readonly ReleasedFile[]
  readonly gone: readonly ReleasedFile[]
}

function sortFiles(earlier: readonly ReleasedFile[], later: readonly ReleasedFile[]): Sorted {
  const before = new Map(earlier.map((file) => [file.path, file]))
  const after = new Map(later.map((file) => [file.path, file]))
  const kept: ReleasedFile[] = []
  const changed: Pair[] = []
  for (const file of later) {
    const old = before.get(file.path)
    if (old?.digest === file.digest) kept.push(file)
    else if (old) changed.push([old, file])
  }
  const lost = earlier.filter(({ path }) => !after.has(path))
  const won = later.filter(({ path }) => !before.has(path))
  const renamed = pairsByStem(lost, won)
  const paired = new Set(renamed.flat())
  return {
    kept,
    changed,
    renamed,
    added: won.filter((file) => !paired.has(file)),
    gone: lost.filter((file) => !paired.has(file)),
  }
}

/** Files whose names differ in nothing but the hash, one to one; where several could be meant, in their order. */
function pairsByStem(lost: readonly ReleasedFile[], won: readonly ReleasedFile[]): Pair[] {
  const hashed = won.filter(({ path }) => isHashed(path))
  const waiting = groupedBy(hashed, ({ path }) => withoutHash(path))
  return lost.flatMap((before): Pair[] => {
    if (!isHashed(before.path)) return []
    const after = waiting.get(withoutHash(before.path))?.shift()
    return after ? [[before, after]] : []
  })
}

/** What an open tab of the earlier release may still request. Data is requested anew by whatever runs; code is not. */
const chunk = new Set(['js', 'mjs', 'css', 'wasm'])

function chunksGone(earlier: Release, later: Release): string[] {
  const there = new Set(later.files.map(({ path }) => path))
  return earlier.files
    .filter(({ path, later: requested }) => requested && chunk.has(extensionOf(path)) && !there.has(path))
    .map(({ path }) => path)
}

function visitChanges(earlier: Release, later: Release): Comparison['firstVisits'] {
  const before = new Map(earlier.routes.map((route) => [below(route.path, earlier.base), route.download]))
  const seen = new Set<string>()
  const changes = later.routes.flatMap(({ path, entryFile, download }) => {
    const old = before.get(below(path, later.base))
    // Routes with the same entry file download the same.
    if (old == null || download === null || entryFile === null || seen.has(entryFile)) return []
    seen.add(entryFile)
    if (old === download) return []
    return [{ route: path, before: old, after: download }]
  })
  const change = (each: { before: number; after: number }): number => Math.abs(each.after - each.before)
  return changes.sort((a, b) => change(b) - change(a)).slice(0, mostListed)
}

function isOpen({ status }: { readonly status: number }): boolean {
  return status < 400
}

function below(path: string, base: string): string {
  return path.startsWith(base) ? `/${path.slice(base.length)}` : path
}

function difference(before: readonly string[], after: readonly string[]): { won: string[]; lost: string[] } {
  const [old, now] = [new Set(before), new Set(after)]
  return { won: [...now].filter((each) => !old.has(each)), lost: [...old].filter((each) => !now.has(each)) }
}

function pair(before: ReleasedFile, after: ReleasedFile): Comparison['changed'][number] {
  return { path: after.path, was: before.path, before: before.bytes, after: after.bytes }
}

function sum(files: readonly ReleasedFile[]): number {
  return files.reduce((all, { bytes }) => all + bytes, 0)
}
