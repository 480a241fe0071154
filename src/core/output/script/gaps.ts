import type { Span } from '../../model/facts.ts'
import { firstErrorIn } from '../../syntax/parse.ts'

/** Longer inline scripts are bundles, which no template fills in; UTF-16 units. */
const longest = 50_000

/** A sign that wants a value, and what can't begin one. */
const gap = /(?:[:=(,?]|(?<!\+)\+)\s*[;,})\]]/

/** A cheap look before a script is parsed. */
export function mayHoldGap(code: string): boolean {
  return code.length <= longest && gap.test(code)
}

/**
 * Where an inline script can not be parsed since nothing stands where a value should: `{ api: }`, `const x = ;`. A browser runs none
 * of such a script.
 */
export function gapIn(code: string): Span | null {
  const at = firstErrorIn(code)
  if (at === null) return null
  const before = code.slice(0, at).trimEnd()
  if (!/(?:[:=?]|(?<!\+)\+|[(,])$/.test(before)) return null
  const offset = Math.max(0, before.lastIndexOf('\n') + 1)
  const start = offset + (/^\s*/.exec(before.slice(offset))?.[0].length ?? 0)
  return { offset: start, length: Math.max(1, at + 1 - start) }
}
