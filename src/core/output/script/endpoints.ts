import type { EndpointLiteral } from '../../model/facts.ts'
import type { Search } from '../../model/search.ts'
import type { Mentions } from '../words.ts'
import { absentValues, absentWords } from './absent-values.ts'
import { codeBefore, type Literal, type Literals } from './literal.ts'
import { requestSettings } from './request-settings.ts'

const absolute = /(?:https?|wss?):\/\/(?:[^\s"'`<>\\{}|^]|<[^<>\s]{1,60}>|\{\{?[^{}\s]{1,60}\}\}?)+/i

/** A path from the top of the host that does not end like a file, and is none of a development server's own (`/__open`, `/@fs`). */
const ownPath = /^\/(?!__)(?:[\w~-][\w~./-]*)?(?:[?#]|$)(?<!\.[a-z]\w{1,8}(?=[?#]|$))/i

/** A host of the own machine without a scheme: a client adds that by itself. */
const bareHost = /^(?:\/\/)?(?:localhost|127\.\d+\.\d+\.\d+|\[::1\])(?=$|[:/])[^\s"'`<>\\{}|^]*/i

/** A path that a second slash makes a host of: `//api/tides`. */
const doubledPath = /^\/\/[a-z][\w-]*\/[\w~./?=&%-]*$/i

/** A path by which services are asked, and pages seldom are: worth following to what takes it. */
const servicePath =
  /^\/(?:[\w-]+\/)?(?:apis?|graphql|gql|rest|t?rpc|wss?|sockets?|stream|sse|v\d{1,2})(?:[/?#]|$)/i

/** Another port of the page's own host: `location.hostname + ":6277"`. */
const otherPort = /^:\d{2,5}(?=$|[/?#])[^\s"'`<>\\{}|^]*/
const ownHostBefore = /\.hostname\)?(?:\}|\+["'`]|\.concat\(["'`])$/

const hostName = '.hostname'
const ownMachine = ['localhost', '127.', '[::1]']

/** What addresses without a scheme are found by, and those that are not there. */
export const endpointWords = [hostName, ...ownMachine, ...absentWords]

/** What stands before a value that is given to something by name: `host:`, `host=`. */
const settingBefore = /[^=!]=$|:$/

/** Calls that make a request of the URL they are given, as the code just before the literal shows them. */
const flows: readonly (readonly [string, RegExp])[] = [
  ['fetch', /(?:^|[^\w$])fetch\($/],
  ['WebSocket', /(?:^|[^\w$.])new WebSocket\($/],
  ['EventSource', /(?:^|[^\w$.])new EventSource\($/],
  ['beacon', /\.sendBeacon\($/],
  ['XMLHttpRequest', /\.open\(["'`][A-Za-z]+["'`],$/],
]

/**
 * URLs in a script that may be requested, with the request they visibly flow into: absolute ones, the own machine without a
 * scheme, and paths that the development server forwards.
 */
export function endpointsOf(
  code: string,
  literals: Literals,
  search: Pick<Search, 'paths'>,
  mentions: Mentions,
): EndpointLiteral[] {
  const found: EndpointLiteral[] = []
  for (const literal of literals.telling) {
    const { value } = literal
    if (value.length > 4_096) continue
    if (ownPath.test(value) && literal.first && !search.paths.some((path) => isBelow(value, path))) {
      const asked = endpoint(code, literal, value, 0)
      if (asked.flow !== null || servicePath.test(value)) found.push({ ...asked, own: true })
    }
    if (literal.first && doubledPath.test(value)) {
      const asked = endpoint(code, literal, value, 0)
      if (asked.flow !== null) found.push(asked)
    }
    if (!value.includes('://')) continue
    const match = absolute.exec(value)
    if (match) found.push(endpoint(code, literal, match[0], match.index))
  }
  for (const literal of literalsAt(literals, mentions.ofAll(ownMachine))) {
    const match = bareHost.exec(literal.value)
    if (!match || !literal.first) continue
    const asked = endpoint(code, literal, match[0], 0)
    // Compared with, or one of many: no address.
    if (asked.flow !== null || settingBefore.test(codeBefore(code, literal.start - 1, 2))) found.push(asked)
  }
  for (const literal of literalsBehind(code, literals, mentions)) {
    const match = otherPort.exec(literal.value)
    if (match && ownHostBefore.test(code.slice(Math.max(0, literal.start - 12), literal.start)))
      found.push({ ...endpoint(code, literal, match[0], 0), begins: true })
  }
  found.push(...absentValues(code, literals, mentions))
  for (const path of search.paths) {
    for (const literal of literalsAt(literals, offsetsOf(code, path))) {
      if (literal.first && isBelow(literal.value, path)) found.push(endpoint(code, literal, literal.value, 0))
    }
  }
  return found
}

/** The literals that begin at one of these offsets, or there behind `//`. */
function* literalsAt(literals: Literals, offsets: Iterable<number>): Generator<Literal> {
  for (const at of offsets) {
    const literal = literals.around(at)
    if (literal && (literal.start === at || (literal.start === at - 2 && literal.value.startsWith('//'))))
      yield literal
  }
}

function* offsetsOf(code: string, text: string): Generator<number> {
  for (let at = code.indexOf(text); at >= 0; at = code.indexOf(text, at + 1)) yield at
}

/** The literals that stand right behind the name of the page's host, and begin with a colon. */
function* literalsBehind(code: string, literals: Literals, mentions: Mentions): Generator<Literal> {
  for (const at of mentions.of(hostName)) {
    const behind = at + hostName.length
    const colon = code.slice(behind, behind + 12).indexOf(':')
    const literal = colon < 0 ? null : literals.around(behind + colon)
    if (literal && literal.start === behind + colon) yield literal
  }
}

/** Whether a path is the prefix or is below it: `/api`, `/api/v1`, `/api?x`, and not `/apis`. */
export function isBelow(path: string, prefix: string): boolean {
  return path.startsWith(prefix) && (prefix.endsWith('/') || /^(?:$|[/?#])/.test(path.slice(prefix.length)))
}

function endpoint(
  code: string,
  { start, end, first, last }: Literal,
  url: string,
  index: number,
): EndpointLiteral {
  const begins = index === 0 && first
  const before = begins ? codeBefore(code, start - 1) : ''
  const flow = flows.find(([, pattern]) => pattern.test(before))?.[0] ?? null
  const offset = Math.min(end, start + index)
  const found = { url, offset, length: Math.min(url.length, end - offset), flow, begins }
  const settings = flow === 'fetch' && last ? requestSettings(code, end) : null
  return settings ? { ...found, settings } : found
}
