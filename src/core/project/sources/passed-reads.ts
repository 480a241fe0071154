import type { Place } from '../../model/reading.ts'
import type { Trace } from '../../model/search.ts'
import { dottedName, isCall, keyName, outward, type SyntaxNode, textOf, walkTree } from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { sourceTree } from '../../syntax/tree.ts'
import { accessesOf, localNames } from './environment-access.ts'
import { isGuarded, standInFor } from './guard.ts'
import { traceAround } from './trace.ts'

/** A variable of the building machine that the configuration passes on to the browser. */
export interface PassedRead {
  readonly name: string
  readonly place: Place
  readonly guarded: boolean
  /** What the build puts it in place of: `__API__`, `process.env.API`; null where it is a member of an object. */
  readonly replaced: string | null
  /** Of a member that has a variable of its own: what it is where that is not set, and no promise that it is public. */
  readonly isDefault?: true
  /** The text that stands in for it where it is missing. */
  readonly standIn?: string | undefined
  /** What stands in the build where it was there. */
  readonly trace: Omit<Extract<Trace, { kind: 'property' }>, 'name' | 'read'> | null
}

/** Members of a configuration whose values are for the browser: texts that are replaced, and data. */
const replacing = new Set(['define', 'env'])
const data = new Set(['customFields', 'publicRuntimeConfig'])
/** Data of which each member has a variable of its own, so that a default may be missing. */
const defaults = 'public'
const plugin = /(?:^|\.)DefinePlugin$/
/** Eleventy's: what every template may use. */
const globalData = /\.addGlobalData$/
const ofNames = /(?:^|\.)EnvironmentPlugin$/

const rules = { environmentObjects: ['process.env', 'import.meta.env'] }

/** The variables that a configuration file passes on; none where it can't be parsed. */
export function passedReads(file: string, text: string): PassedRead[] {
  if (!/process\.env|loadEnv|EnvironmentPlugin/.test(text)) return []
  try {
    return readsIn(file, sourceTree(file, text).root)
  } catch (error) {
    if (error instanceof SyntaxProblem) return []
    throw error
  }
}

function readsIn(file: string, root: ReturnType<typeof sourceTree>['root']): PassedRead[] {
  const found: PassedRead[] = []
  const names = localNames(root, rules)
  const local = { ...names, objects: new Set([...names.objects, ...loadedObjects(root)]) }
  walkTree(root, (node) => {
    if (isCall(node) && ofNames.test(dottedName(node.callee) ?? '')) found.push(...namedIn(file, node))
    for (const { name, at } of accessesOf(node, rules, local)) {
      const passed = name === null ? null : passedAt(at)
      if (name !== null && passed)
        found.push({
          name,
          place: placeIn(file)(at),
          guarded: passed.isDefault === true || isGuarded(at),
          standIn: standInFor(at) ?? undefined,
          ...passed,
        })
    }
  })
  return found
}

/** `const env = loadEnv(mode, directory, '')`. */
export function loadedObjects(root: ReturnType<typeof sourceTree>['root']): string[] {
  const found: string[] = []
  walkTree(root, (node) => {
    if (node.type !== 'VariableDeclarator' || node.id.type !== 'Identifier' || !node.init) return
    if (isCall(node.init) && dottedName(node.init.callee) === 'loadEnv') found.push(node.id.name)
  })
  return found
}

/** Where in the configuration a value goes on to the browser; null where it does not. */
export function passedAt(node: SyntaxNode): Pick<PassedRead, 'replaced' | 'trace' | 'isDefault'> | null {
  let key: string | null = null
  let value: SyntaxNode = node
  let innermost: string | null = null
  let isCode = false
  let isPlugged = false
  for (const each of outward(node)) {
    const name = keyName(each)
    if (!isPlugged) innermost ??= name
    // A text that is made into code, for a plugin of a list to put in the place of its name.
    if (isCall(each) && dottedName(each.callee) === 'JSON.stringify') isCode = innermost === null
    else if (isCall(each) && isCode) isPlugged = innermost !== null
    else if (isPlugged && each.type === 'ArrayExpression') return { replaced: innermost, trace: null }
    if (isCall(each) && globalData.test(dottedName(each.callee) ?? '')) return { replaced: null, trace: null }
    if (name === 'runtimeConfig' && key === defaults) return { replaced: null, trace: null, isDefault: true }
    if (name !== null && data.has(name)) return { replaced: null, trace: inData(value, name) }
    if (key !== null && ((name !== null && replacing.has(name)) || isPlugin(each)))
      return { replaced: name === 'env' ? `process.env.${key}` : key, trace: null }
    if (name !== null) key = name
    if (name === null && each.type !== 'ObjectExpression') value = each
  }
  return null
}

function isPlugin(node: SyntaxNode): boolean {
  return isCall(node) && plugin.test(dottedName(node.callee) ?? '')
}

/** The object that holds the data is written into the build with its own name. */
function inData(value: SyntaxNode, name: string): PassedRead['trace'] {
  const trace = traceAround(value)
  return trace?.kind === 'property' ? { ...trace, siblings: [...trace.siblings, name] } : null
}

/** `new EnvironmentPlugin(['API'])`; in an object each has a default. */
function namedIn(file: string, call: SyntaxNode): PassedRead[] {
  const [list] = isCall(call) ? call.arguments : []
  if (list?.type !== 'ArrayExpression') return []
  return list.elements.flatMap((element): PassedRead[] => {
    const name = textOf(element)
    if (element === null || name === null || name === 'NODE_ENV') return []
    return [
      { name, place: placeIn(file)(element), guarded: false, replaced: `process.env.${name}`, trace: null },
    ]
  })
}
