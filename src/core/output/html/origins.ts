import type { EndpointLiteral } from '../../model/facts.ts'
import type { Attribute } from './scan.ts'

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
