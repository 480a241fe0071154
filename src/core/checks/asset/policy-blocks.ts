import type { Endpoint } from '../../endpoints/endpoint.ts'
import type { FileFacts, PagePolicy } from '../../model/facts.ts'
import { allows, isOneByOne, type Policy, parsePolicy, sourcesOf } from '../../model/policy.ts'
import type { Reference, ReferenceKind } from '../../model/reference.ts'
import { groupedBy, listed } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A page comes with a policy that forbids what it loads itself. */
export const policyBlocks = defineCheck({
  code: 'asset/policy-blocks',
  severity: 'blocker',
  title: "The page's own policy stops what it needs",
  keywords: ['Content-Security-Policy', 'CSP', 'script-src', 'connect-src', 'refused to connect'],
  after: ['project/needs-server', 'project/not-built', 'endpoint/loopback', 'endpoint/private-network'],
  run,
})

interface Stopped {
  readonly directive: string
  /** The origin that would have to be let through; null of a script in the page. */
  readonly source: string | null
  readonly what: string
  readonly place: CausePlace
  readonly policy: PagePolicy
  readonly page: string
}

/** Directives that decide on a kind of file, the first that is there (CSP 3, 6.8.3 "Get fetch directive fallback list"). */
const directives: Partial<Record<ReferenceKind, readonly string[]>> = {
  script: ['script-src-elem', 'script-src', 'default-src'],
  style: ['style-src-elem', 'style-src', 'default-src'],
  image: ['img-src', 'default-src'],
  font: ['font-src', 'default-src'],
  media: ['media-src', 'default-src'],
  frame: ['frame-src', 'child-src', 'default-src'],
}
const words: Partial<Record<ReferenceKind, string>> = {
  script: 'A script',
  style: 'A style sheet',
  image: 'A picture',
  font: 'A font',
  media: 'A recording',
  frame: 'A frame',
}
const connecting = ['connect-src', 'default-src']
const asksForData = new Set(['fetch', 'XMLHttpRequest', 'WebSocket', 'EventSource', 'beacon', 'client'])

function run(evidence: Evidence): Cause[] {
  const stopped = evidence.facts.flatMap((file) =>
    file.policies.flatMap((policy) => [...stoppedBy(policy, file, evidence)]),
  )
  const groups = groupedBy(
    stopped,
    ({ directive, source, policy }) => `${directive} ${source === null} ${policy.text}`,
  )
  return [...groups.values()].map((all) => causeOf(all, evidence))
}

function causeOf(all: readonly Stopped[], evidence: Evidence): Cause {
  const [{ directive, what, policy, page }] = all as [Stopped, ...Stopped[]]
  const pages = [...new Set(all.map((each) => each.page))]
  const origins = [...new Set(all.flatMap(({ source }) => source ?? []))]
  const stops = origins.length > 0 ? origins : ['scripts that stand in the page']
  const at = evidence.sources.find(policy.text)
  const now = sourcesOf(parsePolicy(policy.text), [directive, 'default-src']) ?? []
  return {
    key: `${directive} ${stops.join(' ')}`,
    // Where nobody said what the own address is, one of these may be it.
    severity: evidence.site.given || origins.length === 0 ? undefined : 'caution',
    impact:
      directive === 'connect-src'
        ? 'Data does not load: the browser refuses to ask for it.'
        : `${what} does not load: the browser refuses it.`,
    cause: `The policy of ${listed(pages.slice(0, 3))}${pages.length > 3 ? ` and ${pages.length - 3} more` : ''} does not let ${listed(stops)} through: for ${directive} it says ${now.join(' ') || 'nothing'}.`,
    places: all.map(({ place }) => place),
    source: at,
    fix: [
      origins.length > 0
        ? // A directive takes the place of the one for everything, so that it is written as a whole.
          `In ${at ? `${at.file}, line ${at.line}` : page}, write  ${[directive, ...now.filter((each) => !/^'none'$/i.test(each)), ...origins].join(' ')}  in the policy.`
        : 'Move the script out of the page, into a file of its own, or let script-src name its hash.',
      rebuild(evidence),
    ],
  }
}

function* stoppedBy(policy: PagePolicy, file: FileFacts, evidence: Evidence): Generator<Stopped> {
  const { site, requested, endpoints } = evidence
  const parsed = parsePolicy(policy.text)
  const self = new URL(site.origin)
  const told = { policy, page: file.path }
  const inline = sourcesOf(parsed, ['script-src-elem', 'script-src', 'default-src'])
  if (
    policy.inline &&
    inline &&
    !isOneByOne(inline) &&
    !inline.some((each) => /^'unsafe-inline'$/i.test(each))
  )
    yield {
      ...told,
      directive: nameOf(parsed, 'script'),
      source: null,
      what: 'A script in the page',
      place: { file: file.path, ...policy.inline },
    }
  for (const { file: from, reference } of requested.outside) {
    const url = absolute(reference.raw, self)
    if (from !== file.path || reference.offset < policy.offset || !url) continue
    const stops = stopsFile(parsed, reference, url, self)
    if (stops)
      yield {
        ...told,
        directive: stops,
        source: url.origin,
        what: words[reference.kind] ?? 'A file',
        place: { file: from, offset: reference.offset, length: reference.length },
      }
  }
  const sources = sourcesOf(parsed, connecting)
  const loaded = sources ? loadedBy(file.path, requested.loads) : new Set<string>()
  for (const { url, places } of sources ? endpoints.filter(isAsked) : []) {
    const parsedUrl = absolute(url, self)
    const own = places.filter(({ file: script }) => loaded.has(script))
    if (!parsedUrl || own.length === 0 || !sources || allows(sources, parsedUrl, self)) continue
    for (const place of own)
      yield { ...told, directive: 'connect-src', source: parsedUrl.origin, what: 'Data', place }
  }
}

/** Addresses of the own machine and network have findings of their own. */
const elsewhere = new Set<Endpoint['kind']>(['other origin', 'reserved name'])

function isAsked({ kind, certainty, flow }: Endpoint): boolean {
  return elsewhere.has(kind) && certainty === 'called' && flow !== null && asksForData.has(flow)
}

function stopsFile(policy: Policy, { kind }: Reference, url: URL, self: URL): string | null {
  const names = directives[kind]
  const sources = names ? sourcesOf(policy, names) : null
  // What a script with a nonce adds is let through, and a browser alone knows the rest.
  if (!sources || isOneByOne(sources) || allows(sources, url, self)) return null
  return nameOf(policy, kind)
}

/** The directive to write into: the one that decides, unless that is the one for everything. */
function nameOf(policy: Policy, kind: ReferenceKind): string {
  const names = directives[kind] ?? []
  const found = names.find((name) => policy.has(name))
  return found === undefined || found === 'default-src'
    ? (names.find((name) => !name.endsWith('-elem')) ?? 'default-src')
    : found
}

function loadedBy(page: string, loads: ReadonlyMap<string, ReadonlySet<string>>): ReadonlySet<string> {
  const found = new Set([page])
  for (const path of found) for (const target of loads.get(path) ?? []) found.add(target)
  return found
}

function absolute(raw: string, self: URL): URL | null {
  return URL.canParse(raw, self.href) ? new URL(raw, self) : null
}
