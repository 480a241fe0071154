import type { EndpointLiteral } from '../../model/facts.ts'
import { codeBefore, type Literals } from './literal.ts'

const absolute = /(?:https?|wss?):\/\/[^\s"'`<>\\{}|^]+/i

/** Calls that make a request of the URL they are given, as the code just before the literal shows them. */
const flows: readonly (readonly [string, RegExp])[] = [
  ['fetch', /(?:^|[^\w$])fetch\($/],
  ['WebSocket', /(?:^|[^\w$.])new WebSocket\($/],
  ['EventSource', /(?:^|[^\w$.])new EventSource\($/],
  ['sendBeacon', /\.sendBeacon\($/],
  ['XMLHttpRequest', /\.open\(["'`][A-Za-z]+["'`],$/],
]

/** Absolute http and ws URLs in a script, with the request they visibly flow into. */
export function endpointsOf(code: string, literals: Literals): EndpointLiteral[] {
  const found: EndpointLiteral[] = []
  for (const { value, start, end } of literals.telling) {
    if (value.length > 4_096 || !value.includes('://')) continue
    const match = absolute.exec(value)
    if (!match) continue
    const begins = match.index === 0
    const before = begins ? codeBefore(code, start - 1) : ''
    const flow = flows.find(([, pattern]) => pattern.test(before))?.[0] ?? null
    const offset = Math.min(end, start + match.index)
    found.push({ url: match[0], offset, length: Math.min(match[0].length, end - offset), flow, begins })
  }
  return found
}
