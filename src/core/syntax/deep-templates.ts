/** Nobody nests templates so deeply. */
const deepest = 200

/**
 * Whether templates stand in one another's holes more deeply than a parser takes: it calls itself for each, and where the stack ends
 * in the middle of a pattern's compilation, the engine ends the whole process.
 */
export function hasDeepTemplates(code: string): boolean {
  if (!code.includes('${')) return false
  const isHole: boolean[] = []
  let holes = 0
  for (let at = 0; at < code.length; at++) {
    const c = code.charCodeAt(at)
    if (c === 123) {
      const opens = code.charCodeAt(at - 1) === 36
      isHole.push(opens)
      if (opens && ++holes > deepest) return true
    } else if (c === 125 && isHole.pop() === true) holes--
  }
  return false
}
