import { answer, follow } from '../host/answer.ts'
import type { Answer, Host } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { isHashed } from '../model/fingerprint.ts'
import { directoryOf } from '../model/folder.ts'
import type { Origin } from '../model/reading.ts'
import type { Reference } from '../model/reference.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { FolderIndex } from './folder-index.ts'
import { type ObservedBase, observeBase } from './observed-base.ts'

/** A reference and the address its file was placed at. */
export interface AskedPlace {
  readonly file: string
  readonly reference: Reference
  /** The address of the document (or of the file itself) that the URL was resolved against. */
  readonly from: string
}

/** One URL of this site, what the host answers, and who asks for it. */
export interface Request {
  readonly url: string
  readonly pathname: string
  readonly answer: Answer
  readonly places: AskedPlace[]
}

/** A route to ask for, and where it is known from. */
export interface Route {
  /** The path as a browser sends it, base path and all. */
  readonly path: string
  readonly from: Origin
}

/** Everything the folder asks for, answered. */
export interface Asked {
  readonly index: FolderIndex
  readonly observed: ObservedBase | null
  readonly requests: readonly Request[]
  readonly routes: readonly RouteAnswer[]
  /** References followed, each at every address of its document. */
  readonly references: number
}

/** Whether the host's answer is not the file that was asked for: an error, or a page in its place. */
export function fails({ answer: { status, rule } }: Request): boolean {
  return status >= 400 || rule.includes('fallback')
}

/** Places every file at its addresses, resolves every reference there, and asks the host for each URL. */
export function ask(host: Host, site: Site, facts: readonly FileFacts[], routes: readonly Route[]): Asked {
  const index = new FolderIndex(facts)
  const observed = observeBase(facts, index)
  const bundleBase = facts.find((file) => file.bundleBase !== null)?.bundleBase ?? null
  const asker = new Asker(host, site, index, observed, bundleBase)
  const answers = routes.map((route) => asker.route(route))
  const addresses = addressesOf(site, facts, answers)
  for (const file of facts) {
    for (const address of addresses.get(file.path) ?? [site.address + encodePath(file.path)])
      asker.place(file, address)
  }
  return {
    index,
    observed,
    requests: reachable([...asker.requests.values()], facts, index),
    routes: answers,
    references: asker.references,
  }
}

class Asker {
  readonly requests = new Map<string, Request>()
  references = 0
  readonly #host: Host
  readonly #site: Site
  readonly #index: FolderIndex
  readonly #observed: ObservedBase | null
  readonly #bundleBase: string

  constructor(
    host: Host,
    site: Site,
    index: FolderIndex,
    observed: ObservedBase | null,
    bundleBase: string | null,
  ) {
    this.#host = host
    this.#site = site
    this.#index = index
    this.#observed = observed
    this.#bundleBase = bundleBase ?? observed?.base ?? site.base
  }

  route({ path, from }: Route): RouteAnswer {
    const { answer: said } = follow(this.#host, this.#site, this.#index, path)
    return { path, from, status: said.status, entryFile: said.file, answeredBy: said.rule }
  }

  place(file: FileFacts, address: string): void {
    const base =
      file.baseHref !== null && URL.canParse(file.baseHref, address)
        ? new URL(file.baseHref, address)
        : address
    for (const reference of file.references) {
      if (reference.kind === 'page' || reference.kind === 'hint') continue
      const url = this.#resolve(file, reference, String(base))
      // Another origin's answer can't be known without asking it; `data:` and the like ask nobody.
      if (url?.origin !== this.#site.origin) continue
      this.references++
      this.#ask(url, { file: file.path, reference, from: String(address) })
    }
  }

  #resolve(file: FileFacts, reference: Reference, base: string): URL | null {
    const { raw, kind, against } = reference
    if (kind === 'named') return this.#named(reference, file.kind === 'page' ? base : this.#site.address)
    const bundled = against === 'bundle-base' && !raw.startsWith('.')
    const from = bundled ? new URL(this.#bundleBase, this.#site.address).href : base
    return URL.canParse(raw, from) ? new URL(raw, from) : null
  }

  /** A string that looks like a file counts when it names one, or when it could be nothing else. */
  #named({ raw, sure }: Reference, from: string): URL | null {
    if (!URL.canParse(raw, from)) return null
    const url = new URL(raw, from)
    if (!raw.startsWith('/')) return this.#answers(url) ? url : null
    const base = this.#observed?.base
    const tail = this.#index.tailOf(url.pathname)
    // `endsWith("/index.txt")` names a file by chance; only the build's own base path, or an element, makes it one.
    if (tail && (sure || tail.prefix === base)) return url
    if (base === undefined || !url.pathname.startsWith(base)) return null
    const path = url.pathname.slice(base.length)
    const emitted = isHashed(path) && this.#index.isDirectory(directoryOf(path))
    return sure || emitted ? url : null
  }

  #answers(url: URL): boolean {
    return (
      url.origin === this.#site.origin &&
      answer(this.#host, this.#site, this.#index, url.pathname).rule === 'a file'
    )
  }

  #ask(url: URL, place: AskedPlace): void {
    const key = url.origin + url.pathname
    let request = this.requests.get(key)
    if (!request) {
      const { answer: said } = follow(this.#host, this.#site, this.#index, url.pathname)
      request = { url: key, pathname: url.pathname, answer: said, places: [] }
      this.requests.set(key, request)
    }
    const known = request.places.some(
      (each) => each.file === place.file && each.reference.offset === place.reference.offset,
    )
    if (!known) request.places.push(place)
  }
}

/**
 * Leaves out what only files ask for that no page leads to: no visitor meets it. A file counts as reached where a
 * request for it fails too, as it would arrive once the request is mended.
 */
function reachable(requests: readonly Request[], facts: readonly FileFacts[], index: FolderIndex): Request[] {
  const asks = new Map<string, Set<string>>()
  for (const { answer: said, pathname, places } of requests) {
    const target = said.rule === 'a file' ? said.file : index.tailOf(pathname)?.file
    if (target == null) continue
    for (const { file } of places) asks.set(file, (asks.get(file) ?? new Set()).add(target))
  }
  const reached = new Set(facts.filter(({ kind }) => kind === 'page').map(({ path }) => path))
  for (const file of reached) for (const target of asks.get(file) ?? []) reached.add(target)
  return requests
    .map((request) => ({ ...request, places: request.places.filter(({ file }) => reached.has(file)) }))
    .filter(({ places }) => places.length > 0)
}

/** Every address a document is served from: its own, and each route it answers. */
function addressesOf(
  site: Site,
  facts: readonly FileFacts[],
  routes: readonly RouteAnswer[],
): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, Set<string>>()
  for (const { path, kind } of facts) {
    if (kind === 'page') found.set(path, new Set([site.address + encodePath(pageAddress(path))]))
  }
  for (const { path, entryFile } of routes) {
    if (entryFile !== null) found.get(entryFile)?.add(site.origin + path)
  }
  return new Map([...found].map(([path, addresses]) => [path, [...addresses]]))
}

/** The path a page is linked by: a directory index goes by its directory. */
export function pageAddress(path: string): string {
  return path.replace(/(^|\/)index\.html$/, '$1')
}

/** A file path as it stands in a URL. */
export function encodePath(path: string): string {
  return path.split('/').map(encodeURIComponent).join('/')
}
