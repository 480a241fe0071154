/** The tokens of a style sheet that lead to URLs (CSS Syntax Level 3, 4.3). All others are passed over. */
export type CssToken =
  | 'at-keyword'
  | 'function'
  | 'string'
  | 'bad string'
  | 'url'
  | '('
  | ')'
  | '{'
  | '}'
  | ';'

type OnToken = (type: CssToken, start: number, end: number) => void

const nameStart = 1
const ofName = 2
const space = 4
const newline = 8
const hex = 16
const ofNoUrl = 32

/** What each character of ASCII may be. */
const traits = new Uint8Array(128)
for (let code = 0; code < 128; code++) {
  const character = String.fromCharCode(code)
  const is = (pattern: RegExp, trait: number): number => (pattern.test(character) ? trait : 0)
  traits[code] =
    is(/[A-Za-z_]/, nameStart) |
    is(/[\w-]/, ofName) |
    is(/[ \t\n\r\f]/, space) |
    is(/[\n\r\f]/, newline) |
    is(/[\da-fA-F]/, hex) |
    is(/[\0-\x08\x0b\x0e-\x1f\x7f"'(]/, ofNoUrl)
}

/** Where something other than a word, a number or a sign begins: few characters of a style sheet. */
const stops = new Uint8Array(128)
for (const stop of '"\'(@/<\\') stops[stop.charCodeAt(0)] = 1
for (const single of ')}{;') stops[single.charCodeAt(0)] = 2

/**
 * Calls back for each token that leads to a URL, with its bounds. What is broken is read on as the standard says. Words are not read
 * one by one: which word stands before a parenthesis is seen from there.
 */
export function tokensOfCss(css: string, onToken: OnToken): void {
  const words = new Words(css)
  const { length } = css
  let at = 0
  while (at < length) {
    const code = css.charCodeAt(at)
    const stop = code < 128 ? stops[code] : 0
    if (stop === 0) at++
    else if (code === 92) at = isEscape(css, at) ? words.passEscape(at) : at + 1
    else {
      if (stop === 2) onToken(css[at] as CssToken, at, ++at)
      else at = code === 40 ? passParenthesis(css, at, words.before(at), onToken) : pass(css, at, onToken)
      words.from = at
    }
  }
}

/** The words between two tokens, with the escapes in them. */
class Words {
  readonly #css: string
  /** The end of the token before. */
  from = 0
  #escapeEnd = -1
  #escapedWord = 0

  constructor(css: string) {
    this.#css = css
  }

  passEscape(at: number): number {
    this.#escapedWord = this.#startOf(at)
    this.#escapeEnd = escapeEnd(this.#css, at)
    return this.#escapeEnd
  }

  /** The start of the word that ends here; the same place where there is none: a number, the name of a colour, nothing. */
  before(at: number): number {
    const start = this.#startOf(at)
    return start < at && startsName(this.#css, start) && this.#css[start - 1] !== '#' ? start : at
  }

  #startOf(at: number): number {
    let start = at
    while (start > this.from && start !== this.#escapeEnd && isOf(this.#css.charCodeAt(start - 1), ofName))
      start--
    return start === this.#escapeEnd ? this.#escapedWord : start
  }
}

/** A parenthesis, that of a function, or a whole `url(…)` without quotes. */
function passParenthesis(css: string, at: number, word: number, onToken: OnToken): number {
  if (at - word === 3 && css.slice(word, at).toLowerCase() === 'url') {
    const first = css[spaceEnd(css, at + 1)]
    if (first !== '"' && first !== "'") return passUrl(css, word, onToken)
  }
  onToken(word < at ? 'function' : '(', word, at + 1)
  return at + 1
}

/** Goes over what starts here; gives its end. */
function pass(css: string, at: number, onToken: OnToken): number {
  switch (css[at]) {
    case '"':
    case "'":
      return passString(css, at, css.charCodeAt(at), onToken)
    case '@':
      return passAtKeyword(css, at, onToken)
    case '/':
      return css[at + 1] === '*' ? behind(css, '*/', at + 2) : at + 1
    default:
      return css.startsWith('<!--', at) ? at + 4 : at + 1
  }
}

function passAtKeyword(css: string, at: number, onToken: OnToken): number {
  if (!startsName(css, at + 1)) return at + 1
  const end = nameEnd(css, at + 1)
  onToken('at-keyword', at, end)
  return end
}

function passUrl(css: string, at: number, onToken: OnToken): number {
  let end = spaceEnd(css, at + 4)
  while (end < css.length && css[end] !== ')') {
    const code = css.charCodeAt(end)
    if (isOf(code, space)) {
      end = spaceEnd(css, end)
      if (end < css.length && css[end] !== ')') return badUrlEnd(css, end)
    } else if (isOf(code, ofNoUrl)) return badUrlEnd(css, end)
    else if (code !== 92) end++
    else if (isEscape(css, end)) end = escapeEnd(css, end)
    else return badUrlEnd(css, end)
  }
  end = Math.min(css.length, end + 1)
  onToken('url', at, end)
  return end
}

function badUrlEnd(css: string, at: number): number {
  let end = at
  while (end < css.length && css[end] !== ')') end = isEscape(css, end) ? escapeEnd(css, end) : end + 1
  return end + 1
}

function passString(css: string, at: number, quote: number, onToken: OnToken): number {
  let end = at + 1
  while (end < css.length) {
    const code = css.charCodeAt(end)
    if (code === quote) {
      onToken('string', at, end + 1)
      return end + 1
    }
    if (isOf(code, newline)) {
      onToken('bad string', at, newlineEnd(css, end))
      return newlineEnd(css, end)
    }
    if (code !== 92) end++
    else if (isEscape(css, end)) end = escapeEnd(css, end)
    else end = end + 1 < css.length ? newlineEnd(css, end + 1) : css.length
  }
  onToken('string', at, css.length)
  return css.length
}

function isOf(code: number, trait: number): boolean {
  return code < 128
    ? ((traits[code] ?? 0) & trait) !== 0
    : (trait & (nameStart | ofName)) !== 0 && code >= 128
}

function startsName(css: string, at: number): boolean {
  const from = css[at] === '-' ? at + 1 : at
  if (from > at && css[from] === '-') return true
  return isOf(css.charCodeAt(from), nameStart) || isEscape(css, from)
}

function nameEnd(css: string, at: number): number {
  let end = at
  for (;;) {
    if (isOf(css.charCodeAt(end), ofName)) end++
    else if (isEscape(css, end)) end = escapeEnd(css, end)
    else return end
  }
}

function isEscape(css: string, at: number): boolean {
  return css[at] === '\\' && at + 1 < css.length && !isOf(css.charCodeAt(at + 1), newline)
}

/** Up to six hexadecimal digits and a space behind them, or any character. */
function escapeEnd(css: string, at: number): number {
  let end = at + 1
  while (end < at + 7 && isOf(css.charCodeAt(end), hex)) end++
  if (end === at + 1) return at + 2
  return isOf(css.charCodeAt(end), space) ? newlineEnd(css, end) : end
}

function newlineEnd(css: string, at: number): number {
  return css.startsWith('\r\n', at) ? at + 2 : at + 1
}

function spaceEnd(css: string, at: number): number {
  let end = at
  while (isOf(css.charCodeAt(end), space)) end++
  return end
}

function behind(css: string, mark: string, from: number): number {
  const at = css.indexOf(mark, from)
  return at < 0 ? css.length : at + mark.length
}
