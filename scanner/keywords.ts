import { BREAK, DECLARE, ELSE, FUNCTION, HEAD, NAME, OPERATOR, RETURN } from './states'
import { standsAt } from './text'

/** What stood before when a word ends: its kind as a keyword, else {@link NAME}. Most names are known by length and first letter. */
export function kindOfWord(p: usize, size: i32): i32 {
  const c: i32 = load<u16>(p)
  switch (size) {
    case 2:
      if (c === 105) return standsAt(p, 'if') ? HEAD : standsAt(p, 'in') ? OPERATOR : NAME
      return c === 100 && standsAt(p, 'do') ? OPERATOR : NAME
    case 3:
      if (c === 118) return standsAt(p, 'var') ? DECLARE : NAME
      if (c === 110) return standsAt(p, 'new') ? OPERATOR : NAME
      if (c === 102) return standsAt(p, 'for') ? HEAD : NAME
      return c === 116 && standsAt(p, 'try') ? BREAK : NAME
    case 4:
      if (c === 99) return standsAt(p, 'case') ? OPERATOR : NAME
      if (c === 118) return standsAt(p, 'void') ? OPERATOR : NAME
      if (c === 101) return standsAt(p, 'else') ? ELSE : NAME
      return c === 119 && standsAt(p, 'with') ? HEAD : NAME
    case 5:
      if (c === 99) {
        if (standsAt(p, 'const')) return DECLARE
        return standsAt(p, 'class') ? FUNCTION : standsAt(p, 'catch') ? BREAK : NAME
      }
      if (c === 116) return standsAt(p, 'throw') ? OPERATOR : NAME
      if (c === 119) return standsAt(p, 'while') ? HEAD : NAME
      return c === 98 && standsAt(p, 'break') ? BREAK : NAME
    case 6:
      if (c === 114) return standsAt(p, 'return') ? RETURN : NAME
      if (c === 116) return standsAt(p, 'typeof') ? OPERATOR : NAME
      if (c === 100) return standsAt(p, 'delete') ? OPERATOR : NAME
      if (c === 115) return standsAt(p, 'switch') ? BREAK : NAME
      return (c === 101 && standsAt(p, 'export')) || (c === 105 && standsAt(p, 'import')) ? BREAK : NAME
    case 7:
      if (c === 102) return standsAt(p, 'finally') ? BREAK : NAME
      return (c === 100 && standsAt(p, 'default')) || (c === 101 && standsAt(p, 'extends')) ? OPERATOR : NAME
    case 8:
      if (c === 102) return standsAt(p, 'function') ? FUNCTION : NAME
      return (c === 99 && standsAt(p, 'continue')) || (c === 100 && standsAt(p, 'debugger')) ? BREAK : NAME
    case 10:
      return c === 105 && standsAt(p, 'instanceof') ? OPERATOR : NAME
    default:
      return NAME
  }
}

/** `import` and `export` as statements, which stand at the top, and `import.meta` anywhere; `import(…)` is for every script. */
export function isOfModule(p: usize, isAtTop: bool): bool {
  if (standsAt(p, 'export')) return isAtTop
  if (!standsAt(p, 'import')) return false
  let q = p + 12
  if (standsAt(q, '.meta')) return true
  const most = q + 80
  while (q < most && isBlank(load<u16>(q))) q += 2
  return isAtTop && q < most && opensImport(load<u16>(q))
}

/** What an import names first: a name, a list, everything, or the module itself. */
function opensImport(c: i32): bool {
  if (c === 34 || c === 39 || c === 123 || c === 42 || c === 36 || c === 95) return true
  return (c >= 48 && c <= 57) || (c >= 65 && c <= 90) || (c >= 97 && c <= 122)
}

/** White space and ends of lines (ECMA-262, 12.2 and 12.3). */
function isBlank(c: i32): bool {
  if (c < 128) return c === 32 || (c >= 9 && c <= 13)
  if (c >= 0x2000 && c <= 0x200a) return true
  if (c === 0xa0 || c === 0x1680 || c === 0x2028 || c === 0x2029) return true
  return c === 0x202f || c === 0x205f || c === 0x3000 || c === 0xfeff
}
