import { follow } from '../host/answer.ts'
import type { Answer, Host } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { extensionOf } from '../model/folder.ts'
import { markerIn, mayHoldMarker } from '../model/marker.ts'
import { withPageValue } from '../model/page-value.ts'
import { hole, type Reference, type ReferenceKind } from '../model/reference.ts'
import { requestsIn } from '../model/reference-list.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { addressesOf, baseAt, encodePath } from './addresses.ts'
import { BundleBases, ChunkRoots } from './bundle-roots.ts'
import type { FolderIndex } from './folder-index.ts'
import { ImportMaps } from './import-maps.ts'
import { type Link, linksOf } from './links.ts'
import type { ObservedBase } from './observed-base.ts'
import type { Output } from './output.ts'
import { Resolver } from './resolver.ts'
import { type Route, type RouteSources, routesOf } from './routes.ts'

/** A reference and the address its file was placed at. */
export interface RequestPlace {
  readonly file: string
  readonly reference: Reference
  /** The address of the document (or of the file itself) that the URL was resolved against. */
  readonly from: string
}

/** One URL of this site, what the host answers, and who requests it. */
export interface Request {
  readonly url: string
  readonly pathname: string
  readonly answer: Answer
  /** The file that is met, or would be met below the right base path. */
  readonly target: string | null
  /** Who asks: many where the request fails, a few where it is answered; all are counted. */
  readonly places: RequestPlace[]
  count: number
}

/** Everything the folder requests, answered. */
export interface Requested {
  readonly index: FolderIndex
  readonly observed: ObservedBase | null
  readonly requests: readonly Request[]
  readonly routes: readonly RouteAnswer[]
  /** What pages lead to, by path. */
  readonly links: ReadonlyMap<string, Link>
  /** What pages lead to on this origin outside the base path. */
  readonly beside: ReadonlyMap<string, Link>
  /** References followed, each at every address of its document. */
  readonly references: number
  /** Files with a digest to match, and who gives it. */
  readonly digests: readonly { readonly place: RequestPlace; readonly file: string }[]
  /** Plain http subresources. */
  readonly insecure: readonly RequestPlace[]
  /** What elements and style sheets request from other origins, each URL with its first places. */
  readonly outside: readonly RequestPlace[]
  /** Names that scripts import and no import map of a page knows. */
  readonly unmapped: readonly RequestPlace[]
  /** URLs that hold a marker instead of what should have replaced it. */
  readonly markers: readonly RequestPlace[]
  /** Files that a page leads to, pages among them. */
  readonly reached: ReadonlySet<string>
  /** What each file makes a browser fetch before anybody does anything: files of the folder. */
  readonly loads: ReadonlyMap<string, ReadonlySet<string>>
  /** Files of the folder that scripts request after their page has loaded. */
  readonly later: ReadonlySet<string>
}

/** Directories of pages that a script is tried from; more depths tell nothing more. */
const mostPages = 32

/** Names with unknown parts that are tried on the whole folder. */
const mostPatterns = 200

/** More places of one request tell nobody more, and folders hold a hundred thousand pages. */
const mostPlaces = { failing: 1_000, answered: 3 }

/** Places kept of one URL of another origin. */
const mostOutside = 20

/** Kinds that a browser fetches as soon as it sees them. */
const atOnce: ReadonlySet<ReferenceKind> = new Set([
  'script',
  'style',
  'image',
  'font',
  'icon',
  'frame',
  'import',
  'preload',
])

/** Kinds of files whose URLs start from where they are, whatever page they are for. */
const byThemselves: ReadonlySet<FileFacts['kind']> = new Set(['style', 'script', 'drawing', 'manifest'])

const isAbsolute = /^(?:https?:)?\/\//i

/** The URL on another origin that a relative one becomes there by `<base href>`; null where it stays here. */
function awayBy(raw: string, base: string, { origin }: Site): string | null {
  if (!URL.canParse(raw, base)) return null
  const url = new URL(raw, base)
  return /^https?:$/.test(url.protocol) && url.origin !== origin ? url.href : null
}

/** Whether the host's answer is not the file that was requested: an error, or a page in its place. */
export function fails({ answer: { status, by }, pathname, places }: Request): boolean {
  if (status >= 400 || by === 'withheld') return true
  if (by !== 'fallback') return false
  // A frame shows a page, and a page without a file of its own is what the fallback is for.
  return extensionOf(pathname) !== '' || !places.every(({ reference }) => reference.kind === 'frame')
}

/**
 * Places every file at its addresses, resolves every reference there, and asks the host for each URL. Begins with the
 * pages and goes on with what they lead to: a file that no page leads to may request what is not there, and no visitor
 * sees it. Where a request fails, the file that would be met once it is fixed counts as reached.
 */
export function requestAll(host: Host, site: Site, output: Output, sources: RouteSources): Requested {
  const { facts, index, observed } = output
  const resolver = new Resolver({
    site,
    index,
    observed,
    bases: new BundleBases(facts),
    roots: new ChunkRoots(facts, index),
  })
  const { within: links, beside } = linksOf(site, facts, resolver)
  const routes = routesOf(host, site, facts, index, links, sources)
  const answers = routes.map((route) => answerRoute(host, site, index, route))
  const addresses = addressesOf(site, facts, answers)
  const byPath = new Map(facts.map((file) => [file.path, file]))
  const reached = new Set<string>()
  for (const { path, kind } of facts) if (kind === 'page') reached.add(path)
  const hasPages = reached.size > 0
  // Files without a page are meant for pages of somebody else: each is requested where it is.
  if (!hasPages) for (const { path, kind } of facts) if (byThemselves.has(kind)) reached.add(path)
  const requesting = new Requesting(
    host,
    { site, index, resolver, maps: new ImportMaps(site, facts), values: valuesOf(facts) },
    hasPages,
  )
  // A set is walked in the order in which it grows.
  for (const path of reached) {
    const file = byPath.get(path)
    for (const address of addresses.get(path) ?? [site.address + encodePath(path)]) {
      if (file) requesting.place(file, address, reached)
    }
  }
  const { references, digests, insecure, markers, outside, unmapped, loads, later, kept } = requesting
  for (const path of kept) reached.add(path)
  const requests = [...requesting.requests.values()]
  return {
    index,
    observed,
    requests,
    routes: answers,
    links,
    beside,
    references,
    digests,
    insecure,
    outside: [...outside.values()].flat(),
    unmapped,
    markers,
    reached,
    loads,
    later,
  }
}

function answerRoute(
  host: Host,
  site: Site,
  index: FolderIndex,
  { path, from, pattern, values }: Route,
): RouteAnswer {
  const { answer: said, hops, loops } = follow(host, site, index, path)
  return {
    path,
    from,
    pattern: pattern ?? null,
    values: values ?? null,
    status: said.status,
    entryFile: said.file,
    answeredBy: said.rule,
    by: said.by,
    redirects: [...hops],
    loops,
  }
}

/** What URLs are resolved with. */
interface RequestedWith {
  readonly site: Site
  readonly index: FolderIndex
  readonly resolver: Resolver
  readonly maps: ImportMaps
  /** What pages keep for their scripts; of several pages, the first that has it. */
  readonly values: ReadonlyMap<string, string>
}

function valuesOf(facts: readonly FileFacts[]): Map<string, string> {
  return new Map(facts.flatMap(({ pageValues }) => pageValues).reverse())
}

class Requesting {
  readonly requests = new Map<string, Request>()
  readonly digests: { place: RequestPlace; file: string }[] = []
  readonly insecure: RequestPlace[] = []
  readonly outside = new Map<string, RequestPlace[]>()
  readonly unmapped: RequestPlace[] = []
  readonly markers: RequestPlace[] = []
  readonly loads = new Map<string, Set<string>>()
  readonly later = new Set<string>()
  /** What a service worker fetches to have it: not run, so that what it asks for is nobody's request. */
  readonly kept = new Set<string>()
  references = 0
  #patterns = 0
  readonly #runBy = new Map<string, string[]>()
  readonly #host: Host
  readonly #site: Site
  readonly #index: FolderIndex
  readonly #resolver: Resolver
  readonly #maps: ImportMaps
  readonly #values: ReadonlyMap<string, string>
  /** Where scripts run whose page is not known: at the site's address, if it has any page. */
  readonly #usually: readonly string[]

  constructor(host: Host, { site, index, resolver, maps, values }: RequestedWith, hasPages: boolean) {
    this.#host = host
    this.#site = site
    this.#index = index
    this.#resolver = resolver
    this.#maps = maps
    this.#values = values
    this.#usually = hasPages ? [site.address] : []
  }

  /** Requests all that one file refers to from one address. */
  place(file: FileFacts, address: string, reached: Set<string>): void {
    const base = baseAt(file, address)
    const pages = file.kind === 'page' ? [base] : (this.#runBy.get(file.path) ?? this.#usually)
    const secure = this.#site.origin.startsWith('https:')
    const stays = base.startsWith(`${this.#site.origin}/`)
    for (const written of requestsIn(file.references, mayHoldMarker)) {
      const reference = this.#settled(file, written, base)
      if (reference === null) continue
      const { kind, raw } = reference
      if (markerIn(raw) !== null && !this.#isFile(file, reference, base)) {
        this.markers.push({ file: file.path, reference, from: address })
        continue
      }
      if (kind !== 'page' && kind !== 'base' && kind !== 'named') {
        const away = isAbsolute.test(raw) ? raw : stays ? null : awayBy(raw, base, this.#site)
        if (away !== null)
          this.#noteOutside({ file: file.path, reference: { ...reference, raw: away }, from: address })
      }
      if (kind === 'page' || kind === 'form' || kind === 'base') continue
      if (kind === 'named' && raw.includes(hole)) {
        if (this.#patterns++ < mostPatterns) for (const each of this.#index.fitting(raw)) reached.add(each)
        continue
      }
      if (secure && kind !== 'named' && kind !== 'hint' && /^http:/i.test(raw)) {
        this.insecure.push({ file: file.path, reference, from: address })
      }
      for (const start of reference.against === 'page' ? pages : [base]) {
        const path = this.#resolver.pathOf(file, reference, start)
        if (path === null) continue
        this.references++
        const request = this.#ask(path, file.path, reference, start === base ? address : start)
        if (request.target === null) continue
        if (kind === 'file' && reference.later) {
          this.kept.add(request.target)
          continue
        }
        reached.add(request.target)
        if (file.kind === 'script' && kind !== 'import') this.later.add(request.target)
        // What a script preloads, it preloads for a part that is opened later.
        const now = file.kind === 'script' ? kind === 'import' : atOnce.has(kind)
        if (now && !reference.later) this.#loads(file.path, request.target)
        this.#runs(request.target, pages)
      }
    }
  }

  /** With what its page keeps for it, and as import maps have it, for what is imported: a name, or a URL that a map leads elsewhere. Null for a name that none knows. */
  #settled(file: FileFacts, written: Reference, base: string): Reference | null {
    const raw = withPageValue(written.raw, this.#values)
    if (raw === null) return null
    const reference = raw === written.raw ? written : { ...written, raw }
    const { kind, against } = reference
    if (kind !== 'import' && kind !== 'lazy-import') return reference
    const url =
      against === 'map'
        ? raw
        : this.#maps.isEmpty || !URL.canParse(raw, base)
          ? null
          : new URL(raw, base).href
    const found = url === null ? null : this.#maps.of(url, base)
    // On this site it is what the map writes, as far as other URLs are compared with it.
    if (found !== null)
      return { ...reference, raw: found.replace(`${this.#site.origin}/`, '/'), against: 'document' }
    if (against !== 'map') return reference
    if (kind === 'import' && !this.#maps.isOpen)
      this.unmapped.push({ file: file.path, reference, from: base })
    return null
  }

  #loads(file: string, target: string): void {
    const known = this.loads.get(file)
    if (known) known.add(target)
    else this.loads.set(file, new Set([target]))
  }

  #noteOutside(place: RequestPlace): void {
    const known = this.outside.get(place.reference.raw)
    if (!known) this.outside.set(place.reference.raw, [place])
    else if (known.length < mostOutside) known.push(place)
  }

  #isFile(file: FileFacts, reference: Reference, base: string): boolean {
    const path = this.#resolver.pathOf(file, reference, base)
    const tail = path === null ? null : this.#index.tailOf(path)
    // `/{{BASE}}/app.js` ends in a file's name too; the marker must be of the name itself: `app/[slug]/page.js`.
    return tail !== null && markerIn(tail.file) !== null
  }

  /** Notes the pages on which a file's scripts run: one address for each directory. */
  #runs(target: string, pages: readonly string[]): void {
    if (!/\.[cm]?js$/.test(target)) return
    const known = this.#runBy.get(target) ?? []
    for (const page of pages) {
      const directory = page.slice(0, page.lastIndexOf('/') + 1)
      if (!known.includes(directory) && known.length < mostPages) known.push(directory)
    }
    this.#runBy.set(target, known)
  }

  #ask(pathname: string, file: string, reference: Reference, from: string): Request {
    let request = this.requests.get(pathname)
    if (!request) {
      const { answer: said } = follow(this.#host, this.#site, this.#index, pathname)
      const target = said.by === 'file' ? said.file : (this.#index.tailOf(pathname)?.file ?? null)
      const url = this.#site.origin + pathname
      request = { url, pathname, answer: said, target, places: [], count: 0 }
      this.requests.set(pathname, request)
    }
    const { places, answer: said } = request
    if (reference.integrity && said.by === 'file' && said.file !== null) {
      this.digests.push({ place: { file, reference, from }, file: said.file })
    }
    if (said.status < 400 && said.by !== 'fallback' && said.by !== 'withheld') {
      request.count++
      if (places.length < mostPlaces.answered) places.push({ file, reference, from })
      return request
    }
    const last = places.at(-1)
    const known = (each: RequestPlace): boolean =>
      each.file === file && each.reference.offset === reference.offset
    // The same place at another address of its document adds nothing.
    if (last?.file === file ? places.some(known) : false) return request
    request.count++
    if (places.length < mostPlaces.failing) places.push({ file, reference, from })
    return request
  }
}
