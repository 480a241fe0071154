import { type Units, unitsOf } from '../units.ts'

/**
 * Called for every string literal and every fixed part of a template, in order.
 * `start` and `end` bound the text between the quotes; `quote` is the opening character's code.
 * `first` and `last` tell which part of a template this is; both are true for a string. `telling`: it holds a point, a
 * slash, an angle bracket or an escape, so that it may name a file or hold a URL.
 */
export type OnText = (
  start: number,
  end: number,
  quote: number,
  first: boolean,
  last: boolean,
  telling: boolean,
) => void

/** What is known of a script as a whole. */
export interface Scanned {
  /** It may be no script: a bracket or a text is not closed, or one is too many. It can be a script all the same. */
  readonly isOdd: boolean
  /** Where the first statement stands that only a module may hold; -1 where there is none. */
  readonly moduleAt: number
}

/** Called for every round bracket and every brace, in order; not for those of a template's holes. */
export type OnBracket = (at: number, character: number) => void

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
export function scan(code: string, onText: OnText, onBracket?: OnBracket): Scanned {
  const length = code.length
  const units = unitsOf(code)
  const stack: number[] = [BLOCK]
  let at = (units[0] as number) === 35 && (units[1] as number) === 33 ? lineEnd(code, 2) : 0
  let before = START
  let operand = true // whether an operand may come next, so that a slash opens a regular expression
  let lineBroken = false
  let isOdd = false
  let moduleAt = -1
  /** Where a part of a template begins; 0 where none does. */
  let partAt = 0

  while (at < length) {
    const c = units[at] as number
    if (c <= 32 || c === 0xa0 || c === 0xfeff || c === 0x2028 || c === 0x2029) {
      if (c === 10 || c === 13 || c === 0x2028 || c === 0x2029) lineBroken = true
      at++
      continue
    }
    if (c > 127 || word[c] === 1) {
      if (c >= 48 && c <= 57) {
        at = numberEnd(units, length, at)
        before = NAME
        operand = false
      } else {
        const start = at
        at = wordEnd(units, length, at)
        const kind = before === DOT ? undefined : keyword(units, start, at)
        if (kind === undefined) {
          // `of` before an expression, and nothing else, leaves an operand to come.
          operand =
            !operand &&
            before === NAME &&
            at - start === 2 &&
            (units[start] as number) === 111 &&
            (units[start + 1] as number) === 102
          before = NAME
        } else if (kind === FUNCTION) {
          stack.push(
            isExpression(stack[stack.length - 1] ?? BLOCK, before, operand, lineBroken)
              ? FUNCTION_EXPRESSION
              : FUNCTION_STATEMENT,
          )
          before = FUNCTION
          operand = false
        } else {
          if (
            kind === BREAK &&
            moduleAt < 0 &&
            at - start === 6 &&
            isOfModule(code, start, at, stack.length === 1)
          )
            moduleAt = start
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
        let end = at + 1
        let telling = false
        for (; end < length; end++) {
          const inner = units[end] as number
          // An unescaped line break ends a broken string.
          if (inner === c || inner === 10) break
          if (inner === 92) {
            telling = true
            end++
            if ((units[end] as number) === 13 && (units[end + 1] as number) === 10) end++
          } else if (inner === 46 || inner === 47 || inner === 60) telling = true
        }
        if ((units[end] as number) !== c) isOdd = true
        onText(at + 1, end, c, true, true, telling)
        at = end + 1
        before = NAME
        operand = false
        break
      }
      case 96: // `
        partAt = at + 1
        break
      case 47: {
        const next = units[at + 1] as number
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
        const end = operand ? regexEnd(units, length, at + 1) : -1
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
        onBracket?.(at, c)
        at++
        before = PAREN_OPEN
        operand = true
        break
      case 123: // {
        stack.push(opensBlock(stack[stack.length - 1] ?? BLOCK, before, operand, lineBroken) ? BLOCK : OBJECT)
        onBracket?.(at, c)
        at++
        before = BRACE_OPEN
        operand = true
        break
      case 41: // )
      case 125: {
        at++
        if (stack.length === 1) {
          isOdd = true
          operand = true
        } else {
          let closed = stack.pop() ?? BLOCK
          if (closed === TEMPLATE_HOLE && c === 125) {
            partAt = at
            break
          }
          onBracket?.(at - 1, c)
          if (closed === BLOCK && (stack[stack.length - 1] ?? BLOCK) >= FUNCTION_STATEMENT)
            closed = stack.pop() ?? BLOCK
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
        if ((stack[stack.length - 1] ?? BLOCK) >= FUNCTION_STATEMENT) stack.pop()
        at++
        before = COLON
        operand = true
        break
      case 46: // .
        if (isDigit(units[at + 1] as number)) {
          at = numberEnd(units, length, at)
          before = NAME
        } else {
          at++
          before = DOT
        }
        operand = false
        break
      case 63: // ? and ?.
        if ((units[at + 1] as number) === 46 && !isDigit(units[at + 2] as number)) {
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
        if ((units[at + 1] as number) === 62) {
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
        if ((units[at + 1] as number) === c) {
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
    if (partAt > 0) {
      const end = templatePart(units, length, partAt, c === 96, onText)
      isOdd ||= end >= length
      const isHole = end < length && (units[end] as number) === 36
      if (isHole) stack.push(TEMPLATE_HOLE)
      at = end >= length ? length : end + (isHole ? 2 : 1)
      before = isHole ? OPERATOR : NAME
      operand = isHole
      partAt = 0
    }
    lineBroken = false
  }
  isOdd ||= stack.some((each, index) => index > 0 && each < FUNCTION_STATEMENT)
  return { isOdd, moduleAt }
}

/** Whether a brace opens a block, and no object, by what it is in and what stands before it. */
function opensBlock(parent: number, before: number, operand: boolean, lineBroken: boolean): boolean {
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

function isExpression(parent: number, before: number, operand: boolean, lineBroken: boolean): boolean {
  if (!operand || before === ELSE || before === BREAK || before === BRACE_CLOSE) return false
  if (before === SEMICOLON) return parent === PARENS
  if (before === RETURN) return !lineBroken
  if (before === COLON || before === BRACE_OPEN) return parent !== BLOCK
  return before !== START && before !== PAREN_CLOSE
}

/**
 * Reads a part of a template, from just after its backquote or the brace that ends a hole.
 * @returns the offset of the backquote that ends it, or of the dollar sign of the next hole; the length of the text where neither comes
 */
function templatePart(units: Units, length: number, from: number, first: boolean, onText: OnText): number {
  let telling = false
  for (let i = from; i < length; i++) {
    const c = units[i] as number
    if (c === 46 || c === 47 || c === 60 || c === 92) telling = true
    if (c === 92) i++
    else if (c === 96 || (c === 36 && (units[i + 1] as number) === 123)) {
      onText(from, i, 96, first, c === 96, telling)
      return i
    }
  }
  return length
}

/** `import` and `export` as statements, which stand at the top, and `import.meta` anywhere; `import(…)` is for every script. */
function isOfModule(code: string, start: number, end: number, isAtTop: boolean): boolean {
  const word = code.slice(start, end)
  if (word !== 'import') return word === 'export' && isAtTop
  if (code.startsWith('.meta', end)) return true
  return isAtTop && /^\s*[\w$"'{*]/.test(code.slice(end, end + 40))
}

/** Keywords by length and first letter: most names are distinguished without being cut out. */
const keywordsAt: readonly (readonly string[])[] = Array.from({ length: 11 * 32 }, (_, slot) =>
  [...keywordKinds.keys()].filter((each) => each.length * 32 + (each.charCodeAt(0) & 31) === slot),
)

function keyword(units: Units, start: number, end: number): number | undefined {
  const size = end - start
  if (size < 2 || size > 10) return undefined
  const c = units[start] as number
  // No keyword of interest begins outside b to w.
  if (c < 98 || c > 119) return undefined
  const candidates = keywordsAt[size * 32 + (c & 31)]
  if (candidates === undefined) return undefined
  for (const candidate of candidates) {
    if (isWord(units, start, candidate)) return keywordKinds.get(candidate)
  }
  return undefined
}

function isWord(units: Units, start: number, word: string): boolean {
  for (let i = 0; i < word.length; i++) if (units[start + i] !== word.charCodeAt(i)) return false
  return true
}

function wordEnd(units: Units, length: number, from: number): number {
  let i = from + 1
  for (; i < length; i++) {
    const c = units[i] as number
    if (c < 128) {
      if (word[c] !== 1) break
    } else if (c === 0xa0 || c === 0xfeff || c === 0x2028 || c === 0x2029) break
  }
  return i
}

function numberEnd(units: Units, length: number, from: number): number {
  let i = from
  let pointed = false
  const hex = (units[from] as number) === 48 && ((units[from + 1] as number) | 32) === 120
  for (; i < length; i++) {
    const c = units[i] as number
    if (c < 128 && word[c] === 1) continue
    if (c === 46 && !hex) {
      // `1..x` is a number and a member; a second point ends the number.
      if (pointed) break
      pointed = true
      continue
    }
    const e = (units[i - 1] as number) | 32
    if ((c === 43 || c === 45) && e === 101 && !hex) continue
    break
  }
  return i
}

/** The end of a regular expression with its flags, or -1 when the line ends first and the slash was a division. */
function regexEnd(units: Units, length: number, from: number): number {
  let inClass = false
  for (let i = from; i < length; i++) {
    const c = units[i] as number
    if (c === 92) i++
    else if (c === 10 || c === 13) return -1
    else if (c === 91) inClass = true
    else if (c === 93) inClass = false
    else if (c === 47 && !inClass) return wordEnd(units, length, i)
  }
  return -1
}

function lineEnd(code: string, from: number): number {
  const end = code.indexOf('\n', from)
  return end < 0 ? code.length : end
}

function hasLineBreak(code: string, from: number, to: number): boolean {
  // A search that begins here could go on to the end of a file of one line.
  return code.slice(from, to).includes('\n')
}

function isDigit(c: number): boolean {
  return c >= 48 && c <= 57
}
