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

/** Addresses of services that a page gives its scripts: `<meta name="api-url" content="…">`, `<body data-api="…">`. */
export function* servicesFor(attributes: Attributes, at: number): Generator<EndpointLiteral> {
  const name = attributes.get('name')?.value
  const content = attributes.get('content')
  const given = name && content ? [[name, content] as const] : []
  for (const [key, { value, offset, length }] of [...given, ...attributes.beginning('data-')]) {
    if (
      nearby.test(value) &&
      isServiceKey(key.slice(Math.max(key.lastIndexOf(':'), key.lastIndexOf('.')) + 1))
    )
      yield { url: value, offset: at + offset, length, flow: 'configuration', begins: true }
  }
}
