/**
 * What a page keeps for its scripts, by where it is kept: the content of `<meta name="x">` is `meta:x`, and what an inline script
 * writes to `window.x` is `window:x`.
 */
export type PageValue = readonly [key: string, text: string]

/** Stands before and after the key of such a value at the beginning of a reference. No URL holds it. */
const bound = '\u0001'

/** The beginning of a reference that is known once its page is. */
export function fromPage(key: string): string {
  return bound + key + bound
}

/** A reference with the value its page has; null when no page has one, as it is when it needs none. */
export function withPageValue(raw: string, values: ReadonlyMap<string, string>): string | null {
  if (!raw.startsWith(bound)) return raw
  const end = raw.indexOf(bound, 1)
  const value = values.get(raw.slice(1, end))
  return value === undefined ? null : value + raw.slice(end + 1)
}
