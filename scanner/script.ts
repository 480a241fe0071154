import { endOfLine, endOfNumber, endOfRegex, endOfWord, isDigit, isInWords, isWideBlank } from './ends'
import { isOfModule, kindOfWord } from './keywords'
import { beginNotes, endOfNotes, noteThree, noteTwo } from './notes'
import {
  ARROW,
  BLOCK,
  BRACE_CLOSE,
  BRACE_OPEN,
  BREAK,
  COLON,
  DOT,
  ELSE,
  FUNCTION,
  FUNCTION_EXPRESSION,
  FUNCTION_STATEMENT,
  HEAD,
  isExpression,
  NAME,
  OBJECT,
  OPERATOR,
  opensBlock,
  PAREN_CLOSE,
  PAREN_OPEN,
  PARENS,
  RETURN,
  SEMICOLON,
  START,
  STATEMENT_PARENS,
  TEMPLATE_HOLE,
} from './states'

// What a note says of a text, in bits.
const ENDS = 1
const BEGINS = 2
const TELLS = 4

/** A bracket or a text is not closed, or one is too many. */
export let isOdd: bool = false
/** Where the first statement stands that only a module may hold; -1 where there is none. */
export let moduleAt: i32 = -1

/**
 * Goes once over ECMAScript source and notes its strings and template parts, knowing comments and regular expressions:
 * where each begins and ends, and three bits. What is no valid script is read as far as it makes sense.
 *
 * Whether a slash opens a regular expression is decided from the token before it and from a stack of what each
 * open bracket belongs to, as the grammar's lexical goal symbols ask (ECMA-262, 12 "Lexical Grammar").
 * @param stack as many bytes as the text has units, and one
 * @param brackets notes every round bracket and every brace instead, those of a template's holes apart: where, and which
 * @returns where the notes end
 */
export function scan(units: usize, length: i32, stack: usize, notes: usize, brackets: bool): usize {
  beginNotes(notes)
  const end = units + ((<usize>length) << 1)
  let top = stack
  store<u8>(top, BLOCK)
  let p = units
  let before = START
  let operand = true // whether an operand may come next, so that a slash opens a regular expression
  let lineBroken = false
  let odd = false
  /** Where a part of a template begins; 0 where none does. */
  let part: usize = 0
  moduleAt = -1
  if (load<u16>(p) === 35 && load<u16>(p, 2) === 33) p = endOfLine(p + 4, end)

  while (p < end) {
    const c: i32 = load<u16>(p)
    if (c <= 32 || isWideBlank(c)) {
      if (c === 10 || c === 13 || c === 0x2028 || c === 0x2029) lineBroken = true
      p += 2
      continue
    }
    if (isInWords(c)) {
      const start = p
      if (isDigit(c)) {
        p = endOfNumber(p, end)
        before = NAME
        operand = false
        lineBroken = false
        continue
      }
      p = endOfWord(p, end)
      const size = <i32>((p - start) >> 1)
      const kind = before === DOT ? NAME : kindOfWord(start, size)
      if (kind === NAME) {
        // `of` before an expression, and nothing else, leaves an operand to come.
        const isOf = size === 2 && load<u16>(start) === 111 && load<u16>(start, 2) === 102
        operand = isOf && !operand && before === NAME
      } else if (kind === FUNCTION) {
        const made = isExpression(load<u8>(top), before, operand, lineBroken)
        store<u8>(++top, made ? FUNCTION_EXPRESSION : FUNCTION_STATEMENT)
        operand = false
      } else {
        if (kind === BREAK && moduleAt < 0 && size === 6 && isOfModule(start, top === stack))
          moduleAt = <i32>((start - units) >> 1)
        operand = kind === OPERATOR || kind === ELSE || kind === RETURN
      }
      before = kind
      lineBroken = false
      continue
    }
    switch (c) {
      case 34: // "
      case 39: {
        let q = p + 2
        let bits = BEGINS | ENDS
        for (; q < end; q += 2) {
          const inner: i32 = load<u16>(q)
          // An unescaped line break ends a broken string.
          if (inner === c || inner === 10) break
          if (inner === 92) {
            bits |= TELLS
            q += 2
            if (load<u16>(q) === 13 && load<u16>(q, 2) === 10) q += 2
          } else if (inner === 46 || inner === 47 || inner === 60) bits |= TELLS
        }
        if (load<u16>(q) !== c) odd = true
        if (!brackets) noteThree(<i32>((p + 2 - units) >> 1), <i32>((q - units) >> 1), bits)
        p = q + 2
        before = NAME
        operand = false
        break
      }
      case 96: // `
        part = p + 2
        break
      case 47: {
        const next: i32 = load<u16>(p, 2)
        if (next === 47) {
          p = endOfLine(p + 4, end)
          continue
        }
        if (next === 42) {
          p += 4
          while (p < end && !(load<u16>(p) === 42 && load<u16>(p, 2) === 47)) {
            if (load<u16>(p) === 10) lineBroken = true
            p += 2
          }
          p = p < end ? p + 4 : end
          continue
        }
        const stop = operand ? endOfRegex(p + 2, end) : 0
        p = stop === 0 ? p + 2 : stop
        before = stop === 0 ? OPERATOR : NAME
        operand = stop === 0
        break
      }
      case 40: // (
        store<u8>(++top, before === HEAD ? STATEMENT_PARENS : PARENS)
        if (brackets) noteTwo(<i32>((p - units) >> 1), c)
        p += 2
        before = PAREN_OPEN
        operand = true
        break
      case 123: {
        const isBlock = opensBlock(load<u8>(top), before, operand, lineBroken)
        store<u8>(++top, isBlock ? BLOCK : OBJECT)
        if (brackets) noteTwo(<i32>((p - units) >> 1), c)
        p += 2
        before = BRACE_OPEN
        operand = true
        break
      }
      case 41: // )
      case 125: {
        p += 2
        if (top === stack) {
          odd = true
          operand = true
        } else {
          let closed: i32 = load<u8>(top--)
          if (closed === TEMPLATE_HOLE && c === 125) {
            part = p
            break
          }
          if (brackets) noteTwo(<i32>((p - 2 - units) >> 1), c)
          if (closed === BLOCK && <i32>load<u8>(top) >= FUNCTION_STATEMENT) closed = load<u8>(top--)
          operand = (closed & 1) === 0
        }
        before = c === 41 ? PAREN_CLOSE : operand ? BRACE_CLOSE : NAME
        break
      }
      case 93: // ]
        p += 2
        before = NAME
        operand = false
        break
      case 59:
        p += 2
        before = SEMICOLON
        operand = true
        break
      case 58:
        if (<i32>load<u8>(top) >= FUNCTION_STATEMENT) top--
        p += 2
        before = COLON
        operand = true
        break
      case 46: // .
        if (isDigit(load<u16>(p, 2))) {
          p = endOfNumber(p, end)
          before = NAME
        } else {
          p += 2
          before = DOT
        }
        operand = false
        break
      case 63: // ? and ?.
        if (load<u16>(p, 2) === 46 && !isDigit(load<u16>(p, 4))) {
          p += 4
          before = DOT
          operand = false
        } else {
          p += 2
          before = OPERATOR
          operand = true
        }
        break
      case 61: // = and =>
        if (load<u16>(p, 2) === 62) {
          p += 4
          before = ARROW
        } else {
          p += 2
          before = OPERATOR
        }
        operand = true
        break
      case 43: // ++ and -- keep what stood before: they may end an operand or begin one
      case 45:
        if (load<u16>(p, 2) === c) {
          p += 4
        } else {
          p += 2
          before = OPERATOR
          operand = true
        }
        break
      case 35: // a private name
      case 92: // an escape in a name
      case 64:
        p += 2
        break
      default:
        p += 2
        before = OPERATOR
        operand = true
    }
    if (part > 0) {
      let bits = c === 96 ? BEGINS : 0
      let stop = 0
      let q = part
      for (; q < end; q += 2) {
        const inner: i32 = load<u16>(q)
        if (inner === 96 || (inner === 36 && load<u16>(q, 2) === 123)) {
          stop = inner
          break
        }
        if (inner === 46 || inner === 47 || inner === 60) bits |= TELLS
        else if (inner === 92) {
          bits |= TELLS
          q += 2
        }
      }
      if (stop === 96) bits |= ENDS
      if (stop === 0) odd = true
      else if (!brackets) noteThree(<i32>((part - units) >> 1), <i32>((q - units) >> 1), bits)
      if (stop === 36) store<u8>(++top, TEMPLATE_HOLE)
      p = stop === 0 ? end : q + (stop === 36 ? 4 : 2)
      before = stop === 36 ? OPERATOR : NAME
      operand = stop === 36
      part = 0
    }
    lineBroken = false
  }
  for (; top > stack; top--) if (<i32>load<u8>(top) < FUNCTION_STATEMENT) odd = true
  isOdd = odd
  return endOfNotes()
}
