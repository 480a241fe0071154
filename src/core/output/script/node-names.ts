import type { NodeName } from '../../model/facts.ts'
import { type Mentions, WordList } from '../words.ts'
import type { Literals } from './literal.ts'

/** How each name of Node's is used where it is meant, by what stands behind it. */
const uses: readonly (readonly [NodeName['name'], RegExp])[] = [
  ['process', /^\??\.\s*[\w$]/],
  ['global', /^\.\s*[\w$]/],
  ['Buffer', /^\.(?:from|alloc|allocUnsafe|concat|byteLength|isBuffer)\(/],
  ['require', /^\(\s*["'`]/],
  ['__dirname', /^(?![\w$])/],
  ['__filename', /^(?![\w$])/],
  ['exports', /^(?:\.[\w$]+\s*=(?!=)|,\s*["'`]__esModule["'`])/],
]

/** Looked at in one file: libraries name them at many places, and ask first whether they are there. */
const mostOfName = 20

/** A test before the use, `typeof process<"u"&&process.env.X`; UTF-16 units. */
const testWithin = 120

/** Names that a script gives a value to, for itself and others, by what is around the name: `window.process={…}`, `var require=…`. */
const makeable = ['process', 'global', 'Buffer', 'require', 'exports'] as const
const memberBefore = /\b(?:window|globalThis|self|global|this)(?:\.|\[["'`])$/
const assignedBehind = /^(?:["'`]\])?\s{0,40}(?:\?\?|\|\|)?=(?!=)/
const declaredBefore = /(?:^|[;,{}\s])(?:var|let|const|function)\s{1,40}$/
const longestAround = 60

/** What these names are found by. */
export const nodeWords = uses.map(([name]) => name)
const own = new WordList(nodeWords)

/**
 * Where a script uses names that only Node has, and asks nothing before; and where it makes them. What stands in a comment, or
 * in a scope that has such a name, is told apart later, by a parse.
 */
export function nodeNamesIn(code: string, literals: Literals, mentions: Mentions = own.in(code)): NodeName[] {
  const found: NodeName[] = []
  for (const [name, behind] of uses) {
    let count = 0
    for (const at of mentions.ofAnyCase(name)) {
      if (count >= mostOfName) break
      if (!code.startsWith(name, at)) continue
      const end = at + name.length
      if (!isFree(code, at, name) || !behind.test(code.slice(end, end + 24)) || literals.around(at)) continue
      count++
      const variable = name === 'process' ? variableBehind(code, end) : null
      found.push({ name, variable, offset: at, length: name.length })
    }
  }
  if (found.length > 0 || code.length < longestMaker) found.push(...makersIn(code, mentions))
  return found
}

/** A script that only makes them for others is short. UTF-16 units. */
const longestMaker = 400_000

function isFree(code: string, at: number, name: string): boolean {
  if (/[\w$.#]/.test(code.charAt(at - 1))) return false
  return !code.slice(Math.max(0, at - testWithin), at).includes(`typeof ${name}`)
}

function variableBehind(code: string, at: number): string | null {
  return /^\??\.env\??\.([A-Za-z_]\w*)/.exec(code.slice(at, at + 120))?.[1] ?? null
}

function makersIn(code: string, mentions: Mentions): NodeName[] {
  return makeable
    .flatMap((name) => mentions.of(name).flatMap((at) => makerAt(code, name, at) ?? []))
    .sort((a, b) => a.offset - b.offset)
}

function makerAt(code: string, name: NodeName['name'], at: number): NodeName | null {
  const before = code.slice(Math.max(0, at - longestAround), at)
  // A loader for modules goes by this name too.
  const end = at + (name === 'require' && code.startsWith('requirejs', at) ? 9 : name.length)
  const member = end === at + name.length ? memberBefore.exec(before) : null
  const assigned = member && assignedBehind.exec(code.slice(end, end + longestAround))
  const declared = /[\w]/.test(code.charAt(end)) ? null : declaredBefore.exec(before)
  const [found, length] = assigned ? [member, assigned[0].length] : [declared, 0]
  if (!found) return null
  const offset = at - before.length + found.index
  return { name, variable: null, offset, length: end + length - offset, made: true }
}
