import type { IncomingMessage } from 'node:http'

/** Headers by name in small letters; one that came several times is joined by commas, as a browser joins it. */
export function headersOf({ rawHeaders }: IncomingMessage): Map<string, string> {
  const headers = new Map<string, string>()
  for (let at = 0; at + 1 < rawHeaders.length; at += 2) {
    const name = (rawHeaders[at] ?? '').toLowerCase()
    const value = rawHeaders[at + 1] ?? ''
    const before = headers.get(name)
    headers.set(name, before === undefined ? value : `${before}, ${value}`)
  }
  return headers
}
