import type { EndpointLiteral } from '../model/facts.ts'

/** A member of a JSON text whose value is an absolute URL, or a host of the own machine. */
const member =
  /"([\w.-]{1,60})"\s*:\s*"((?:(?:https?|wss?):(?:\\?\/){2}|(?:localhost|127\.\d+\.\d+\.\d+)(?=[:"]))[^"\s<>]{0,400})"/gi

/** Keys that say that their value is where a service is. Plain `url` and `href` are links in most data. */
const serviceKey =
  /^(?:base_?ur[li]|endpoints?|host|servers?|backend|authority|issuer|api|(?:\w+[_-]?)?(?:api|server|backend|graphql|socket|ws|auth|service|base)[_-]?(?:ur[li]|endpoint|host|root|base|origin|address)?)$/i

/** Whether a name says that its value is where a service is. */
export function isServiceKey(key: string): boolean {
  return serviceKey.test(key)
}

/** One of these stands in every text that holds an address; slashes may be escaped, as PHP writes them. */
const signs = ['//', '\\/\\/', 'localhost', '127.']

/** Addresses of services that a page reads from data when it runs: runtime configuration beside it or inside it. */
export function endpointsInData(text: string): EndpointLiteral[] {
  if (!signs.some((sign) => text.includes(sign))) return []
  const found: EndpointLiteral[] = []
  for (const { 0: whole, 1: key = '', 2: written = '', index } of text.matchAll(member)) {
    if (!serviceKey.test(key)) continue
    const offset = index + whole.length - 1 - written.length
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
