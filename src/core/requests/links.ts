import type { FileFacts } from '../model/facts.ts'
import type { Reference } from '../model/reference.ts'
import type { Site } from '../model/site.ts'
import { baseAt, encodePath, pageAddress } from './addresses.ts'
import type { Resolver } from './resolver.ts'

/** A path of this site that pages lead to. */
export interface Link {
  readonly pathname: string
  /** The first places; all are counted. */
  readonly places: { readonly file: string; readonly reference: Reference }[]
  count: number
}

/** More places of one link tell nobody more. */
const mostPlaces = 100

/** The paths of this site that its pages, sitemaps and feeds lead to. */
export function linksOf(
  site: Site,
  facts: readonly FileFacts[],
  resolver: Resolver,
): ReadonlyMap<string, Link> {
  const found = new Map<string, Link>()
  for (const file of facts) {
    if (file.kind !== 'page' && file.kind !== 'feed') continue
    const address = site.address + encodePath(file.kind === 'page' ? pageAddress(file.path) : file.path)
    const base = baseAt(file, address)
    for (const reference of file.references) {
      if (reference.kind !== 'page') continue
      const pathname = resolver.pathOf(file, reference, base)
      if (pathname === null || !pathname.startsWith(site.base)) continue
      const link = found.get(pathname) ?? { pathname, places: [], count: 0 }
      if (link.count === 0) found.set(pathname, link)
      link.count++
      if (link.places.length < mostPlaces) link.places.push({ file: file.path, reference })
    }
  }
  return found
}
