import type { FileFacts } from '../model/facts.ts'
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
  for (const policy of policies) {
    const sources = scriptSources(policy)
    if (sources === null || !hasScripts || sources.some((source) => allows(source, site))) continue
    return `The header content-security-policy says script-src ${sources.join(' ') || "'none'"}, which lets no script of ${site.origin} run.`
  }
  return null
}

function scriptSources(policy: string): string[] | null {
  const directives = policy.split(';').map((directive) => directive.trim().split(/\s+/))
  const of = (name: string): string[] | undefined => directives.find(([each]) => each?.toLowerCase() === name)
  const found = of('script-src-elem') ?? of('script-src') ?? of('default-src')
  return found ? found.slice(1) : null
}

function allows(source: string, { origin }: Site): boolean {
  const { host, protocol, hostname } = new URL(origin)
  const plain = source.toLowerCase()
  if (plain === "'self'" || plain === '*' || plain === protocol) return true
  // What a nonce or a hash lets in loads the rest by itself, or is named one by one.
  if (/^'(?:nonce-|sha\d+-|strict-dynamic)/.test(plain)) return true
  const named = plain.replace(/^https?:\/\//, '').split('/', 1)[0] ?? ''
  return named === host || named === hostname || (named.startsWith('*.') && hostname.endsWith(named.slice(1)))
}
