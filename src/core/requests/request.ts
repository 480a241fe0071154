import { follow } from '../host/answer.ts'
import type { Answer, Host } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { extensionOf } from '../model/folder.ts'
import type { Reference } from '../model/reference.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { addressesOf, encodePath } from './addresses.ts'
import { BundleBases, ChunkRoots } from './bundle-roots.ts'
import type { FolderIndex } from './folder-index.ts'
import { ImportMaps } from './import-maps.ts'
import { type Link, linksOf } from './links.ts'
import type { NameUses } from './name-uses.ts'
import type { ObservedBase } from './observed-base.ts'
import type { Output } from './output.ts'
import { Requesting } from './requesting.ts'
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
  /** URLs that name a file of somebody's disk: `file:///C:/site/logo.png`. */
  readonly onDisk: readonly RequestPlace[]
  /** Names that scripts import and no import map of a page knows. */
  readonly unmapped: readonly RequestPlace[]
  /** URLs that hold a marker instead of what should have replaced it. */
  readonly markers: readonly RequestPlace[]
  /** URLs that begin with two slashes, so that the browser takes a directory or file of the folder for a host. */
  readonly asHost: readonly RequestPlace[]
  /** Files that a page leads to, pages among them. */
  readonly reached: ReadonlySet<string>
  /** What each file makes a browser fetch before anybody does anything: files of the folder. */
  readonly loads: ReadonlyMap<string, ReadonlySet<string>>
  /** Files of the folder that scripts request after their page has loaded. */
  readonly later: ReadonlySet<string>
}

/** Kinds of files whose URLs start from where they are, whatever page they are for. */
const byThemselves: ReadonlySet<FileFacts['kind']> = new Set(['style', 'script', 'drawing', 'manifest'])

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
 * @param uses what scripts do with names of files that could be anything
 */
export function requestAll(
  host: Host,
  site: Site,
  output: Output,
  sources: RouteSources,
  uses: NameUses = new Map(),
): Requested {
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
    { site, index, resolver, maps: new ImportMaps(site, facts), values: valuesOf(facts), uses },
    hasPages,
  )
  // A set is walked in the order in which it grows.
  for (const path of reached) {
    const file = byPath.get(path)
    for (const address of addresses.get(path) ?? [site.address + encodePath(path)]) {
      if (file) requesting.place(file, address, reached)
    }
  }
  const { references, digests, insecure, markers, asHost, outside, onDisk, unmapped, loads, later, kept } =
    requesting
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
    onDisk,
    unmapped,
    markers,
    asHost,
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

function valuesOf(facts: readonly FileFacts[]): Map<string, string> {
  return new Map(facts.flatMap(({ pageValues }) => pageValues).reverse())
}
