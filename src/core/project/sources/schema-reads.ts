import type { Place } from '../../model/reading.ts'
import { placeAt } from '../../model/reading.ts'
import type { Trace } from '../../model/search.ts'
import { escapePattern } from '../../model/text.ts'
import { isCall, keyName, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { sourceTree } from '../../syntax/tree.ts'
import type { EnvironmentRead } from './environment-reads.ts'
import { scriptName, scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'

/** What a schema says of a member that may be missing. */
const mayBeMissing =
  /\b(?:optional|default|devDefault|nullish|nullable|catch|fallback|undefined|withDefault)\b/i

/**
 * Variables that are named where the environment is handed on as a whole: the keys of a schema that it is parsed with, and
 * texts that a function of the project's own is called with, whole or without their prefix. Reads are counted on from `first`.
 * @param computed where it is handed on, or read by a name that only the running code knows
 */
export function schemaReads(
  sources: Sources,
  computed: readonly Place[],
  prefixes: readonly string[],
  first: number,
): { reads: EnvironmentRead[]; traces: Trace[] } {
  const known = prefixes.filter((prefix) => prefix !== '')
  if (computed.length === 0 || known.length === 0) return { reads: [], traces: [] }
  const files = [...new Set(computed.map(({ file }) => file))]
  const reads = [
    ...files.flatMap((file) => keysOf(file, sources.texts.get(file) ?? '', known)),
    ...[...sources.texts].flatMap(([file, text]) => namesGiven(file, text, known)),
    ...files.flatMap((file) => restsGiven(sources, sources.texts.get(file) ?? '', known)),
  ]
  const traces = reads.flatMap(({ name, guarded }, index): Trace[] =>
    guarded ? [] : [{ kind: 'object', name, read: first + index }],
  )
  return { reads, traces }
}

/** `z.object({ VITE_API: z.string().url() })` */
function keysOf(file: string, text: string, prefixes: readonly string[]): EnvironmentRead[] {
  const script = scriptOf(file, text)
  const found: EnvironmentRead[] = []
  try {
    walkTree(sourceTree(scriptName(file), script).root, (node) => {
      const name = keyName(node)
      if (name === null || node.type !== 'Property' || !prefixes.some((prefix) => name.startsWith(prefix)))
        return
      const { value } = node
      if (node.parent?.type !== 'ObjectExpression' || !isSchema(value)) return
      const guarded = mayBeMissing.test(script.slice(value.start, value.end))
      found.push({ name, place: placeIn(file)(node), guarded })
    })
  } catch (error) {
    if (!(error instanceof SyntaxProblem)) throw error
  }
  return found
}

/** What a schema makes of a member is a call, or the function that makes it; never a read of the variable itself. */
function isSchema(value: SyntaxNode): boolean {
  return isCall(value)
}

/** A second argument, or a default behind the call. */
const copes = String.raw`(,|\)\s{0,3}(?:\?\?|\|\||\?\.)?)`

/** `get('VITE_API')`: with a second argument, or a default behind it, the code copes. */
function namesGiven(file: string, text: string, prefixes: readonly string[]): EnvironmentRead[] {
  const names = `(?:${prefixes.map(escapePattern).join('|')})\\w+`
  return callsIn(file, text, new RegExp(`[\\w$]\\(\\s*(["'\`])(${names})\\1\\s*${copes}`, 'g'), '')
}

/** A read by a name of which the code has the beginning: `env[`VITE_${name}`]`, `env['VITE_' + name]`. */
const byRest = /\.env\??\.?\[\s{0,3}(?:`(\w+)\$\{(\w+)\}`|["'](\w+)["']\s{0,3}\+\s{0,3}(\w+))\s{0,3}\]/g
const longestHelper = 600

/** `get('API')`, where `get` puts the prefix before it. */
function restsGiven(sources: Sources, text: string, prefixes: readonly string[]): EnvironmentRead[] {
  return [...text.matchAll(byRest)].flatMap((match) => {
    const [, first, inTemplate, second, added] = match
    const prefix = first ?? second ?? ''
    const before = text.slice(Math.max(0, match.index - longestHelper), match.index)
    const heads = [...before.matchAll(/(?:function|const|let|var)\s{1,3}([\w$]{1,80})[^;{}]{0,200}/g)]
    const helper = heads.findLast(([head]) => new RegExp(`\\b${inTemplate ?? added}\\b`).test(head))?.[1]
    if (helper === undefined || !prefixes.some((each) => prefix.startsWith(each))) return []
    const call = new RegExp(`(?<![\\w$])${escapePattern(helper)}\\(\\s*(["'\`])(\\w+)\\1\\s*${copes}`, 'g')
    return [...sources.texts].flatMap(([file, source]) => callsIn(file, source, call, prefix))
  })
}

function callsIn(file: string, text: string, call: RegExp, prefix: string): EnvironmentRead[] {
  if (!/\.(?:[cm]?[jt]sx?|vue|svelte|astro)$/.test(file)) return []
  return [...text.matchAll(call)].map((match) => {
    const given = match[2] ?? ''
    return {
      name: prefix + given,
      given,
      place: placeAt(file, text, match.index + match[0].indexOf(given, match[0].indexOf('(') + 1)),
      guarded: match[3]?.trim() !== ')',
    }
  })
}
