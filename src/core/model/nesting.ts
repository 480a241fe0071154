/** Deeper data is written by no person, and parsers that call themselves for each level end in the middle of it. */
const deepest = 500

/**
 * Where data is nested more deeply than parsers take: by its open brackets, by the points of a name, or by what a line opens before
 * it says anything. Brackets in texts are counted too: that many stay open in none. Null where it is not.
 */
export function tooDeepAt(text: string): { readonly line: number; readonly column: number } | null {
  let open = 0
  let onLine = 0
  let line = 1
  let begins = 0
  for (let at = 0; at < text.length; at++) {
    const c = text.charCodeAt(at)
    if (c === 10) {
      line++
      begins = at + 1
      onLine = 0
    } else if (c === 91 || c === 123) open++
    else if (c === 93 || c === 125) open = Math.max(0, open - 1)
    // A dash, a question mark or a point, over and over.
    else if (c === 45 || c === 63 || c === 46) onLine++
    else if (c === 61 || c === 34 || c === 39 || c === 35) onLine = Number.NEGATIVE_INFINITY
    if (open > deepest || onLine > deepest) return { line, column: at - begins + 1 }
  }
  return null
}
