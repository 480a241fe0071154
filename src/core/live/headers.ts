import type { FileFacts } from '../model/facts.ts'
import { allows, isOneByOne, parsePolicy, sourcesOf } from '../model/policy.ts'
import type { Site } from '../model/site.ts'

/** For how long a browser keeps an answer without asking again (RFC 9111, 4.2.1); null where nothing is said. Seconds. */
export function keptFor(headers: ReadonlyMap<string, string>): number | null {
  const control = headers.get('cache-control') ?? ''
  if (/\bno-(?:cache|store)\b/i.test(control)) return 0
  const [, age] = /(?<![\w-])max-age="?(\d+)/i.exec(control) ?? []
  if (age !== undefined) return Number(age)
  const [expires, date] = [headers.get('expires'), headers.get('date')].map((text) => Date.parse(text ?? ''))
  if (expires === undefined || Number.isNaN(expires)) return headers.has('expires') ? 0 : null
  return Math.max(
    0,
    Math.round((expires - (date === undefined || Number.isNaN(date) ? Date.now() : date)) / 1000),
  )
}

/**
 * Why a Content Security Policy that pages come with stops the site's own scripts (CSP 3, 6.7.2); null where it does not.
 */
export function policyStops(
  headers: ReadonlyMap<string, string>,
  site: Site,
  facts: readonly FileFacts[],
): string | null {
  const policies = (headers.get('content-security-policy') ?? '').split(',')
  const hasScripts = facts.some(({ kind }) => kind === 'script')
  const own = new URL(site.origin)
  for (const policy of policies) {
    const sources = sourcesOf(parsePolicy(policy), ['script-src-elem', 'script-src', 'default-src'])
    // What a nonce or a hash lets in loads the rest by itself, or is named one by one.
    if (sources === null || !hasScripts || isOneByOne(sources) || allows(sources, own, own)) continue
    return `The header content-security-policy says script-src ${sources.join(' ') || "'none'"}, which lets no script of ${site.origin} run.`
  }
  return null
}
