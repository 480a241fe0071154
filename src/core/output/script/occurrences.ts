import type { Occurrence } from '../../model/facts.ts'
import type { Search, SearchedValue, Trace } from '../../model/search.ts'
import { base64SpellingsOf, spellingsOf } from '../../model/spellings.ts'
import { emptyOwners, isVoidName } from './empty-names.ts'
import { codeAfter, codeBefore, type Literal, type Literals } from './literal.ts'
import { thrownIn } from './thrown.ts'

type TemplateTrace = Extract<Trace, { kind: 'template' }>
type BlankTrace = Extract<Trace, { kind: 'blank' }>
type PropertyTrace = Extract<Trace, { kind: 'property' }>

/** How far the other keys of an object may stand from one of them in built code. */
const objectWidth = 600

/** Where the searched for variables show in a script: their values, or `undefined` where a value should stand. */
export function occurrencesOf(code: string, literals: Literals, search: Search): Occurrence[] {
  const found = valuesIn(code, search).filter(({ offset }) => literals.around(offset) !== null)
  const objects = search.traces.some(({ kind }) => kind === 'object') ? environmentObjectsIn(code) : []
  for (const trace of search.traces) {
    if (trace.kind === 'property') found.push(...matchProperty(code, trace))
    else if (trace.kind === 'template') found.push(...matchTemplates(code, literals, trace))
    else if (trace.kind === 'thrown') found.push(...thrownIn(code, trace))
    else if (trace.kind === 'object') found.push(...objects.flatMap((object) => matchObject(object, trace)))
  }
  for (const name of search.names) found.push(...matchMember(code, name))
  for (const name of search.ofProcess ?? []) found.push(...matchMember(code, name, 'unreplaced'))
  for (const { name, role, value } of search.values)
    if (role === 'private')
      found.push(...splitIn(code, value).map((span) => ({ name, state: role, read: null, ...span })))
  return found
}

/** A value is known to begin by so many characters; then it may be cut anywhere. */
const beginning = 4
const joint = /(["'`])\s*\+\s*["'`]/y

/** A value cut into texts that are added: `"sk-4f"+"9a…"`. */
function splitIn(code: string, value: string): { offset: number; length: number }[] {
  if (value.length < 2 * beginning) return []
  return [...offsetsOf(code, value.slice(0, beginning))].flatMap((start) => {
    let at = start
    let joints = 0
    for (let index = 0; index < value.length; ) {
      if (code.charAt(at) === value.charAt(index)) {
        at++
        index++
        continue
      }
      joint.lastIndex = at
      if (joints++ > value.length || !joint.test(code)) return []
      at = joint.lastIndex
    }
    return joints > 0 ? [{ offset: start, length: at - start }] : []
  })
}

/** Where searched for values stand in a text of any kind. */
export function valuesIn(text: string, search: Search): Occurrence[] {
  const found: Occurrence[] = []
  for (const { name, role, forms } of formsOf(search)) {
    for (const written of forms) {
      for (const at of offsetsOf(text, written)) {
        found.push({ name, state: role, read: null, offset: at, length: written.length })
      }
    }
  }
  return found
}

/** A value with the ways in which it may be written. */
interface Forms extends Pick<SearchedValue, 'name' | 'role'> {
  readonly forms: readonly string[]
}

const formsByHunt = new WeakMap<Search, readonly Forms[]>()

/** Put together once for all files. What must not be known is looked for in base64 too. */
function formsOf(search: Search): readonly Forms[] {
  const known = formsByHunt.get(search)
  if (known) return known
  const made = search.values.map(({ name, role, value }) => {
    const encoded = role === 'private' ? base64SpellingsOf(value) : []
    return { name, role, forms: [...spellingsOf(value), ...encoded] }
  })
  formsByHunt.set(search, made)
  return made
}

/** Marks of absence in the markup of a page: `%NAME%` left as it was, `href="undefined/v1"`. */
export function tracesInMarkup(text: string, search: Search): Occurrence[] {
  return search.traces.flatMap((trace) => {
    const { name, read } = trace
    if (trace.kind === 'blank') return betweenIn(text, trace)
    const mark = markOf(trace)
    if (mark === null) return []
    return [...offsetsOf(text, mark)]
      .filter((at) => mark.startsWith('%') || !/[\w/.-]/.test(text.charAt(at - 1)))
      .map((offset): Occurrence => ({ name, read, state: 'absent', offset, length: mark.length }))
  })
}

/** Nothing, or something, between the two texts that a template has around it. */
function betweenIn(text: string, { name, read, before, after }: BlankTrace): Occurrence[] {
  return [...offsetsOf(text, before)].flatMap((offset): Occurrence[] => {
    const start = offset + before.length
    const [nothing = ''] = /^(?:""|''|null|undefined)?/.exec(text.slice(start, start + 9)) ?? []
    if (text.startsWith(after, start + nothing.length))
      return [{ name, read, state: 'absent', offset, length: before.length + nothing.length }]
    const line = /^[^\n\r]{0,400}/.exec(text.slice(start, start + 400))?.[0] ?? ''
    return line.indexOf(after) > 0 ? [{ name, read, state: 'present', offset, length: before.length }] : []
  })
}

function markOf(trace: Trace): string | null {
  if (trace.kind === 'marker') return trace.marker
  // What stands after it must be long enough to be the source's own words.
  return trace.kind === 'template' && trace.before.length + trace.after.length >= 3
    ? `${trace.before}undefined${trace.after}`
    : null
}

interface WrittenObject {
  readonly text: string
  readonly offset: number
}

/** The whole environment as bundlers write it: known by the names that every build sets, or exported under its own name. */
const wholeEnvironment =
  /\{[^{}]*?\b(?:MODE|NODE_ENV|BASE_URL)["']?:\s*["'`][^{}]*\}|(?<=\bexport const env\s{0,4}=\s{0,4})\{[^{}]*\}/g

function environmentObjectsIn(code: string): WrittenObject[] {
  return [...code.matchAll(wholeEnvironment)].map(({ 0: text, index }) => ({ text, offset: index }))
}

function matchObject({ text, offset }: WrittenObject, { name, read }: Trace): Occurrence[] {
  const member = new RegExp(`[{,]\\s*["'\`]?${name}["'\`]?\\s*:\\s*(void 0|undefined)?`).exec(text)
  const state = member && member[1] === undefined ? 'present' : 'lacking'
  return [{ name, read, state, offset: offset + (member?.index ?? 0), length: member?.[0].length ?? 1 }]
}

function* offsetsOf(code: string, text: string): Generator<number> {
  for (let at = code.indexOf(text); at >= 0; at = code.indexOf(text, at + 1)) yield at
}

/** The literals that hold the fixed text beside the variable, each looked at once. */
function matchTemplates(code: string, literals: Literals, trace: TemplateTrace): Occurrence[] {
  const near = trace.after === '' ? trace.before : trace.after
  const found: Occurrence[] = []
  let last = -1
  for (const at of offsetsOf(code, near)) {
    const literal = literals.around(at)
    if (literal === null || literal.start === last) continue
    last = literal.start
    const occurrence = matchTemplate(code, literal, trace)
    if (occurrence) found.push(occurrence)
  }
  return found
}

const joinedVoid = /(?:void 0|undefined)\s*[+,]$|\$\{\s*(?:void 0|undefined)\s*\}$/

const voidBehind = /^\+\s*(?:void 0|undefined)\b/

/**
 * A minifier folds `${undefined}/v1` into the text `undefined/v1`; one that does not leaves `void 0+"/v1"`.
 * Where the variable had a value, the same text stands without either.
 */
function matchTemplate(code: string, literal: Literal, trace: TemplateTrace): Occurrence | null {
  const { name, read, before, after } = trace
  const sight = (state: Occurrence['state'], at: number, length: number): Occurrence => ({
    name,
    read,
    state,
    offset: Math.min(literal.end, literal.start + at),
    length,
  })
  const folded = `${before}undefined${after}`
  const at = before === '' ? (literal.value.startsWith(folded) ? 0 : -1) : literal.value.indexOf(folded)
  if (at >= 0 && literal.first) return sight('absent', at, folded.length)
  if (before === '' && after !== '' && literal.value.startsWith(after)) {
    const start = literal.first ? literal.start - 1 : literal.start
    const joined = codeBefore(code, start, 80)
    return joinedVoid.test(joined) || isVoidName(code, start, joined)
      ? sight('absent', 0, after.length)
      : null
  }
  if (before !== '' && after === '' && literal.last && literal.value.endsWith(before)) {
    if (voidBehind.test(codeAfter(code, literal.end + 1)))
      return sight('absent', literal.value.length - before.length, before.length)
  }
  const start = presentAt(literal, trace)
  return start < 0 || isModuleName(code, literal)
    ? null
    : sight('present', start, before.length + after.length)
}

/** An address says enough, however little stands after it. */
const address = /^(?:https?:|wss?:)?\/\/./i

/** Where the fixed texts stand with something between them: what follows the variable ends the literal, or is followed by a hole. */
function presentAt({ value, first }: Literal, { before, after }: TemplateTrace): number {
  if (value.includes('undefined') || !first) return -1
  const tells = Math.max(before.length, after.length) >= 4 || address.test(value)
  const start = before === '' ? 0 : value.indexOf(before)
  const fits = start >= 0 && value.endsWith(after) && value.length > start + before.length + after.length
  return tells && fits ? start : -1
}

/** `import("./v1/list")`: the name of a file is no address. */
function isModuleName(code: string, { start }: Literal): boolean {
  return /(?:\bfrom|\bimport|\bimport\()$/.test(codeBefore(code, start - 1, 12))
}

/** `key:void 0` in an object that has the other keys too. The other keys tell it from a library's own object. */
function matchProperty(code: string, trace: PropertyTrace): Occurrence[] {
  const found: Occurrence[] = []
  const key = trace.key.replace(/[$]/g, '\\$&')
  const pattern = new RegExp(`(?<=[{,\\s"'\`])${key}["'\`]?\\s*:\\s*`, 'g')
  for (const match of code.matchAll(pattern)) {
    const valueAt = match.index + match[0].length
    const around = code.slice(Math.max(0, match.index - objectWidth), valueAt + objectWidth)
    const alone = trace.siblings.length === 0 && !/\{\s*["'`]?$/.test(codeBefore(code, match.index, 4))
    if (alone || !trace.siblings.every((sibling) => around.includes(sibling))) continue
    const value = codeAfter(code, valueAt, 12)
    const absent = /^(?:void 0|undefined)\s*[,}]/.test(value) || isMissing(value, trace.missing)
    if (!absent && !/^["'`]/.test(value)) continue
    found.push({
      name: trace.name,
      read: trace.read,
      state: absent ? 'absent' : 'present',
      offset: match.index,
      length: match[0].length + (absent ? 6 : 0),
    })
  }
  return found
}

/** The value is one of the texts that stand for nothing. */
function isMissing(value: string, missing: readonly string[] = []): boolean {
  return missing.some((text) => /^["'`]/.test(value) && value.startsWith(`${value[0]}${text}${value[0]}`))
}

/**
 * `process.env.NAME` that was left in, `t.default.env.NAME` of a polyfill that is empty, `{}.NAME`: in a browser there is
 * nothing to read it from.
 */
function matchMember(code: string, name: string, left: 'absent' | 'unreplaced' = 'absent'): Occurrence[] {
  const found: Occurrence[] = []
  const isOfEmpty = emptyOwners(code, name)
  for (let at = code.indexOf(name); at >= 0; at = code.indexOf(name, at + 1)) {
    const before = code.slice(Math.max(0, at - 24), at)
    const end = at + name.length
    if (/\w/.test(code.charAt(end))) continue
    const whole = /(?:(?<![\w$.])process|\bimport\.meta)\.env\??\.$/.test(before)
    if (!whole && !/(?:\.env\??|\{\}\)?)\.$/.test(before) && !isOfEmpty(at, end)) continue
    found.push({ name, read: null, state: whole ? 'unreplaced' : left, offset: at, length: name.length })
  }
  return found
}
