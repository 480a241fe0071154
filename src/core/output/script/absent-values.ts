import type { EndpointLiteral } from '../../model/facts.ts'
import type { Mentions } from '../words.ts'
import { codeBefore, type Literal, type Literals } from './literal.ts'

/** Looked at in one file: a library tests for what is not there in many places. */
const mostCandidates = 40

const absentStarts = ['undefined/', 'undefined?']
const nothing = 'void 0'

/** What they are found by. */
export const absentWords = [...absentStarts, nothing, '}={', '}.']

/** How a request is made; a text of it near a place is the reason to look closer. */
const requesting = /\bfetch\(|new (?:URL|WebSocket|EventSource)\(|\.open\(/

/** `{apiUrl:`, `baseUrl=`: a name that is given an address. */
const addressName =
  /(?:[{,]["']?|[;{,\s(])([\w$]*(?:url|uri|api|host|endpoint|base|origin|server))["']?[:=]$/i

/** Where nothing stands as the address of a request, by what is before it; with what the request is. */
const asAddress: readonly (readonly [string, RegExp])[] = [
  ['fetch', /(?:^|[^\w$.])fetch\($/],
  ['WebSocket', /new WebSocket\($/],
  ['EventSource', /new EventSource\($/],
  // A relative address needs a base: without one the browser throws.
  ['URL', /new URL\(["'`]\.{0,2}\/[^"'`]+["'`],$/],
]

/**
 * Where the address of a request may begin with a value that is not there, as `undefined`: the texts that show it, and
 * the places where nothing is handed on as an address. What becomes of it is followed later.
 */
export function absentValues(code: string, literals: Literals, mentions: Mentions): EndpointLiteral[] {
  const found: EndpointLiteral[] = []
  for (const each of candidates(code, literals, mentions)) {
    if (found.length >= mostCandidates) break
    found.push({
      url: each.url ?? 'undefined',
      offset: each.offset,
      length: each.length,
      flow: each.flow,
      begins: true,
    })
  }
  return found
}

interface Candidate {
  readonly offset: number
  readonly length: number
  /** The request that it is seen to be the address of; null where it must be followed. */
  readonly flow: string | null
  readonly url?: string
}

function* candidates(code: string, literals: Literals, mentions: Mentions): Generator<Candidate> {
  yield* inTexts(code, literals, mentions)
  yield* ofNothing(code, mentions)
  yield* ofMissingMembers(code, mentions)
}

/** `` `undefined/v1/sailings` ``, and `src="undefined/logo.png"` in markup. */
function* inTexts(code: string, literals: Literals, mentions: Mentions): Generator<Candidate> {
  for (const start of absentStarts) {
    for (const at of mentions.of(start)) {
      const literal = literals.around(at)
      if (literal?.first && literal.start === at) yield ofLiteral(code, literal)
      else if (/\b(?:src|href|action|poster)=\\?["']$/.test(code.slice(at - 12, at)))
        yield { offset: at, length: start.length, flow: 'element' }
    }
  }
}

function ofLiteral(code: string, { start, end, value }: Literal): Candidate {
  const before = codeBefore(code, start - 1)
  const flow = asAddress.find(([, pattern]) => pattern.test(before))?.[0] ?? null
  return { offset: start, length: end - start, flow, url: value }
}

function* ofNothing(code: string, mentions: Mentions): Generator<Candidate> {
  const text = nothing
  for (const at of mentions.of(text)) {
    const after = code.charAt(at + text.length)
    if (!/[,)};]/.test(after) || !/[(,:=]/.test(code.charAt(at - 1))) continue
    const before = code.slice(Math.max(0, at - 100), at)
    const flow = asAddress.find(([, pattern]) => pattern.test(before))?.[0] ?? null
    if (flow !== null || mayBeAddress(code, { at, end: at + text.length, before }))
      yield { offset: at, length: text.length, flow }
  }
}

/** Whether a closer look is worth the parsing of the script. */
function mayBeAddress(
  code: string,
  { at, end, before }: { at: number; end: number; before: string },
): boolean {
  // A helper that puts paths behind what it is given; a class that is made with it, and asks.
  if (before.endsWith('(')) {
    if (/^,["'`]\//.test(code.slice(end, end + 3))) return true
    return before.endsWith('}(') && requesting.test(code.slice(Math.max(0, at - 400), at))
  }
  const name = addressName.exec(before)?.[1]
  if (name !== undefined) return isUsed(code, name)
  // A default that is none: `function get(path, base = void 0) { return fetch(base + path) }`.
  return (
    /[(,][\w$]+=$/.test(before) &&
    /^\)(?:=>|\{)/.test(code.slice(end, end + 3)) &&
    requesting.test(code.slice(end, end + 200))
  )
}

/** A hole of a template, or the arguments of a request, that end here. */
const inHole = /\$\{[^{}]{0,80}$/
const inRequest = /(?:\bfetch|\bURL|WebSocket|EventSource|\.open)\([^()]{0,80}$/

/** Whether a member of that name is put before something, or passed to a request or, before a path, to a helper. */
function isUsed(code: string, name: string): boolean {
  const text = `.${name}`
  for (let at = code.indexOf(text); at >= 0; at = code.indexOf(text, at + 1)) {
    const end = at + text.length
    const after = code.charAt(end)
    if (after === '+' || (after === ',' && /^["'`]\//.test(code.slice(end + 1, end + 3)))) return true
    if (!/[}),]/.test(after)) continue
    if ((after === '}' ? inHole : inRequest).test(code.slice(Math.max(0, at - 100), at))) return true
  }
  return false
}

/** `var{VITE_API:e}={}` and `{MODE:"production"}.VITE_API`: a whole environment has no such member. */
function* ofMissingMembers(code: string, mentions: Mentions): Generator<Candidate> {
  for (const at of mentions.of('}={')) {
    const from = code.lastIndexOf('{', at - 1)
    const pattern = at - from < 400 ? code.slice(from + 1, at) : ''
    const given = code.slice(at + 3, code.indexOf('}', at + 3))
    const match = /(?:^|,)["']?([A-Z][A-Z\d]*_[A-Z\d_]+)["']?:([\w$]+)(?=,|$)/.exec(pattern)
    const [whole = '', key = '', name = ''] = match ?? []
    if (match && !holds(given, key))
      yield { offset: from + 1 + match.index + whole.length - name.length, length: name.length, flow: null }
  }
  for (const at of mentions.of('}.')) {
    const name = /^[A-Z][A-Z\d]*_[A-Z\d_]+(?=[+}])/.exec(code.slice(at + 2, at + 66))?.[0]
    const given = name === undefined ? '' : code.slice(code.lastIndexOf('{', at) + 1, at)
    if (name !== undefined && given.length < 400 && !holds(given, name))
      yield { offset: at + 2, length: name.length, flow: null }
  }
}

function holds(members: string, name: string): boolean {
  return new RegExp(`(?:^|[\\s,"'])${name}["']?\\s*[:,]|\\.\\.\\.`).test(`${members},`)
}
