import { type Scanned, scan, textBegins, textEnds, textTells } from '../scanner.ts'

/** A string, or one fixed part of a template, in a script. */
export interface Literal {
  /** The text with its escapes resolved. */
  readonly value: string
  /** Bounds of the text between the quotes. */
  readonly start: number
  readonly end: number
  /** Whether it begins, and ends, what the quotes enclose: a template's middle parts do neither. */
  readonly first: boolean
  readonly last: boolean
}

/** Longer strings are data, not names or URLs. */
const longest = 65_536

/** Numbers a literal takes. */
const width = 3

/**
 * The literals of a script, in order; data is left out. A bundle has a hundred thousand: they are kept
 * as numbers, and only those that are requested become texts.
 */
export class Literals {
  readonly #code: string
  #telling: Literal[] | null = null
  readonly scanned: Scanned

  constructor(code: string) {
    this.#code = code
    this.scanned = scan(code)
  }

  /** Those that may name a file, hold a URL or markup, or need a closer look for their escapes. */
  get telling(): readonly Literal[] {
    if (this.#telling === null) {
      this.#telling = []
      const { texts } = this.scanned
      for (let i = 0; i < texts.length; i += width) {
        if (((texts[i + 2] ?? 0) & textTells) !== 0 && this.#isKept(i)) this.#telling.push(this.#at(i))
      }
    }
    return this.#telling
  }

  /** The literal that holds an offset, or null. */
  around(offset: number): Literal | null {
    const { texts } = this.scanned
    let low = 0
    let high = texts.length / width - 1
    while (low <= high) {
      const middle = (low + high) >> 1
      if ((texts[middle * width] ?? 0) > offset) high = middle - 1
      else if ((texts[middle * width + 1] ?? 0) <= offset) low = middle + 1
      else return this.#isKept(middle * width) ? this.#at(middle * width) : null
    }
    return null
  }

  #isKept(i: number): boolean {
    const { texts } = this.scanned
    return (texts[i + 1] ?? 0) - (texts[i] ?? 0) <= longest
  }

  #at(i: number): Literal {
    const { texts } = this.scanned
    const start = texts[i] ?? 0
    const end = texts[i + 1] ?? 0
    const bits = texts[i + 2] ?? 0
    const value = unescapeScript(this.#code.slice(start, end))
    return { value, start, end, first: (bits & textBegins) !== 0, last: (bits & textEnds) !== 0 }
  }
}

const escapes = /\\(?:u\{([\da-f]+)\}|u([\da-f]{4})|x([\da-f]{2})|(\r\n|[\s\S]))/gi
const named: Readonly<Record<string, string>> = {
  n: '\n',
  r: '\r',
  t: '\t',
  b: '\b',
  f: '\f',
  v: '\v',
  '0': '\0',
}

/** Resolves the escapes of an ECMAScript string (ECMA-262, 12.9.4). */
export function unescapeScript(text: string): string {
  if (!text.includes('\\')) return text
  return text.replace(escapes, (_, braced?: string, four?: string, two?: string, other?: string) => {
    const hex = braced ?? four ?? two
    if (hex !== undefined) {
      const code = Number.parseInt(hex, 16)
      return code > 0x10ffff ? '\ufffd' : String.fromCodePoint(code)
    }
    if (other === undefined || /[\r\n]/.test(other)) return ''
    return named[other] ?? other
  })
}

/** The code just before an offset, blanks and block comments skipped, at most `width` characters of it. */
export function codeBefore(code: string, offset: number, width = 48): string {
  let end = offset
  for (;;) {
    while (end > 0 && code.charCodeAt(end - 1) <= 32) end--
    if (code.charCodeAt(end - 1) !== 47 || code.charCodeAt(end - 2) !== 42) break
    const open = code.lastIndexOf('/*', end - 3)
    if (open < 0) break
    end = open
  }
  return code.slice(Math.max(0, end - width), end)
}

/** The code just after an offset, blanks skipped. */
export function codeAfter(code: string, offset: number, width = 32): string {
  let start = offset
  while (start < code.length && code.charCodeAt(start) <= 32) start++
  return code.slice(start, start + width)
}
