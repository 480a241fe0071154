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
 * texts that a function of the project's own is called with. Reads are counted on from `first`.
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

/** `get('VITE_API')`: with a second argument, or a default behind it, the code copes. */
function namesGiven(file: string, text: string, prefixes: readonly string[]): EnvironmentRead[] {
  if (!/\.(?:[cm]?[jt]sx?|vue|svelte|astro)$/.test(file)) return []
  const given = new RegExp(
    `[\\w$]\\(\\s*(["'\`])((?:${prefixes.map(escapePattern).join('|')})\\w+)\\1\\s*(,|\\)\\s*(?:\\?\\?|\\|\\||\\?\\.)?)`,
    'g',
  )
  return [...text.matchAll(given)].map((match) => ({
    name: match[2] ?? '',
    place: placeAt(file, text, match.index + match[0].indexOf(match[2] ?? '')),
    guarded: match[3]?.trim() !== ')',
  }))
}
