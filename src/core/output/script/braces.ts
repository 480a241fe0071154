import { scanBrackets } from '../scanner.ts'

/**
 * What may be the bodies of a script's functions, and its longer object literals, in the order of their beginnings; from brace to
 * brace, both included. Some blocks of other statements are among them: a parser knows them apart.
 */
export interface Braces {
  readonly starts: readonly number[]
  readonly ends: readonly number[]
  /** The braces that each stand in, by their index; -1 for none. */
  readonly outer: readonly number[]
}

/** The innermost braces around an offset, by their index; -1 for none. */
export function bracesAt({ starts, ends, outer }: Braces, offset: number): number {
  let low = 0
  let high = starts.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((starts[middle] as number) <= offset) low = middle + 1
    else high = middle
  }
  let at = low - 1
  while (at >= 0 && (ends[at] as number) <= offset) at = outer[at] as number
  return at
}

const none: Braces = { starts: [], ends: [], outer: [] }

/** What an open bracket begins, where it is not noted. */
const parenthesis = -2
const otherBrace = -1

/** Finds the braces whose end is far enough to pass over them, without a parse; none where brackets do not fit. */
export function bracesIn(code: string, least: number): Braces {
  const starts: number[] = []
  const ends: number[] = []
  const outer: number[] = []
  const open: number[] = []
  let inside = -1
  let fits = true
  const close = (begun: number, end: number): void => {
    inside = outer[begun] as number
    ends[begun] = end
    const isLast = begun === starts.length - 1
    if (isLast && end - (starts[begun] as number) < least)
      for (const each of [starts, ends, outer]) each.pop()
  }
  const onBracket = (at: number, character: number): void => {
    if (character === 40) open.push(parenthesis)
    else if (character === 123 && mayBePassed(code, at)) {
      outer.push(inside)
      inside = starts.push(at) - 1
      ends.push(code.length)
      open.push(inside)
    } else if (character === 123) open.push(otherBrace)
    else {
      const begun = open.pop() ?? parenthesis
      fits &&= (begun === parenthesis) === (character === 41)
      if (begun >= 0) close(begun, at + 1)
    }
  }
  const found = scanBrackets(code)
  for (let i = 0; i < found.length; i += 2) onBracket(found[i] as number, found[i + 1] as number)
  return fits && open.length === 0 ? { starts, ends, outer } : none
}

/** Whether a brace stands behind the head of a function, or where a value begins. */
function mayBePassed(code: string, brace: number): boolean {
  let at = brace - 1
  while (at >= 0 && code.charCodeAt(at) <= 32) at--
  const before = code.charAt(at)
  return before === '>' ? code.charAt(at - 1) === '=' : before !== '' && '(),:=[?|&'.includes(before)
}
