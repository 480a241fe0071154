import type { Place } from '../../model/reading.ts'
import { dottedName, isCall, keyName, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { sourceTree } from '../../syntax/tree.ts'
import { readEnvironmentReads } from './environment-reads.ts'
import { passedAt } from './passed-reads.ts'
import type { Sources } from './sources.ts'

/** The whole environment of the machine that builds, where a configuration passes it on to the browser. */
export interface PassedWhole {
  readonly place: Place
  /** How it is written there: `process.env`, `loadEnv(mode, directory, '')`. */
  readonly text: string
  /** What the sources read of it; null where only the running code knows. */
  readonly names: readonly string[] | null
}

const likely = /\bdefine\b|DefinePlugin|\benv\s*:|runtimeConfig|customFields/

/** Where the whole environment is passed on; null where nobody does. The configuration is one of the files. */
export function passedWhole(
  sources: Sources,
  config: { readonly file: string; readonly text: string } | null,
): PassedWhole | null {
  const texts = new Map(sources.texts)
  if (config) texts.set(config.file, config.text)
  for (const [file, text] of texts) {
    if (!likely.test(text) || !/process\.env|loadEnv|dotenv/.test(text)) continue
    const found = wholeIn(file, text)
    if (found) return { ...found, names: namesRead(sources, file) }
  }
  return null
}

/** What sources other than the configuration read of `process.env`, in the order of their names. */
function namesRead(sources: Sources, config: string): string[] | null {
  const { reads, computed } = readEnvironmentReads(sources, { environmentObjects: ['process.env'] })
  if (computed.some(({ file }) => file !== config)) return null
  const read = reads.filter(({ place }) => place.file !== config).map(({ name }) => name)
  return [...new Set(read)].sort()
}

function wholeIn(file: string, text: string): Omit<PassedWhole, 'names'> | null {
  try {
    const { root } = sourceTree(file, text)
    const objects = namesOfWhole(root)
    let found: SyntaxNode | null = null
    walkTree(root, (node) => {
      if (found === null && isWhole(node, objects) && passedAt(node) !== null) found = node
    })
    if (found === null) return null
    const { start, end } = found as SyntaxNode
    return { place: placeIn(file)(found), text: text.slice(start, end) }
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}

/** `const env = loadEnv(mode, directory, '')`, `const env = process.env`. */
function namesOfWhole(root: SyntaxNode): ReadonlySet<string> {
  const found = new Set<string>()
  walkTree(root, (node) => {
    if (
      node.type === 'VariableDeclarator' &&
      node.id.type === 'Identifier' &&
      node.init &&
      holdsAll(node.init)
    )
      found.add(node.id.name)
  })
  return found
}

/** An expression that gives all variables: of the process, of the files for a mode without a prefix, of a parsed file. */
function holdsAll(node: SyntaxNode): boolean {
  if (dottedName(node) === 'process.env') return true
  if (isCall(node)) {
    const name = dottedName(node.callee)
    if (name === 'loadEnv') return isWithoutPrefix(node.arguments[2])
    return name === 'dotenv.parse'
  }
  return node.type === 'MemberExpression' && keyOf(node) === 'parsed' && isDotenv(node.object)
}

function isWithoutPrefix(node: SyntaxNode | undefined): boolean {
  if (node?.type === 'ArrayExpression')
    return node.elements.some((each) => each !== null && isWithoutPrefix(each))
  return node?.type === 'Literal' && node.value === ''
}

function isDotenv(node: SyntaxNode): boolean {
  return isCall(node) && /(?:^|\.)config$/.test(dottedName(node.callee) ?? '')
}

function keyOf(node: SyntaxNode): string | null {
  return node.type === 'MemberExpression' && node.property.type === 'Identifier' ? node.property.name : null
}

/** All of it, as a value: no member of it is read here, and no name given to it. */
function isWhole(node: SyntaxNode, objects: ReadonlySet<string>): boolean {
  const { parent } = node
  if (!parent || (parent.type === 'MemberExpression' && parent.object === node)) return false
  if (
    parent.type === 'VariableDeclarator' ||
    (keyName(parent) !== null && parent.type === 'Property' && parent.key === node && parent.value !== node)
  )
    return false
  return node.type === 'Identifier' ? objects.has(node.name) : holdsAll(node)
}
