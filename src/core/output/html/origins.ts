import type { EndpointLiteral } from '../../model/facts.ts'
import { isServiceKey } from '../data-endpoints.ts'
import type { Attribute, Attributes } from './scan.ts'

/** The origin that `<link rel="preconnect">` or `dns-prefetch` names (HTML standard, 4.6.7). */
export function connectedOrigin(
  rel: string,
  { value, offset, length }: Attribute,
  at: number,
): EndpointLiteral[] {
  if (!/(?:^|\s)(?:preconnect|dns-prefetch)(?:\s|$)/i.test(rel) || !/^(?:https?:)?\/\//i.test(value))
    return []
  return [{ url: value, offset: at + offset, length, flow: 'preconnect', begins: true }]
}

const source = /(?:https?|wss?):\/\/[^\s;"'<>]+/gi

/** The origins that a policy in the page names (Content Security Policy, W3C). */
export function policyOrigins(
  attributes: { get(name: string): Attribute | null },
  at: number,
): EndpointLiteral[] {
  const content = attributes.get('content')
  if (!content || attributes.get('http-equiv')?.value.toLowerCase() !== 'content-security-policy') return []
  return [...content.value.matchAll(source)].map((match) => ({
    url: match[0],
    offset: at + content.offset + match.index,
    length: match[0].length,
    flow: 'policy',
    begins: true,
  }))
}

/** Hosts of the own machine and its network: what no page for visitors is given on purpose. */
const nearby = /^(?:https?|wss?):\/\/(?:localhost|127\.\d|0\.0\.0\.0|\[::1\]|10\.\d|192\.168\.\d)/i

/** Whether a page may hold such a host at all: most do not, and their attributes need no look. */
export function mayNameNearby(html: string): boolean {
  return /:\/\/(?:localhost|127\.|0\.0\.0\.0|\[::1\]|10\.|192\.168\.)/i.test(html)
}

/** Names of attributes whose value a script asks: the last word says what for. */
const askedName =
  /(?:^|[-:])(?:get|post|put|patch|delete|connect|remote|endpoint|action|src|ur[il])(?:-value)?$/i

/** Attributes that a browser shows to people, or that are read by {@link urlAttributes} already. */
const shownName = /^(?:value|placeholder|title|alt|label|content|aria-.*|src|action|formaction|poster|href)$/i

/**
 * Addresses of services that a page gives its scripts: `<meta name="api-url" content="…">`, `<body data-api="…">`,
 * `<ferry-board api="…">`.
 */
export function* servicesFor(tag: string, attributes: Attributes, at: number): Generator<EndpointLiteral> {
  const name = attributes.get('name')?.value
  const content = attributes.get('content')
  if (name && content && nearby.test(content.value) && isServiceKey(lastPart(name))) yield given(content, at)
  for (const [key, attribute] of attributes.beginning(''))
    if (nearby.test(attribute.value) && isAsked(tag, key)) yield given(attribute, at)
}

function given({ value, offset, length }: Attribute, at: number): EndpointLiteral {
  return { url: value, offset: at + offset, length, flow: 'configuration', begins: true }
}

function lastPart(name: string): string {
  return name.slice(Math.max(name.lastIndexOf(':'), name.lastIndexOf('.')) + 1)
}

function isAsked(tag: string, key: string): boolean {
  if (shownName.test(key) || method.test(key)) return false
  // Elements of one's own take their settings as attributes; on others, a name with a dash is one of a library.
  if (!tag.includes('-') && !key.includes('-')) return false
  return askedName.test(key) || isServiceKey(lastPart(key.replace(/^data-/, '').replace(/-value$/, '')))
}

const method = /^(?:data-)?hx-(get|post|put|patch|delete)$/i

/** Whether a page may hold attributes that make requests. */
export function mayAsk(html: string): boolean {
  return html.includes('hx-') || html.includes('HX-')
}

/** Requests that attributes of a library for hypertext make: `hx-post="/api/orders"`. */
export function* asksOf(attributes: Attributes, at: number): Generator<EndpointLiteral> {
  for (const prefix of ['hx-', 'data-hx-']) {
    for (const [rest, { value, offset, length }] of attributes.beginning(prefix)) {
      const verb = method.exec(`hx-${rest}`)?.[1]
      const isPath = /^\/(?!\/)/.test(value)
      if (!verb || !(isPath || /^https?:\/\//i.test(value)) || /[\s{}]/.test(value)) continue
      const settings = { method: verb.toUpperCase(), headers: [], credentials: false }
      const asked = { url: value, offset: at + offset, length, flow: 'fetch', begins: true, settings }
      yield isPath ? { ...asked, own: true } : asked
    }
  }
}
