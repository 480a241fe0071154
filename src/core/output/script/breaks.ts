import type { Break } from '../../model/facts.ts'
import { firstErrorIn, largestScript } from '../../syntax/parse.ts'
import type { Mentions } from '../words.ts'

/** What no script begins with: markup, and bytes that are no text. */
const begins = /^\s*[<\u0000-\u0008\u000e-\u001f\ufffd]/

/** What marks a merge that is not done, at the start of a line. */
const mergeMark = '<<<<<<<'
export const breakWords = [mergeMark]

/** Longer scripts are bundles, which no template fills in; UTF-16 units. */
const longestByHand = 50_000

/**
 * Where a file stops being a script, as one that was cut off, holds the marks of a merge, or is a page; null where it is whole. A
 * script is parsed only where something is odd about it: parsing all takes as long as everything else.
 */
export function breakIn(code: string, isOdd: boolean, mentions: Mentions): Break | null {
  const isSuspect =
    isOdd ||
    begins.test(code.slice(0, 200)) ||
    hasMergeMark(code, mentions) ||
    // Libraries for templates know the mark too, and bundles hold them.
    (code.length < longestByHand && code.includes('<%'))
  if (!isSuspect || code.length > largestScript) return null
  const at = firstErrorIn(code)
  if (at === null) return null
  // At the end of a text there is nothing to show.
  const last = Math.max(0, code.trimEnd().length - 1)
  return { offset: Math.min(at, last), length: 1, isCut: at > last }
}

/** Libraries that compare texts hold the mark in a string. */
function hasMergeMark(code: string, mentions: Mentions): boolean {
  return mentions.of(mergeMark).some((at) => at === 0 || /[\r\n]/.test(code.charAt(at - 1)))
}
