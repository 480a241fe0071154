import { scan } from './scan.ts'

/**
 * What may be the bodies of a script's functions, in the order of their beginnings; from brace to brace, both included. The blocks
 * of other statements are among them: a parser knows them apart.
 */
export interface Bodies {
  readonly starts: readonly number[]
  readonly ends: readonly number[]
  /** The body that each stands in, by its index; -1 for none. */
  readonly outer: readonly number[]
}

/** The innermost body that holds an offset, by its index; -1 for none. */
export function bodyAt({ starts, ends, outer }: Bodies, offset: number): number {
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

const none: Bodies = { starts: [], ends: [], outer: [] }

/** What an open bracket begins, where it is no body. */
const parentheses = -2
const braces = -1

/** Finds the braces behind a parenthesis or an arrow, and the ones that close them, without a parse; none where brackets do not fit. */
export function bodiesIn(code: string): Bodies {
  const starts: number[] = []
  const ends: number[] = []
  const outer: number[] = []
  const open: number[] = []
  let inside = -1
  let fits = true
  const onBracket = (at: number, character: number): void => {
    if (character === 40) open.push(parentheses)
    else if (character === 123 && isBehindHead(code, at)) {
      outer.push(inside)
      inside = starts.push(at) - 1
      ends.push(code.length)
      open.push(inside)
    } else if (character === 123) open.push(braces)
    else {
      const begun = open.pop() ?? parentheses
      fits &&= (begun === parentheses) === (character === 41)
      if (begun < 0) return
      ends[begun] = at + 1
      inside = outer[begun] as number
    }
  }
  scan(code, () => {}, onBracket)
  return fits && open.length === 0 ? { starts, ends, outer } : none
}

function isBehindHead(code: string, brace: number): boolean {
  let at = brace - 1
  while (at >= 0 && code.charCodeAt(at) <= 32) at--
  const before = code.charAt(at)
  return before === ')' || (before === '>' && code.charAt(at - 1) === '=')
}
