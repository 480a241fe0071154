/** The URLs of a `srcset`, with their offsets (HTML standard, 4.8.4.3.8 "Parsing a srcset attribute"). */
export function readSrcset(text: string): { url: string; offset: number }[] {
  const found: { url: string; offset: number }[] = []
  let at = 0
  while (at < text.length) {
    while (at < text.length && /[\s,]/.test(text.charAt(at))) at++
    const start = at
    while (at < text.length && !/\s/.test(text.charAt(at))) at++
    const url = text.slice(start, at).replace(/(?<!,),+$/, '')
    if (url !== '') found.push({ url, offset: start })
    // A URL that ended in a comma has no descriptor; else the descriptor runs to the next comma outside parentheses.
    if (text.charAt(at - 1) === ',') continue
    for (let depth = 0; at < text.length && (depth > 0 || text.charAt(at) !== ','); at++) {
      if (text.charAt(at) === '(') depth++
      else if (text.charAt(at) === ')') depth--
    }
  }
  return found
}
