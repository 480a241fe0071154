/** A Content Security Policy: what each directive lets a page load (CSP 3, 2.2). */
export type Policy = ReadonlyMap<string, readonly string[]>

/** Reads a policy as it stands in a header or in a page; of two directives of one name the first holds. */
export function parsePolicy(text: string): Policy {
  const found = new Map<string, readonly string[]>()
  for (const directive of text.split(';')) {
    const [name = '', ...sources] = directive.trim().split(/\s+/)
    const key = name.toLowerCase()
    if (key !== '' && !found.has(key)) found.set(key, sources)
  }
  return found
}

/** The sources of the first of these directives that a policy has; null where it has none, and all is let through. */
export function sourcesOf(policy: Policy, directives: readonly string[]): readonly string[] | null {
  for (const name of directives) {
    const sources = policy.get(name)
    if (sources) return sources
  }
  return null
}

/** Whether something is let through one by one, which only the browser can judge. */
export function isOneByOne(sources: readonly string[]): boolean {
  return sources.some((source) => /^'(?:nonce-|sha\d+-|strict-dynamic)/i.test(source))
}

/**
 * Whether one of the sources lets a URL through (CSP 3, 6.7.2 "URL Matching Algorithms").
 * @param self the origin of the page
 */
export function allows(sources: readonly string[], url: URL, self: URL): boolean {
  return sources.some((source) => allowsBy(source, url, self))
}

function allowsBy(source: string, url: URL, self: URL): boolean {
  const plain = source.toLowerCase()
  if (plain === '*') return ofNetwork.test(url.protocol)
  if (plain === "'self'")
    return (
      url.hostname === self.hostname && isUpgrade(self.protocol, url.protocol) && portOf(url) === portOf(self)
    )
  if (plain.startsWith("'")) return false
  if (/^[a-z][a-z\d+.-]*:$/.test(plain)) return isUpgrade(plain, url.protocol)
  const [, scheme, host = '', port, path] =
    /^(?:([a-z][a-z\d+.-]*:)\/\/)?([^:/]+)(?::(\d+|\*))?(\/.*)?$/i.exec(source) ?? []
  if (!isUpgrade(scheme?.toLowerCase() ?? self.protocol, url.protocol)) return false
  return (
    matchesHost(host.toLowerCase(), url.hostname) && matchesPort(port, url) && matchesPath(path, url.pathname)
  )
}

const ofNetwork = /^(?:https?|wss?):$/

/** A policy for one scheme holds for the secure one too, and for sockets of the same. */
function isUpgrade(from: string, to: string): boolean {
  if (from === to) return true
  if (from === 'http:') return ofNetwork.test(to)
  if (from === 'https:') return to === 'wss:'
  return from === 'ws:' && to === 'wss:'
}

function matchesHost(host: string, name: string): boolean {
  return host === '*' || host === name || (host.startsWith('*.') && name.endsWith(host.slice(1)))
}

/** The usual port stands for its secure one. */
function matchesPort(port: string | undefined, url: URL): boolean {
  if (port === '*') return true
  const own = portOf(url)
  return port === undefined
    ? own === portOf(new URL(`${url.protocol}//${url.hostname}`))
    : port === own || (port === '80' && own === '443')
}

function portOf({ port, protocol }: URL): string {
  return port || (/^(?:https|wss):$/.test(protocol) ? '443' : '80')
}

function matchesPath(path: string | undefined, wanted: string): boolean {
  if (path === undefined || path === '/') return true
  return path.endsWith('/') ? wanted.startsWith(path) : wanted === path
}
