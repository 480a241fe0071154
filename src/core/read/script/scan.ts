/**
 * Called for every string literal and every fixed part of a template, in order.
 * `start` and `end` bound the text between the quotes; `quote` is the opening character's code.
 * `first` and `last` tell which part of a template this is; both are true for a string.
 */
export type OnText = (start: number, end: number, quote: number, first: boolean, last: boolean) => void

// What stood before, as far as it decides whether a slash divides or opens a regular expression.
const START = 0
const NAME = 1 // identifiers, literals, closing brackets: an operand has just ended
const OPERATOR = 2 // an operand must follow
const PAREN_OPEN = 3
const PAREN_CLOSE = 4
const BRACE_OPEN = 5
const SEMICOLON = 6
const COLON = 7
const DOT = 8
const ARROW = 9
const ELSE = 10
const RETURN = 11
const HEAD = 12 // if, for, while, with: their parentheses are followed by a statement
const FUNCTION = 13 // function, class
const DECLARE = 14 // var, const
const BREAK = 15 // keywords after which neither an operand nor an operator is certain
const BRACE_CLOSE = 16

// What a bracket or a function belongs to. Odd numbers are expressions: after them a slash divides.
const BLOCK = 0
const OBJECT = 1
const TEMPLATE_HOLE = 2
const STATEMENT_PARENS = 4
const PARENS = 5
const FUNCTION_STATEMENT = 6
const FUNCTION_EXPRESSION = 7

const word = new Uint8Array(128)
for (const character of 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_$') {
  word[character.charCodeAt(0)] = 1
}

const keywordKinds = new Map<string, number>([
  ...['case', 'do', 'throw', 'new', 'extends', 'in', 'instanceof', 'typeof', 'void', 'delete', 'default'].map(
    (keyword) => [keyword, OPERATOR] as const,
  ),
  ...['if', 'for', 'while', 'with'].map((keyword) => [keyword, HEAD] as const),
  ...['break', 'catch', 'continue', 'debugger', 'finally', 'switch', 'try', 'export', 'import'].map(
    (keyword) => [keyword, BREAK] as const,
  ),
  ['else', ELSE],
  ['return', RETURN],
  ['function', FUNCTION],
  ['class', FUNCTION],
  ['var', DECLARE],
  ['const', DECLARE],
])

/**
 * Goes once over ECMAScript source and reports its strings and template parts, knowing comments and regular
 * expressions. Never throws: what is no valid script is read as far as it makes sense.
 *
 * Whether a slash opens a regular expression is decided from the token before it and from a stack of what each
 * open bracket belongs to, as the grammar's lexical goal symbols ask (ECMA-262, 12 "Lexical Grammar").
 */
export function scan(code: string, onText: OnText): void {
  const length = code.length
  const stack: number[] = [BLOCK]
  let at = code.charCodeAt(0) === 35 && code.charCodeAt(1) === 33 ? lineEnd(code, 2) : 0
  let before = START
  let operand = true // whether an operand may come next, so that a slash opens a regular expression
  let lineBroken = false

  const top = (): number => stack[stack.length - 1] ?? BLOCK

  const braceOpensBlock = (): boolean => {
    const parent = top()
    if (parent === FUNCTION_EXPRESSION || parent === FUNCTION_STATEMENT) return true
    if (before === COLON && (parent === BLOCK || parent === OBJECT)) return parent === BLOCK
    if (before === RETURN) return lineBroken
    if (before === NAME && operand) return lineBroken
    if (before === ELSE || before === SEMICOLON || before === START) return true
    if (before === PAREN_CLOSE || before === ARROW) return true
    if (before === BRACE_OPEN) return parent === BLOCK
    if (before === DECLARE || before === NAME) return false
    return !operand || before === BRACE_CLOSE
  }

  const functionIsExpression = (): boolean => {
    const parent = top()
    if (!operand || before === ELSE || before === BREAK || before === BRACE_CLOSE) return false
    if (before === SEMICOLON) return parent === PARENS
    if (before === RETURN) return !lineBroken
    if (before === COLON || before === BRACE_OPEN) return parent !== BLOCK
    return before !== START && before !== PAREN_CLOSE
  }

  /** Reads a template from just after its backquote or the brace that ends a hole. */
  const template = (from: number, first: boolean): number => {
    let i = from
    for (; i < length; i++) {
      const c = code.charCodeAt(i)
      if (c === 92) i++
      else if (c === 96) {
        onText(from, i, 96, first, true)
        before = NAME
        operand = false
        return i + 1
      } else if (c === 36 && code.charCodeAt(i + 1) === 123) {
        onText(from, i, 96, first, false)
        stack.push(TEMPLATE_HOLE)
        before = OPERATOR
        operand = true
        return i + 2
      }
    }
    return length
  }

  while (at < length) {
    const c = code.charCodeAt(at)
    if (c <= 32 || c === 0xa0 || c === 0xfeff || c === 0x2028 || c === 0x2029) {
      if (c === 10 || c === 13 || c === 0x2028 || c === 0x2029) lineBroken = true
      at++
      continue
    }
    if (c > 127 || word[c] === 1) {
      if (c >= 48 && c <= 57) {
        at = numberEnd(code, at)
        before = NAME
        operand = false
      } else {
        const start = at
        at = wordEnd(code, at)
        const kind = before === DOT ? undefined : keyword(code, start, at)
        if (kind === undefined) {
          // `of` before an expression, and nothing else, leaves an operand to come.
          operand =
            !operand &&
            before === NAME &&
            at - start === 2 &&
            code.charCodeAt(start) === 111 &&
            code.charCodeAt(start + 1) === 102
          before = NAME
        } else if (kind === FUNCTION) {
          stack.push(functionIsExpression() ? FUNCTION_EXPRESSION : FUNCTION_STATEMENT)
          before = FUNCTION
          operand = false
        } else {
          before = kind
          operand = kind === OPERATOR || kind === ELSE || kind === RETURN
        }
      }
      lineBroken = false
      continue
    }
    switch (c) {
      case 34: // "
      case 39: {
        const end = stringEnd(code, at + 1, c)
        onText(at + 1, end, c, true, true)
        at = end + 1
        before = NAME
        operand = false
        break
      }
      case 96: // `
        at = template(at + 1, true)
        break
      case 47: {
        const next = code.charCodeAt(at + 1)
        if (next === 47) {
          at = lineEnd(code, at + 2)
          continue
        }
        if (next === 42) {
          const end = code.indexOf('*/', at + 2)
          const stop = end < 0 ? length : end + 2
          if (!lineBroken) lineBroken = hasLineBreak(code, at, stop)
          at = stop
          continue
        }
        const end = operand ? regexEnd(code, at + 1) : -1
        if (end < 0) {
          at++
          before = OPERATOR
          operand = true
        } else {
          at = end
          before = NAME
          operand = false
        }
        break
      }
      case 40: // (
        stack.push(before === HEAD ? STATEMENT_PARENS : PARENS)
        at++
        before = PAREN_OPEN
        operand = true
        break
      case 123: // {
        stack.push(braceOpensBlock() ? BLOCK : OBJECT)
        at++
        before = BRACE_OPEN
        operand = true
        break
      case 41: // )
      case 125: {
        at++
        if (stack.length === 1) {
          operand = true
        } else {
          let closed = stack.pop() ?? BLOCK
          if (closed === TEMPLATE_HOLE && c === 125) {
            at = template(at, false)
            break
          }
          if (closed === BLOCK && top() >= FUNCTION_STATEMENT) closed = stack.pop() ?? BLOCK
          operand = (closed & 1) === 0
        }
        before = c === 41 ? PAREN_CLOSE : operand ? BRACE_CLOSE : NAME
        break
      }
      case 93: // ]
        at++
        before = NAME
        operand = false
        break
      case 59:
        at++
        before = SEMICOLON
        operand = true
        break
      case 58:
        if (top() >= FUNCTION_STATEMENT) stack.pop()
        at++
        before = COLON
        operand = true
        break
      case 46: // .
        if (isDigit(code.charCodeAt(at + 1))) {
          at = numberEnd(code, at)
          before = NAME
        } else {
          at++
          before = DOT
        }
        operand = false
        break
      case 63: // ? and ?.
        if (code.charCodeAt(at + 1) === 46 && !isDigit(code.charCodeAt(at + 2))) {
          at += 2
          before = DOT
          operand = false
        } else {
          at++
          before = OPERATOR
          operand = true
        }
        break
      case 61: // = and =>
        if (code.charCodeAt(at + 1) === 62) {
          at += 2
          before = ARROW
        } else {
          at++
          before = OPERATOR
        }
        operand = true
        break
      case 43: // ++ and -- keep what stood before: they may end an operand or begin one
      case 45:
        if (code.charCodeAt(at + 1) === c) {
          at += 2
        } else {
          at++
          before = OPERATOR
          operand = true
        }
        break
      case 35: // a private name
      case 92: // an escape in a name
      case 64:
        at++
        break
      default:
        at++
        before = OPERATOR
        operand = true
    }
    lineBroken = false
  }
}

/** Keywords by length and first letter: most names are told apart without being cut out. */
const keywordsAt: readonly (readonly string[])[] = Array.from({ length: 11 * 32 }, (_, slot) =>
  [...keywordKinds.keys()].filter((each) => each.length * 32 + (each.charCodeAt(0) & 31) === slot),
)

function keyword(code: string, start: number, end: number): number | undefined {
  const size = end - start
  if (size < 2 || size > 10) return undefined
  const c = code.charCodeAt(start)
  // No keyword of interest begins outside b to w.
  if (c < 98 || c > 119) return undefined
  const candidates = keywordsAt[size * 32 + (c & 31)]
  if (candidates === undefined) return undefined
  for (const candidate of candidates) {
    if (code.startsWith(candidate, start)) return keywordKinds.get(candidate)
  }
  return undefined
}

function wordEnd(code: string, from: number): number {
  let i = from + 1
  for (; i < code.length; i++) {
    const c = code.charCodeAt(i)
    if (c < 128) {
      if (word[c] !== 1) break
    } else if (c === 0xa0 || c === 0xfeff || c === 0x2028 || c === 0x2029) break
  }
  return i
}

function numberEnd(code: string, from: number): number {
  let i = from
  const hex = code.charCodeAt(from) === 48 && (code.charCodeAt(from + 1) | 32) === 120
  for (; i < code.length; i++) {
    const c = code.charCodeAt(i)
    if (c < 128 && word[c] === 1) continue
    if (c === 46 && !hex) {
      // `1..x` is a number and a member; a second point ends the number.
      if (code.slice(from, i).includes('.')) break
      continue
    }
    const e = code.charCodeAt(i - 1) | 32
    if ((c === 43 || c === 45) && e === 101 && !hex) continue
    break
  }
  return i
}

/** Where a string ends; an unescaped line break ends a broken one. */
function stringEnd(code: string, from: number, quote: number): number {
  let i = from
  for (; i < code.length; i++) {
    const c = code.charCodeAt(i)
    if (c === quote || c === 10) return i
    if (c === 92) {
      i++
      if (code.charCodeAt(i) === 13 && code.charCodeAt(i + 1) === 10) i++
    }
  }
  return i
}

/** The end of a regular expression with its flags, or -1 when the line ends first and the slash was a division. */
function regexEnd(code: string, from: number): number {
  let inClass = false
  for (let i = from; i < code.length; i++) {
    const c = code.charCodeAt(i)
    if (c === 92) i++
    else if (c === 10 || c === 13) return -1
    else if (c === 91) inClass = true
    else if (c === 93) inClass = false
    else if (c === 47 && !inClass) return wordEnd(code, i)
  }
  return -1
}

function lineEnd(code: string, from: number): number {
  const end = code.indexOf('\n', from)
  return end < 0 ? code.length : end
}

function hasLineBreak(code: string, from: number, to: number): boolean {
  const at = code.indexOf('\n', from)
  return at >= 0 && at < to
}

function isDigit(c: number): boolean {
  return c >= 48 && c <= 57
}
