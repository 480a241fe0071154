import { decode } from '../model/text.ts'

/** How a body differs from the file that was built; null where it is the same. */
export type Difference = 'a page' | 'changed' | 'another'

/** As much of a text as is compared; UTF-16 units. */
const mostCompared = 2_000_000

/**
 * Tells a page in place of a file, and what was changed on the way (blanks taken out, something put in), from other content.
 * @param isPage whether the file itself is a page
 */
export function differenceOf(
  built: Uint8Array,
  came: Uint8Array,
  contentType: string,
  isPage: boolean,
): Difference | null {
  if (sameBytes(built, came)) return null
  if (!isPage && /^text\/html\b/i.test(contentType)) return 'a page'
  const isText = !built.includes(0)
  return isText && isChanged(decode(built), decode(came)) ? 'changed' : 'another'
}

export function sameBytes(one: Uint8Array, other: Uint8Array): boolean {
  if (one.length !== other.length) return false
  for (let at = 0; at < one.length; at++) if (one[at] !== other[at]) return false
  return true
}

/** The same text with other blanks, or with nearly all of it left around what was put in. */
function isChanged(built: string, came: string): boolean {
  if (built.length > mostCompared || came.length > mostCompared) return false
  const [bare, other] = [built, came].map((text) => text.replace(/\s+/g, '')) as [string, string]
  if (bare === other) return true
  const begins = sharedLength(bare, other, (text, at) => text.charCodeAt(at))
  const ends = sharedLength(bare, other, (text, at) => text.charCodeAt(text.length - 1 - at))
  return begins + ends >= bare.length && other.length > bare.length
}

function sharedLength(one: string, other: string, at: (text: string, index: number) => number): number {
  const most = Math.min(one.length, other.length)
  let length = 0
  while (length < most && at(one, length) === at(other, length)) length++
  return length
}
