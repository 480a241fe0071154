import type { FileFacts } from '../model/facts.ts'
import type { Reference } from '../model/reference.ts'
import { forEachOf, referenceAt } from '../model/reference-list.ts'
import type { Site } from '../model/site.ts'
import { baseAt, encodePath, pageAddress } from './addresses.ts'
import { isRooted, type Resolver } from './resolver.ts'

/** A path of this site that pages lead to. */
export class Link {
  readonly pathname: string
  /** All places. */
  count = 0
  // A large site has millions: as numbers they take a tenth of the memory.
  readonly #files: FileFacts[] = []
  readonly #at: number[] = []

  constructor(pathname: string) {
    this.pathname = pathname
  }

  /** The first file that leads there. */
  get from(): string {
    return this.#files[0]?.path ?? ''
  }

  /** The first places. */
  get places(): { readonly file: string; readonly reference: Reference }[] {
    return this.#files.map(({ path, references }, index) => ({
      file: path,
      reference: referenceAt(references, this.#at[index] ?? 0),
    }))
  }

  add(file: FileFacts, at: number): void {
    this.count++
    if (this.#files.length >= mostPlaces) return
    this.#files.push(file)
    this.#at.push(at)
  }
}

/** More places of one link tell nobody more. */
const mostPlaces = 100

/** Where pages lead to on this origin. */
export interface Links {
  /** Below the site's base path. */
  readonly within: ReadonlyMap<string, Link>
  /** Beside it: another site of the same host, or this one with its base path left out. */
  readonly beside: ReadonlyMap<string, Link>
}

/** Files that lead a person on: a feed's reader and an installed application go where they say. */
const leading: ReadonlySet<FileFacts['kind']> = new Set(['page', 'feed', 'manifest'])

/** The paths of this origin that the site's pages, sitemaps, feeds and manifests lead to. */
export function linksOf(site: Site, facts: readonly FileFacts[], resolver: Resolver): Links {
  const within = new Map<string, Link>()
  const beside = new Map<string, Link>()
  // Pages repeat one another's links: of those from the top of this origin each leads to one place, by its number.
  const rooted: (Link | null)[] = []
  for (const file of facts) {
    // A script may send its visitor to what another program of the host answers: only what leaves the site tells.
    forEachOf(file.references, 'navigation', (raw, at) => {
      const pathname = resolver.linkOf(raw, site.address)
      if (pathname !== null && !pathname.startsWith(site.base)) add(beside, pathname, file, at)
    })
    if (!leading.has(file.kind)) continue
    const address = site.address + encodePath(file.kind === 'page' ? pageAddress(file.path) : file.path)
    const base = baseAt(file, address)
    // A form may be sent to what answers no visitor, and a manifest is for one who installs the site.
    const isPlain = file.kind !== 'manifest' && base.startsWith(`${site.origin}/`)
    forEachOf(file.references, 'page', (raw, at, id) => {
      const known = isPlain && id >= 0 ? rooted[id] : undefined
      if (known !== undefined) {
        known?.add(file, at)
        return
      }
      const pathname = resolver.linkOf(raw, base)
      const among = pathname === null || pathname.startsWith(site.base) ? within : beside
      const isLink = pathname !== null && (among === beside || file.kind !== 'manifest')
      const link = isLink ? add(among, pathname, file, at) : null
      if (isPlain && id >= 0 && isRooted(raw)) rooted[id] = link
    })
    forEachOf(file.references, 'form', (raw, at) => {
      const pathname = resolver.linkOf(raw, base)
      if (pathname !== null && !pathname.startsWith(site.base)) add(beside, pathname, file, at)
    })
  }
  return { within, beside }
}

function add(found: Map<string, Link>, pathname: string, file: FileFacts, at: number): Link {
  let link = found.get(pathname)
  if (!link) {
    link = new Link(pathname)
    found.set(pathname, link)
  }
  link.add(file, at)
  return link
}
