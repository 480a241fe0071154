/** Where an address leads, as seen by a stranger's browser. */
export type AddressKind =
  | 'own origin'
  | 'other origin'
  | 'loopback'
  | 'private network'
  | 'local name'
  | 'reserved name'
  | 'unfinished'

/**
 * 127/8, ::1, localhost and every name below it (RFC 6761, 6.3), and the addresses that servers listen on when they mean all of
 * their own (0.0.0.0, ::).
 * @param hostname as a URL gives it: the URL parser has normalised odd notations
 */
export function isLoopback(hostname: string): boolean {
  return (
    /^(?:.+\.)?localhost\.?$/.test(hostname) ||
    /^(?:127\.|0\.0\.0\.0$)/.test(hostname) ||
    /^\[::(?:1|ffff:7f[\da-f]{2}:[\da-f]+)?\]$/.test(hostname)
  )
}

/** Networks that are not reached from outside: RFC 1918, RFC 6598, RFC 3927, RFC 4193, RFC 4291 (2.5.6). */
export function isPrivateNetwork(hostname: string): boolean {
  return (
    /^(?:10\.|192\.168\.|172\.(?:1[6-9]|2\d|3[01])\.|100\.(?:6[4-9]|[7-9]\d|1[01]\d|12[0-7])\.|169\.254\.)/.test(
      hostname,
    ) || /^\[(?:f[cd][\da-f]{2}|fe[89ab][\da-f]):/.test(hostname)
  )
}

/** Names that only a network of its own knows: without a dot, or below a name that is kept for such networks (RFC 6762, RFC 8375). */
export function isLocalName(hostname: string): boolean {
  return (
    !/[.:]/.test(hostname) ||
    /\.(?:local|internal|intranet|lan|home|corp|private|home\.arpa)\.?$/.test(hostname)
  )
}

/** Names that nobody can have: RFC 2606, RFC 6761. */
export function isReservedName(hostname: string): boolean {
  return /(?:^|\.)(?:example|test|invalid|example\.(?:com|net|org))\.?$/.test(hostname)
}

/** What stands in an address until somebody writes the real one. */
const unfinished =
  /[<>{}]|%3[CE]|%7[BD]|\$\{|(?:^|[./@-])(?:todo|tbd|fixme|change-?me|replace-?me|placeholder|xxx+|your[-_]?(?:api|app|backend|company|domain|host|hostname|project|server|site|tenant|url|website)[\w-]*)(?=$|[./:-])/i

/** Whether somebody is still to write the address: `https://<your-host>/`, `https://TODO`. */
export function isUnfinished(url: string): boolean {
  const whole = /^(?:[a-z]+:)?\/\/([^/?#]*)/i.exec(url)?.[1] ?? url
  // `https://{s}.tiles.example/{z}/{x}/{y}.png`: a map fills these in as it runs.
  const authority = whole.replace(/\{[a-z]\}/g, 'x')
  return unfinished.test(authority)
}

/** Where a URL leads; null when it is no absolute http or ws URL. Notations are normalised by the URL standard first. */
export function addressKind(url: string, ownOrigin: string): AddressKind | null {
  if (/^(?:https?|wss?):\/\//i.test(url) && isUnfinished(url)) return 'unfinished'
  if (!URL.canParse(url)) return null
  const { hostname, origin, protocol } = new URL(url)
  if (!/^(?:https?|wss?):$/.test(protocol)) return null
  if (origin === ownOrigin || origin === ownOrigin.replace(/^http/, 'ws')) return 'own origin'
  if (isLoopback(hostname)) return 'loopback'
  if (isPrivateNetwork(hostname)) return 'private network'
  if (isLocalName(hostname)) return 'local name'
  return isReservedName(hostname) ? 'reserved name' : 'other origin'
}

/** Ports that development servers take by default. They raise a doubt, no more: others use them too. */
const developmentPorts = new Set([
  '1234',
  '3000',
  '3001',
  '4000',
  '4200',
  '4321',
  '5000',
  '5173',
  '5174',
  '8000',
  '8080',
  '8081',
  '8787',
  '8888',
  '9000',
])

/** Whether a URL names a port that development servers like to take. */
export function hasDevelopmentPort(url: string): boolean {
  return URL.canParse(url) && developmentPorts.has(new URL(url).port)
}
