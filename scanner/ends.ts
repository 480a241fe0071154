// Where names, numbers, expressions and lines end: each is given where one begins and where the text ends.

/** One for letters, digits, `_` and `$`. */
const inWords = memory.data<u8>([
  0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0,
  1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 1,
  1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 0, 0, 0, 0, 1, 0, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1,
  1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 0, 0, 0, 0, 0,
])

export function isInWords(c: i32): bool {
  return c < 128 ? load<u8>(inWords + <usize>c) !== 0 : !isWideBlank(c)
}

export function isWideBlank(c: i32): bool {
  return c === 0xa0 || c === 0xfeff || c === 0x2028 || c === 0x2029
}

export function isDigit(c: i32): bool {
  return c >= 48 && c <= 57
}

export function endOfWord(from: usize, end: usize): usize {
  let p = from + 2
  while (p < end && isInWords(load<u16>(p))) p += 2
  return p
}

export function endOfNumber(from: usize, end: usize): usize {
  const hex = load<u16>(from) === 48 && (load<u16>(from, 2) | 32) === 120
  let pointed = false
  let p = from
  for (; p < end; p += 2) {
    const c: i32 = load<u16>(p)
    if (c < 128 && isInWords(c)) continue
    if (c === 46 && !hex) {
      // `1..x` is a number and a member; a second point ends the number.
      if (pointed) break
      pointed = true
      continue
    }
    if ((c === 43 || c === 45) && !hex && (load<u16>(p - 2) | 32) === 101) continue
    break
  }
  return p
}

/** The end of a regular expression with its flags, or 0 when the line ends first and the slash was a division. */
export function endOfRegex(from: usize, end: usize): usize {
  let inClass = false
  for (let p = from; p < end; p += 2) {
    const c: i32 = load<u16>(p)
    if (c === 92) p += 2
    else if (c === 10 || c === 13) return 0
    else if (c === 91) inClass = true
    else if (c === 93) inClass = false
    else if (c === 47 && !inClass) return endOfWord(p, end)
  }
  return 0
}

export function endOfLine(from: usize, end: usize): usize {
  let p = from
  while (p < end && load<u16>(p) !== 10) p += 2
  return p < end ? p : end
}
