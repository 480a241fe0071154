import type { FileFacts } from '../model/facts.ts'
import { markerIn } from '../model/marker.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { wellFormed } from '../model/text.ts'

/** Directories that one document is tried in; more depths tell nothing more. */
const mostAddresses = 64

/**
 * Where each document is served: its own address, and each route it answers. Of addresses in one directory, from which
 * every URL resolves alike, the first stands for all.
 */
export function addressesOf(
  site: Site,
  facts: readonly FileFacts[],
  routes: readonly RouteAnswer[],
): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, string[]>()
  for (const { path, kind } of facts) {
    if (kind === 'page') found.set(path, [site.address + encodePath(pageAddress(path))])
  }
  for (const { path, entryFile, redirects } of routes) {
    const known = entryFile === null ? undefined : found.get(entryFile)
    // A page is where its redirects end: its URLs start from there.
    const address = site.origin + (redirects.at(-1) ?? path)
    if (
      known &&
      known.length < mostAddresses &&
      !known.some((each) => directoryOfUrl(each) === directoryOfUrl(address))
    )
      known.push(address)
  }
  return found
}

function directoryOfUrl(address: string): string {
  return address.slice(0, address.lastIndexOf('/') + 1)
}

/** What a file's URLs start from at an address: its first `<base>`, unless that still waits for a value. */
export function baseAt({ baseHref }: Pick<FileFacts, 'baseHref'>, address: string): string {
  if (baseHref === null || markerIn(baseHref) !== null || !URL.canParse(baseHref, address)) return address
  const { protocol, href } = new URL(baseHref, address)
  // Browsers pass over such a base (HTML standard, 4.2.3 "set the frozen base URL").
  return protocol === 'data:' || protocol === 'javascript:' ? address : href
}

/** The path a page is linked by: a directory index goes by its directory. */
export function pageAddress(path: string): string {
  return path.replace(/(^|\/)index\.html$/, '$1')
}

const plainPath = /^[\w./~-]*$/

/** A file path as it stands in a URL. */
export function encodePath(path: string): string {
  return plainPath.test(path) ? path : wellFormed(path).split('/').map(encodeURIComponent).join('/')
}
