import { addressKind, hasDevelopmentPort } from '../model/address.ts'
import type { EndpointLiteral, FileFacts } from '../model/facts.ts'
import type { Place } from '../model/reading.ts'
import { hole, withoutQuery } from '../model/reference.ts'
import { forEachOf, referenceAt, requestsIn } from '../model/reference-list.ts'
import type { EnvironmentState } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import type { SourceMatch, Sources } from '../project/sources/sources.ts'
import type { FolderIndex } from '../requests/folder-index.ts'
import type { RequestPlace } from '../requests/request.ts'
import type { Endpoint, EndpointPlace } from './endpoint.ts'
import {
  byAbsence,
  byFlow,
  byOutcome,
  isLoaded,
  isSettled,
  type Judgement,
  ledTo,
  mentioned,
  ofLibrary,
  ofProject,
  onlyAName,
  weightier,
} from './judgement.ts'
import type { Scripts } from './scripts.ts'
import { SourceFlow } from './source-flow.ts'

/** What endpoints are judged from. */
export interface EndpointEvidence {
  readonly site: Site
  readonly facts: readonly FileFacts[]
  /** What the pages' own elements and style sheets request from other origins. */
  readonly outside: readonly RequestPlace[]
  readonly sources: Sources
  readonly environment: readonly EnvironmentState[]
  readonly scripts: Scripts
  readonly index: FolderIndex
}

/** Kinds that say of themselves that something is wrong: worth parsing a script for. */
const suspicious: ReadonlySet<Endpoint['kind']> = new Set([
  'loopback',
  'private network',
  'local name',
  'unfinished',
  'forwarded path',
  'own host',
])

/** Kinds that are nothing by themselves: only a request that takes them is reported. */
const proofOnly: ReadonlySet<Endpoint['kind']> = new Set(['absent value', 'own path', 'own host'])

interface WrittenBy {
  readonly source: Place | null
  readonly variable: string | null
}

/** Every address in the build that may be requested, and every suspicious one that is not, each with its judgement. */
export async function endpointsIn(evidence: EndpointEvidence): Promise<Endpoint[]> {
  const found = new Map<string, Endpoint>()
  const { scripts } = evidence
  const originOf = originFinder(evidence)
  const { site } = evidence
  const ownHost = site.given ? new URL(site.address).hostname : null
  const followed = {
    ownHost,
    scripts,
    sources: new SourceFlow(evidence.sources),
    environment: evidence.environment,
  }
  const bare = evidence.sources.files.length === 0
  const kindOfAddress = kindsOf(evidence.site)
  const secure = evidence.site.origin.startsWith('https:')
  for (const file of evidence.facts) {
    let named: Set<number> | null = null
    for (const literal of file.endpoints) {
      const kind = kindOf(literal, kindOfAddress)
      if (kind === null) continue
      if (kind === 'own path') {
        named ??= namesOfFiles(file, evidence)
        if (named.has(literal.offset)) continue
      }
      const origin = originOf(file, literal, kind)
      // Without sources nothing is anybody's own: what a browser would refuse is followed too.
      const isRefused = bare && secure && kind === 'other origin' && /^(?:http|ws):/i.test(literal.url)
      const isWorthIt = suspicious.has(kind) || (isRefused && file.size <= largestAsked)
      const judged = await judge(file, literal, { kind, isWorthIt, ...origin }, followed)
      if (proofOnly.has(kind) && judged.certainty !== 'called') continue
      if (judged.certainty === 'harmless' && !suspicious.has(kind) && judged.flow === null) continue
      const { url, settings = null } = literal
      add(found, { url, settings, ...origin, ...judged, kind, places: [placeIn(file.path, literal)] })
    }
  }
  for (const { file, reference } of evidence.outside) {
    const url = reference.raw.startsWith('//') ? `https:${reference.raw}` : reference.raw
    const kind = addressKind(url, evidence.site.origin)
    if (kind === null || kind === 'own origin') continue
    const flow = flowOf(reference.kind)
    const source = suspicious.has(kind) ? evidence.sources.find(reference.raw) : null
    const places = [placeIn(file, reference)]
    add(found, { ...byFlow(flow), url, settings: null, kind, places, source, variable: null })
  }
  if (!bare) for (const each of linksHome(evidence)) add(found, each)
  return [...found.values()].map(withDoubt).sort((a, b) => (a.url < b.url ? -1 : 1))
}

/** Names with unknown parts that are tried on the whole folder, in one file. */
const mostPatterns = 200

/** Where paths stand that go on, with what is not known, to the name of a file that is there: `/locales/` of `` `/locales/${language}.json` ``. */
function namesOfFiles({ references }: FileFacts, { index, site }: EndpointEvidence): Set<number> {
  const patterns = [...requestsIn(references)].filter(({ raw }) => raw.includes(hole)).slice(0, mostPatterns)
  const fitting = patterns.filter(({ raw }) => {
    const begin = raw.slice(0, raw.indexOf(hole))
    return index
      .fitting(raw, site.base)
      .some((each) => [site.base, '/', ''].some((above) => (above + each).startsWith(begin)))
  })
  return new Set(fitting.map(({ offset }) => offset))
}

/** An address of the own machine. */
const ofMachine = /^(?:https?:)?\/\/(?:localhost|127\.\d|0\.0\.0\.0|\[::1\])/i

/** Links of pages to the developer's own machine, that a source of this project writes for its visitors. */
function* linksHome({ facts, sources, site }: EndpointEvidence): Generator<Endpoint> {
  // Pages repeat one another's links: each is looked at once, by its number.
  const known: (boolean | undefined)[] = []
  const isHome = (url: string, id: number): boolean => {
    if (id >= 0) known[id] ??= ofMachine.test(url)
    return known[id] ?? ofMachine.test(url)
  }
  for (const file of facts) {
    if (file.kind !== 'page') continue
    const links: number[] = []
    forEachOf(file.references, 'page', (url, at, id) => {
      if (isHome(url, id)) links.push(at)
    })
    for (const at of links) {
      const reference = referenceAt(file.references, at)
      const url = absoluteOf(reference.raw)
      const kind = addressKind(url, site.origin)
      const source = kind === null ? null : sources.find(reference.raw)
      if (kind === null || !source || !leadsVisitors(source, sources)) continue
      const places = [placeIn(file.path, reference)]
      yield { ...ledTo, url, settings: null, kind, places, source, variable: null }
    }
  }
}

/** Whether a link of a source is one for visitors. One that shows the address is an instruction for somebody who runs a server. */
function leadsVisitors({ file, offset }: SourceMatch, { texts }: Sources): boolean {
  const behind = texts.get(file)?.slice(offset, offset + longestLinkText) ?? ''
  const words = behind.slice(behind.indexOf('>') + 1).split('</', 1)[0] ?? ''
  return words.trim() !== '' && !/localhost|127\.0|:\d{4}\b/i.test(words)
}

/** Of a source: a tag and its text; UTF-16 units. */
const longestLinkText = 600

/** Names of vocabularies that look like addresses, and that nothing requests them. */
const vocabulary =
  /^https?:\/\/(?:www\.w3\.org|json-schema\.org|purl\.org|schemas?\.[\w.-]+|ns\.[\w.-]+)(?:\/|$)/

/** A step of a path that stands for a value which is not there: `/undefined/v1`, `https://undefined/`. */
const absentStep = /\/undefined(?:[/?#]|$)/

function kindOf(
  { url, own, flow }: EndpointLiteral,
  kindOfAddress: (url: string) => Endpoint['kind'] | null,
): Endpoint['kind'] | null {
  if (flow !== null && absentStep.test(url)) return 'absent value'
  if (own) return 'own path'
  if (url.startsWith(':')) return 'own host'
  if (url.startsWith('/') && !url.startsWith('//')) return 'forwarded path'
  if (/^undefined(?:[/?]|$)/.test(url)) return 'absent value'
  return vocabulary.test(url) ? null : kindOfAddress(absoluteOf(url))
}

/** Bundles write the same address many times, and the URL standard's reading of it takes long. */
function kindsOf({ origin }: Site): (url: string) => Endpoint['kind'] | null {
  const known = new Map<string, Endpoint['kind'] | null>()
  return (url) => {
    const kind = known.get(url) ?? (known.has(url) ? null : addressKind(url, origin))
    known.set(url, kind)
    return kind
  }
}

/** A host without a scheme is requested by http. */
export function absoluteOf(url: string): string {
  return /^[a-z]+:\/\//i.test(url) ? url : `http://${url.replace(/^\/\//, '')}`
}

/** A URL as it may be shown: without user, password and query, which may be secrets. */
export function shownUrl(url: string): string {
  const plain = withoutQuery(url)
  return plain.replace(/^([a-z]+:\/\/)[^/]*@/i, '$1')
}

/** A literal's address, who wrote it, and whether its script is worth a parse. */
interface Question extends WrittenBy {
  readonly kind: Endpoint['kind']
  readonly isWorthIt: boolean
}

/** What asks for data. */
const ofData: ReadonlySet<string> = new Set([
  'fetch',
  'XMLHttpRequest',
  'WebSocket',
  'EventSource',
  'beacon',
  'client',
])

/** Larger scripts are not parsed for an address that only may be requested; bytes. */
const largestAsked = 1_000_000

/** What literals are followed through: the scripts of the build, and the sources that they were made of. */
interface Following {
  /** The site's; null where nobody named it. */
  readonly ownHost: string | null
  readonly scripts: Scripts
  readonly sources: SourceFlow
  readonly environment: readonly EnvironmentState[]
}

async function judge(
  file: FileFacts,
  literal: EndpointLiteral,
  { kind, isWorthIt, source, variable }: Question,
  { ownHost, scripts, sources, environment }: Following,
): Promise<Pick<Endpoint, 'certainty' | 'judgement' | 'flow'> & { readonly url?: string }> {
  if (literal.flow !== null) return (await neverAsked(file, literal, kind, scripts)) ?? byFlow(literal.flow)
  if (!literal.begins) return mentioned
  if (kind === 'absent value') return byAbsence(await scripts.followAbsence(file.path, literal.offset))
  const owned = source !== null || variable !== null
  if (!owned && !isWorthIt) return ofLibrary
  if (file.kind === 'data') return owned ? ofProject : ofLibrary
  const outcome = await scripts.follow(file.path, literal.offset)
  if (suspicious.has(kind) && file.kind === 'script' && isLoaded(literal.url, outcome))
    return byFlow('element')
  if (outcome === null) return owned ? ofProject : ofLibrary
  if (kind === 'own path' && outcome.harmless.has('behind')) return ofLibrary
  const judged = byOutcome(outcome, owned, ownHost)
  if (owned && suspicious.has(kind) && judged.certainty !== 'called' && !isSettled(outcome)) {
    const reads = environment.find(({ name }) => name === variable)?.readAt
    // A name alone is a part of an address: libraries have the same, and what becomes of theirs is followed in the build.
    const isAddress = /[/:]/.test(literal.url)
    const sink = reads ? sources.ofReads(reads) : isAddress ? sources.ofText(literal.url) : null
    if (sink !== null) return byFlow(sink)
  }
  if (judged.certainty === 'likely' && kind === 'loopback' && !literal.url.includes('//')) return onlyAName
  // A path that goes to what is no request of data is a link, a file or a name.
  if (kind === 'own path' && !ofData.has(judged.flow ?? '')) return ofLibrary
  const whole = wholeUrl(outcome.text, literal.url)
  return whole === null ? judged : { ...judged, url: whole }
}

/** What stands in a request, and is in a branch that no visitor comes to; null where it is requested. */
async function neverAsked(
  file: FileFacts,
  { offset, begins }: EndpointLiteral,
  kind: Endpoint['kind'],
  scripts: Scripts,
): Promise<Judgement | null> {
  if (!begins || !suspicious.has(kind) || !/^(?:script|page)$/.test(file.kind)) return null
  const outcome = await scripts.follow(file.path, offset)
  if (!outcome || outcome.sinks.size > 0 || !outcome.harmless.has('guarded')) return null
  return byOutcome(outcome, false, null)
}

/** The URL that a literal becomes in a longer text: `localhost` in `http://localhost:8787/v1`. */
function wholeUrl(text: string, part: string): string | null {
  const at = text.indexOf(part)
  if (at < 0 || (at > 0 && !/^\w+:\/\/$/.test(text.slice(0, at)))) return null
  return withoutTail(text)
}

/** Without blanks and what follows them: a text that is put together may go on as no URL does. */
function withoutTail(text: string): string {
  const end = text.search(/[\s"'`<>\\{}|^]/)
  return text.slice(0, Math.min(end < 0 ? text.length : end, 2_048))
}

/** Finds what wrote a literal: a variable whose value stands there, or the project's own text. */
function originFinder({
  sources,
  environment,
}: EndpointEvidence): (file: FileFacts, literal: EndpointLiteral, kind: Endpoint['kind']) => WrittenBy {
  const known = new Map<string, Place | null>()
  const inSources = (url: string): Place | null => {
    const before = known.get(url)
    if (before !== undefined) return before
    const found = sources.find(url) ?? inParts(sources, url)
    known.set(url, found)
    return found
  }
  return ({ occurrences }, { offset, length, url, begins }) => {
    const occurrence = occurrences.find(
      (each) => each.read === null && each.offset < offset + length && offset < each.offset + each.length,
    )
    const variable = occurrence ? environment.find(({ name }) => name === occurrence.name) : undefined
    if (variable)
      return { source: variable.definedIn.at(-1) ?? variable.readAt[0] ?? null, variable: variable.name }
    return { source: begins ? inSources(url) : null, variable: null }
  }
}

/** The origin of a URL in the sources; or the host in a source that has the port too, where a bundler joined them. */
function inParts(sources: Sources, url: string): Place | null {
  if (!URL.canParse(url)) return null
  const { origin, hostname, port } = new URL(url)
  return sources.find(origin) ?? (port === '' ? null : sources.find(hostname, port))
}

function add(found: Map<string, Endpoint>, next: Endpoint): void {
  const before = found.get(next.url)
  if (!before) {
    found.set(next.url, next)
    return
  }
  found.set(next.url, {
    ...before,
    ...weightier(before, next),
    places: [...before.places, ...next.places],
    settings: before.settings ?? next.settings,
    source: before.source ?? next.source,
    variable: before.variable ?? next.variable,
  })
}

/** Where an element's URL goes, in the words of {@link Endpoint.flow}. */
function flowOf(kind: RequestPlace['reference']['kind']): string {
  if (kind === 'form') return 'form'
  if (kind === 'page') return 'link'
  return kind === 'hint' ? 'hint' : 'element'
}

function placeIn(file: string, { offset, length }: { offset: number; length: number }): EndpointPlace {
  return { file, offset, length }
}

function withDoubt(endpoint: Endpoint): Endpoint {
  if (endpoint.kind !== 'other origin' || !hasDevelopmentPort(endpoint.url)) return endpoint
  return { ...endpoint, judgement: `${endpoint.judgement}; its port is one that development servers take` }
}
