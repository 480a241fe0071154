import { answer } from '../host/answer.ts'
import type { Host } from '../host/host.ts'
import { isHashed } from '../model/fingerprint.ts'
import type { Site } from '../model/site.ts'
import { encodePath } from '../requests/addresses.ts'
import { FolderIndex } from '../requests/folder-index.ts'
import type { Release } from './release.ts'

/** Where the release is served, and by what rules. */
export interface Hosting {
  readonly site: Site
  readonly host: Host
}

/**
 * The paths that a cache may hold from the earlier release and that the later one answers otherwise, sorted. Requested of the
 * host model, so it holds every form in which a changed page is answered: its directory, its name without the ending, the
 * routes that a fallback answers with it. A name with a hash that is gone is left alone: nothing requests them for it but open tabs,
 * which need it.
 */
export function purgeList(earlier: Release, later: Release, { site, host }: Hosting): string[] {
  const [before, after] = [stateOf(earlier), stateOf(later)]
  return [...cachedPaths(earlier, after.index, site)]
    .filter((path) => contentAt(path, before, host, site) !== contentAt(path, after, host, site))
    .sort()
}

interface State {
  readonly index: FolderIndex
  readonly digests: ReadonlyMap<string, string>
}

function stateOf({ files }: Release): State {
  return { index: new FolderIndex(files), digests: new Map(files.map(({ path, digest }) => [path, digest])) }
}

/** What a request gets, in a form that can be compared. */
function contentAt(path: string, { index, digests }: State, host: Host, site: Site): string {
  const { status, file, location } = answer(host, site, index, path)
  return JSON.stringify([status, file === null ? null : digests.get(file), location])
}

const page = /\.html?$/

/** Every path under which the earlier release may have been requested, but for hashed files that are gone. */
function cachedPaths({ files, routes }: Release, now: FolderIndex, { base }: Site): Set<string> {
  const paths = new Set(routes.map(({ path }) => path))
  for (const { path } of files) {
    if (isHashed(path) && !page.test(path) && !now.has(path)) continue
    const address = base + encodePath(path)
    paths.add(address)
    if (!page.test(path)) continue
    const plain = address.replace(page, '')
    if (!/(?:^|\/)index$/.test(plain)) paths.add(plain)
    else {
      const directory = plain.slice(0, -'index'.length)
      paths.add(directory)
      if (directory !== base) paths.add(directory.slice(0, -1))
    }
  }
  return paths
}

/**
 * The path below which every request that no file answers gets another document than before, as a cache may hold any of
 * them; null when that stays.
 */
export function fallbackChange(earlier: Release, later: Release, { site, host }: Hosting): string | null {
  const unknown = `${site.base}no-file-answers-this/at-all`
  const [before, after] = [stateOf(earlier), stateOf(later)]
  const { status, by } = answer(host, site, after.index, unknown)
  if (status >= 400 && by !== 'not-found document') return null
  return contentAt(unknown, before, host, site) === contentAt(unknown, after, host, site) ? null : site.base
}

/** What a list of paths can't hold. */
export function belowInWords(path: string): string {
  return `The page for unknown paths changed too: purge whatever else a cache holds below ${path}.`
}
