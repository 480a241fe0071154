import type { Harmless } from './outcome.ts'

/** A literal of an address is short; UTF-16 units. */
const longest = 2_048
/** As much of the code around it is looked at. */
const beside = 60

const ownAddress =
  /(?:\blocation(?:\.(?:href|origin|host|hostname))?|\b(?:window|self)\.origin)\s*(?:\|\||\?\?)$/
const comparison = /(?:[=!]==|[^=!<>]==|!=)$/
const endOfExpression = /^(?:[;,)}\]?]|&&|\|\||$)/
const startOfExpression = /(?:[(,;{}&|?[!]|\breturn)$/

/**
 * Why a literal is harmless, where what stands right beside it settles that: a tree of the whole script would say the same, and
 * takes eighty times as long. Null where it does not.
 * @param offset where the text begins, behind its quote
 */
export function settledAtOnce(code: string, offset: number): Harmless | null {
  const quote = code.charAt(offset - 1)
  if (!/["'`]/.test(quote)) return null
  const end = code.indexOf(quote, offset)
  const text = code.slice(offset, end)
  if (end < 0 || text.length > longest || /[\\\n]|\$\{/.test(text)) return null
  const before = code.slice(Math.max(0, offset - 1 - beside), offset - 1).trimEnd()
  const after = code.slice(end + 1, end + 1 + beside).trimStart()
  if (ownAddress.test(before) && endOfExpression.test(after)) return 'after own address'
  if (comparison.test(before) && (endOfExpression.test(after) || after.startsWith(':'))) return 'compared'
  if (/(?:^|[^\w$.])case$/.test(before) && after.startsWith(':')) return 'compared'
  return /^[=!]==?/.test(after) && startOfExpression.test(before) ? 'compared' : null
}
