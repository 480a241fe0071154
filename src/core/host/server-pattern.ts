/** Longer ones are not tried. UTF-16 units. */
const longest = 500

/**
 * A regular expression of a server's configuration (PCRE) as one of ECMAScript; null where that has no such words, or where trying it may
 * take for ever: a repetition within a repetition.
 */
export function serverPattern(source: string, ignoresCase: boolean): RegExp | null {
  const [, flags = '', rest = source] = /^\(\?([im]+)\)(.*)$/s.exec(source) ?? []
  const pattern = rest
    .replace(/\(\?P</g, '(?<')
    .replace(/\\A/g, '^')
    .replace(/\\[zZ]/g, '$')
  if (pattern.length > longest || repeatsRepetitions(pattern)) return null
  // PCRE alone: possessive and atomic groups, classes by name, `\h`, recursion, flags within.
  if (/(?<!\\)[+*?}]\+|\(\?[>|R0-9&im-]|\[\[:|\\[hHRKGQ]/.test(pattern)) return null
  try {
    return new RegExp(pattern, ignoresCase || flags.includes('i') ? 'i' : '')
  } catch {
    return null
  }
}

/** Whether a group that repeats something is repeated itself. */
function repeatsRepetitions(pattern: string): boolean {
  const open: boolean[] = []
  let repeats = false
  for (let at = 0; at < pattern.length; at++) {
    const character = pattern.charAt(at)
    if (character === '\\') at++
    else if (character === '[') at = classEnd(pattern, at)
    else if (character === '(') {
      open.push(repeats)
      repeats = false
    } else if (character === ')') {
      const isRepeated = /[*+{]/.test(pattern.charAt(at + 1))
      if (repeats && isRepeated) return true
      repeats = (open.pop() ?? false) || repeats || isRepeated
    } else if (/[*+{]/.test(character)) repeats = true
  }
  return false
}

function classEnd(pattern: string, begin: number): number {
  for (let at = begin + (pattern.charAt(begin + 1) === ']' ? 2 : 1); at < pattern.length; at++) {
    if (pattern.charAt(at) === '\\') at++
    else if (pattern.charAt(at) === ']') return at
  }
  return pattern.length
}
