import { scan } from './scan.ts'

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

/** The literals of a script, in order. Empty ones and data are left out. */
export function literalsOf(code: string): Literal[] {
  const found: Literal[] = []
  scan(code, (start, end, _quote, first, last) => {
    if (end <= start || end - start > longest) return
    found.push({ value: unescapeScript(code.slice(start, end)), start, end, first, last })
  })
  return found
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
