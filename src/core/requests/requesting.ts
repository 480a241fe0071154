import { follow } from '../host/answer.ts'
import type { Host } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { markerIn, mayHoldMarker } from '../model/marker.ts'
import { withPageValue } from '../model/page-value.ts'
import { hole, type Reference, type ReferenceKind, withoutQuery } from '../model/reference.ts'
import { requestsIn } from '../model/reference-list.ts'
import type { Site } from '../model/site.ts'
import { baseAt } from './addresses.ts'
import type { FolderIndex } from './folder-index.ts'
import type { ImportMaps } from './import-maps.ts'
import type { NameUse, NameUses } from './name-uses.ts'
import type { Request, RequestPlace } from './request.ts'
import type { Resolver } from './resolver.ts'

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

const isOnDisk = /^(?:file:|[a-z]:[\\/])/i
const isAbsolute = /^(?:https?:)?\/\//i

/** Of links too, those that a marker or a second slash may make wrong. */
function isOdd(raw: string): boolean {
  return startsWithTwo(raw) || mayHoldMarker(raw)
}

function startsWithTwo(raw: string): boolean {
  return raw.charCodeAt(0) === 47 && raw.charCodeAt(1) === 47
}

/** The URL on another origin that a relative one becomes there by `<base href>`; null where it stays here. */
function awayBy(raw: string, base: string, { origin }: Site): string | null {
  if (!URL.canParse(raw, base)) return null
  const url = new URL(raw, base)
  return /^https?:$/.test(url.protocol) && url.origin !== origin ? url.href : null
}

/** The URL of a file that a name with holes means from its first step on: `/logo.svg` for `/<hole>.svg`. */
function wholeOf(name: string, files: readonly string[]): string | null {
  const steps = name.split('/').length - 1
  const file = files.find((each) => each.split('/').length === steps)
  return file === undefined ? null : `/${file}`
}

/** What URLs are resolved with. */
interface RequestedWith {
  readonly site: Site
  readonly index: FolderIndex
  readonly resolver: Resolver
  readonly maps: ImportMaps
  /** What pages keep for their scripts; of several pages, the first that has it. */
  readonly values: ReadonlyMap<string, string>
  readonly uses: NameUses
}

/** What a bundler emits beside its entries. */
const ofBundler = /\.(?:m?js|css)$/

/** Asks for all that files refer to, and keeps every request with its places. */
export class Requesting {
  readonly requests = new Map<string, Request>()
  readonly digests: { place: RequestPlace; file: string }[] = []
  readonly insecure: RequestPlace[] = []
  readonly outside = new Map<string, RequestPlace[]>()
  readonly onDisk: RequestPlace[] = []
  readonly unmapped: RequestPlace[] = []
  readonly markers: RequestPlace[] = []
  readonly asHost: RequestPlace[] = []
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
  readonly #uses: NameUses
  /** Where scripts run whose page is not known: at the site's address, if it has any page. */
  readonly #usually: readonly string[]

  constructor(host: Host, { site, index, resolver, maps, values, uses }: RequestedWith, hasPages: boolean) {
    this.#host = host
    this.#site = site
    this.#index = index
    this.#resolver = resolver
    this.#maps = maps
    this.#values = values
    this.#uses = uses
    this.#usually = hasPages ? [site.address] : []
  }

  /** Requests all that one file refers to from one address. */
  place(file: FileFacts, address: string, reached: Set<string>): void {
    const base = baseAt(file, address)
    const pages = file.kind === 'page' ? [base] : (this.#runBy.get(file.path) ?? this.#usually)
    const secure = this.#site.origin.startsWith('https:')
    const stays = base.startsWith(`${this.#site.origin}/`)
    for (const written of requestsIn(file.references, isOdd)) {
      const settled = this.#settled(file, written, base)
      const reference = settled && this.#used(file, settled)
      if (reference === null) continue
      const { kind, raw } = reference
      if (markerIn(raw) !== null && !this.#isFile(file, reference, base)) {
        this.markers.push({ file: file.path, reference, from: address })
        continue
      }
      if (startsWithTwo(raw) && this.#index.isOwnPath(withoutQuery(raw).slice(2))) {
        if (this.asHost.length < mostPlaces.failing)
          this.asHost.push({ file: file.path, reference, from: address })
        continue
      }
      if (kind === 'navigation') continue
      if (kind !== 'page' && kind !== 'base' && kind !== 'named') {
        const away = isAbsolute.test(raw) ? raw : stays ? null : awayBy(raw, base, this.#site)
        if (away !== null)
          this.#noteOutside({ file: file.path, reference: { ...reference, raw: away }, from: address })
      }
      if (kind === 'page' || kind === 'form' || kind === 'base') continue
      if (isOnDisk.test(raw) && kind !== 'named') {
        if (this.onDisk.length < mostOutside) this.onDisk.push({ file: file.path, reference, from: address })
        continue
      }
      if (kind === 'named' && raw.includes(hole)) {
        const isAny = raw.endsWith(`/${hole}`)
        if (isAny && !this.#isDirectory(raw.slice(0, -2))) continue
        if (this.#patterns++ >= mostPatterns) continue
        const { base } = this.#site
        const fitting = this.#index.fitting(raw, base)
        // The bundler names the directory of its own files, of which a page runs some.
        const files = isAny ? fitting.filter((each) => !ofBundler.test(each)) : fitting
        for (const each of files) reached.add(each)
        const one = raw.startsWith('/') && !raw.startsWith(base) ? wholeOf(raw, files) : null
        const isNone = reference.sure && files.length === 0 && /^\/(?!\/)/.test(raw)
        // One file tells where all of them are asked for.
        const asked = isNone ? this.#likely(raw) : one
        if (asked !== null) this.#ask(asked, file.path, { ...reference, raw: asked, pattern: raw }, address)
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

  /** What an element shows, and no file can be: a file that is there below another path, else the form of the name. */
  #likely(raw: string): string {
    const steps = raw.split('/')
    for (let from = 2; from < steps.length - 1; from++) {
      const [file] = this.#index.fitting(steps.slice(from).join('/'))
      if (file !== undefined) return [...steps.slice(0, from), file].join('/')
    }
    return raw.replaceAll(hole, '*')
  }

  /** Of the folder, from the top of the host or of the site. */
  #isDirectory(path: string): boolean {
    const { base } = this.#site
    const below = path.startsWith(base) ? path.slice(base.length) : path.slice(1)
    return this.#index.isDirectory(below) || this.#index.isDirectory(path.slice(1))
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

  /** As what a script does with a name tells; null for one that it puts behind the base path. */
  #used(file: FileFacts, reference: Reference): Reference | null {
    const use = reference.kind === 'named' ? this.#uses.get(file.path)?.get(reference.offset) : undefined
    if (use === undefined) return reference.against === 'behind' ? null : reference
    if (use === 'behind the base') return null
    if (typeof use === 'object') return behind(use, reference)
    return use === 'data' ? { ...reference, kind: 'data', against: 'page' } : { ...reference, sure: true }
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

/** A name behind the text that a script puts before it: from the top of the host, or from the page. */
function behind({ before, isData }: Exclude<NameUse, string>, reference: Reference): Reference {
  const isDouble = before.endsWith('/') && reference.raw.startsWith('/')
  const raw = before + (isDouble ? reference.raw.slice(1) : reference.raw)
  if (isData) return { ...reference, raw, kind: 'data', against: 'page' }
  return raw.startsWith('/')
    ? { ...reference, raw, sure: true }
    : { ...reference, raw, kind: 'file', against: 'page' }
}
