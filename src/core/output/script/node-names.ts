import type { NodeName } from '../../model/facts.ts'
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

/** Names that a script gives a value to, for itself and others: `window.process={…}`, `var require=…`. */
const made =
  /\b(?:window|globalThis|self|global|this)(?:\.|\[["'`])(process|global|Buffer|require|exports)(?:["'`]\])?\s*(?:\?\?|\|\|)?=(?!=)|(?:^|[;,{}\s])(?:var|let|const|function)\s+(process|global|Buffer|require|exports|requirejs)\b/g

/**
 * Where a script uses names that only Node has, and asks nothing before; and where it makes them. What stands in a comment, or
 * in a scope that has such a name, is told apart later, by a parse.
 */
export function nodeNamesIn(code: string, literals: Literals): NodeName[] {
  const found: NodeName[] = []
  for (const [name, behind] of uses) {
    let count = 0
    for (let at = code.indexOf(name); at >= 0 && count < mostOfName; at = code.indexOf(name, at + 1)) {
      const end = at + name.length
      if (!isFree(code, at, name) || !behind.test(code.slice(end, end + 24)) || literals.around(at)) continue
      count++
      const variable = name === 'process' ? variableBehind(code, end) : null
      found.push({ name, variable, offset: at, length: name.length })
    }
  }
  if (found.length > 0 || code.length < longestMaker) found.push(...makersIn(code))
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

function makersIn(code: string): NodeName[] {
  if (!/\b(?:process|global|Buffer|require(?:js)?|exports)\b/.test(code)) return []
  return [...code.matchAll(made)].map((match) => {
    const name = (match[1] ?? match[2] ?? '').replace('requirejs', 'require') as NodeName['name']
    return { name, variable: null, offset: match.index, length: match[0].length, made: true }
  })
}
