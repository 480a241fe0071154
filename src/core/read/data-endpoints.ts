import type { EndpointLiteral } from '../model/facts.ts'

/** A member of a JSON text whose value is an absolute URL, or a host of the own machine. */
const member =
  /"([\w.-]{1,60})"\s*:\s*"((?:(?:https?|wss?):(?:\\?\/){2}|(?:localhost|127\.\d+\.\d+\.\d+)(?=[:"]))[^"\s<>]{0,400})"/gi

/** Keys that say that their value is where a service is. Plain `url` and `href` are links in most data. */
const serviceKey =
  /^(?:base_?ur[li]|endpoints?|host|servers?|backend|authority|issuer|api|(?:\w+[_-]?)?(?:api|server|backend|graphql|socket|ws|auth|service|base)[_-]?(?:ur[li]|endpoint|host|root|base|origin|address)?)$/i

/** Addresses of services that a page reads from data when it runs: runtime configuration beside it or inside it. */
export function endpointsInData(text: string, at = 0): EndpointLiteral[] {
  if (!text.includes('//') && !text.includes('localhost')) return []
  const found: EndpointLiteral[] = []
  for (const { 0: whole, 1: key = '', 2: written = '', index } of text.matchAll(member)) {
    if (!serviceKey.test(key)) continue
    const offset = at + index + whole.length - 1 - written.length
    found.push({
      url: written.replaceAll('\\/', '/'),
      offset,
      length: written.length,
      flow: 'configuration',
      begins: true,
    })
  }
  return found
}

const hint = /<link[^>]{0,400}rel\s*=\s*["']?(?:preconnect|dns-prefetch)\b[^>]{0,400}>/gi
const target = /href\s*=\s*["']?((?:(?:https?:)?\/\/)[^\s"'>]+)/i

/** Origins that a page connects to beforehand (HTML standard, 4.6.7). */
export function endpointsInHints(text: string): EndpointLiteral[] {
  if (!/preconnect|dns-prefetch/i.test(text)) return []
  return [...text.matchAll(hint)].flatMap(({ 0: tag, index }) => {
    const match = target.exec(tag)
    const written = match?.[1]
    if (!match || written === undefined) return []
    const offset = index + match.index + match[0].length - written.length
    return [{ url: written, offset, length: written.length, flow: 'preconnect', begins: true }]
  })
}

const policy = /<meta[^>]{0,200}http-equiv\s*=\s*["']?content-security-policy["'\s][^>]{0,4000}>/gi
const source = /(?:https?|wss?):\/\/[^\s;"'<>]+/gi

/** The origins that a page's own policy names (Content Security Policy, W3C). */
export function endpointsInPolicy(text: string): EndpointLiteral[] {
  if (!/content-security-policy/i.test(text)) return []
  return [...text.matchAll(policy)].flatMap(({ 0: tag, index }) =>
    [...tag.matchAll(source)].map((match) => ({
      url: match[0],
      offset: index + match.index,
      length: match[0].length,
      flow: 'policy',
      begins: true,
    })),
  )
}
