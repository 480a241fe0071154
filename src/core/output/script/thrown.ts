import type { Occurrence } from '../../model/facts.ts'
import type { Trace } from '../../model/search.ts'
import { holdsNothing } from './empty-names.ts'

type ThrownTrace = Extract<Trace, { kind: 'thrown' }>

const beforeError = 160

/**
 * Where an error is thrown for want of a variable: `if (!import.meta.env.X) throw new Error("…")`. With a value a minifier
 * takes the statement away; one that leaves it asks for the value first.
 */
export function thrownIn(code: string, { name, read, message }: ThrownTrace): Occurrence[] {
  const found: Occurrence[] = []
  for (let at = code.indexOf(message); at >= 0; at = code.indexOf(message, at + 1)) {
    const before = code.slice(Math.max(0, at - beforeError), at)
    const [whole, test] = /([^{}]{0,80})\bthrow\s+(?:new\s+)?[\w$.]*Error\(\s*["'`]$/.exec(before) ?? []
    if (whole === undefined || test === undefined || !isReached(test, code, at - whole.length + test.length))
      continue
    found.push({ name, read, state: 'absent', offset: at, length: message.length })
  }
  return found
}

/** Whether what stands before the statement lets it be run: another statement, the start of a function, a test of nothing. */
function isReached(before: string, code: string, at: number): boolean {
  const start = at - before.length
  const text =
    before.trim() === '' && code.charAt(start - 1) === '{' ? headBefore(code, start - 1) : before.trim()
  if (text === '' || /(?:[;}]|=>|\bfunction\b[\w$\s]*\([^()]*\))$/.test(text)) return true
  const asked = /\bif\s*\(\s*!([^()]+)\)$/.exec(text)?.[1]?.trim()
  return (
    asked !== undefined && (isNothing(asked) || holdsNothing(asked, code.slice(Math.max(0, at - 20_000), at)))
  )
}

/** What a block stands behind: its test, or the function that it is of. */
function headBefore(code: string, brace: number): string {
  return code.slice(Math.max(0, brace - 120), brace).trim()
}

function isNothing(text: string): boolean {
  return /^(?:void 0|undefined|null|""|''|``|\{\}\.\w+)$/.test(text)
}
