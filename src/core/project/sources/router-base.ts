import type { ImportDeclaration, Program } from 'acorn'
import { byDefault, computed, type Place, type Reading, stated } from '../../model/reading.ts'
import { Fold } from '../../syntax/fold.ts'
import {
  dottedName,
  type JsxElement,
  keyName,
  propertyOf,
  type SyntaxNode,
  textOf,
  walkTree,
} from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { sourceTree } from '../../syntax/tree.ts'
import type { Folded } from '../../syntax/value.ts'
import { type RouterForm, routerForms, type StandingRouter, standingRouters } from './router-forms.ts'
import { scriptName, scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'

/** The path that the router in the browser puts before its routes, and what makes the router. */
export interface RouterBase {
  /** What makes it, as it is written there. */
  readonly maker: string
  readonly place: Place
  readonly base: Reading<string | null>
  /** Null where its form is nobody's table: then only its place is known. */
  readonly form: RouterForm | StandingRouter | null
  /** Where a configuration makes it: the text that gives it a base. */
  readonly write?: (base: string) => string
  /** Others that sources make in the same way: which of them runs can not be told, and each needs its base. */
  readonly beside?: readonly RouterBase[]
}

/**
 * The base of the router that the sources make; null when none is seen, or several that do not agree. What takes the build's own base path
 * is computed: it can't disagree with it.
 */
export function readRouterBase(sources: Sources): RouterBase | null {
  const found: RouterBase[] = []
  for (const [file, text] of sources.texts) {
    if (makesOne.test(text)) found.push(...makersIn(file, scriptOf(file, text)))
  }
  const [first, ...beside] = found
  if (!first) return standingIn(sources)
  if (beside.length === 0) return first
  return beside.every((each) => isAlike(first, each)) ? { ...first, beside } : null
}

function isAlike(one: RouterBase, other: RouterBase): boolean {
  return (
    one.form === other.form &&
    one.base.value === other.base.value &&
    one.base.certainty === other.base.certainty
  )
}

/** Angular's: `{ provide: APP_BASE_HREF, useValue: '/b/' }` counts before the page's `<base>`. */
const provided = 'APP_BASE_HREF'

const names = routerForms.flatMap(({ name, from }) => (name === 'default' || from ? [] : name))
const makesOne = new RegExp(
  `\\b(?:${[provided, ...new Set(names)].join('|')})\\b|\\brouter['"]|\\bnavigo\\b|\\bwouter`,
)

function makersIn(file: string, script: string): RouterBase[] {
  return parsed(file, script, (tree) => {
    const placeOf = placeIn(file)
    const fold = new Fold({ text: script, tree, placeOf })
    const found: RouterBase[] = []
    const imports = importsIn(tree.root)
    walkTree(tree.root, (node) => {
      const made = makerOf(node, imports)
      if (!made) return
      const { name, form } = made
      found.push({ maker: name, form, place: placeOf(node), base: baseOf(made.base, fold, placeOf(node)) })
    })
    return found
  })
}

/** What a script that can be parsed holds; nothing of another. */
function parsed<T>(file: string, script: string, read: (tree: ReturnType<typeof sourceTree>) => T[]): T[] {
  try {
    return read(sourceTree(scriptName(file), script))
  } catch (error) {
    if (error instanceof SyntaxProblem) return []
    throw error
  }
}

/** The router that nobody makes, where its package is imported first. None where a source that imports it tells it of a base. */
function standingIn(sources: Sources): RouterBase | null {
  for (const router of standingRouters) {
    const users: RouterBase[] = []
    let isTold = false
    for (const [file, text] of sources.texts) {
      if (!importsStanding.test(text)) continue
      const script = scriptOf(file, text)
      const imports = parsed(file, script, ({ root }) => importsOf(router, root))
      if (imports.length > 0 && router.told.test(script)) isTold = true
      for (const node of imports) users.push(...usedBy(node, file, router))
    }
    if (users[0] && !isTold) return users[0]
  }
  return null
}

const importsStanding = /from\s*['"](?:wouter|page|preact-iso)/

function importsOf({ from }: StandingRouter, { body }: Program): ImportDeclaration[] {
  return body.filter(
    (each): each is ImportDeclaration =>
      each.type === 'ImportDeclaration' && from.test(String(each.source.value)),
  )
}

function usedBy(node: ImportDeclaration, file: string, form: StandingRouter): RouterBase[] {
  if (!node.specifiers.some((each) => form.used.test(importedName(each)))) return []
  const place = placeIn(file)(node)
  return [{ maker: String(node.source.value), form, place, base: byDefault('/', atTop) }]
}

/** A name of a module as its package exports it. */
interface Imported {
  readonly from: string
  /** `*` for all of them. */
  readonly name: string
}

function importsIn(root: SyntaxNode): Map<string, Imported> {
  const imports = new Map<string, Imported>()
  walkTree(root, (node) => {
    if (node.type !== 'ImportDeclaration' || typeof node.source.value !== 'string') return
    for (const each of node.specifiers)
      imports.set(each.local.name, { from: node.source.value, name: importedName(each) })
  })
  return imports
}

function importedName(specifier: ImportDeclaration['specifiers'][number]): string {
  if (specifier.type === 'ImportNamespaceSpecifier') return '*'
  if (specifier.type === 'ImportDefaultSpecifier') return 'default'
  return specifier.imported.type === 'Identifier' ? specifier.imported.name : String(specifier.imported.value)
}

/** What is called, made or drawn: by its own name, by another that it was imported under, or as a member of its package. */
function meantBy(node: SyntaxNode, imports: ReadonlyMap<string, Imported>): Imported | null {
  const [first = '', name, ...more] = dottedName(node)?.split('.') ?? []
  if (first === '' || more.length > 0) return null
  const imported = imports.get(first)
  return name === undefined ? (imported ?? { from: '', name: first }) : { from: imported?.from ?? '', name }
}

/** The router that a node makes, with the expression of its base: null for none, undefined where it can't be seen. */
interface Made {
  readonly name: string
  readonly form: RouterForm | null
  readonly base: SyntaxNode | null | undefined
}

function makerOf(node: SyntaxNode, imports: ReadonlyMap<string, Imported>): Made | null {
  switch (node.type) {
    case 'CallExpression':
    case 'NewExpression':
      return madeByCall(node, imports)
    case 'ObjectExpression':
      return providedBase(node)
    case 'JSXElement':
      return madeByElement(node, imports)
    default:
      return null
  }
}

function formOf(as: RouterForm['as'], meant: Imported | null): RouterForm | undefined {
  return routerForms.find(
    (form) => form.as === as && form.name === meant?.name && (form.from?.test(meant.from) ?? true),
  )
}

function madeByCall(
  node: SyntaxNode & { type: 'CallExpression' | 'NewExpression' },
  imports: ReadonlyMap<string, Imported>,
): Made | null {
  const form = formOf(node.type === 'NewExpression' ? 'new' : 'call', meantBy(node.callee, imports))
  if (!form) return null
  const name = dottedName(node.callee) ?? form.name
  const given = node.arguments[form.argument ?? 0]
  if (form.only && !says(given, form.only)) return null
  if (!given) return { name, form, base: null }
  const { member = null } = form
  if (member === null) return { name, form, base: given }
  const isPlain =
    given.type === 'ObjectExpression' && given.properties.every((each) => keyName(each) !== null)
  return { name, form, base: isPlain ? propertyOf(given, member) : undefined }
}

function says(given: SyntaxNode | undefined, { member, value }: NonNullable<RouterForm['only']>): boolean {
  return given?.type === 'ObjectExpression' && textOf(propertyOf(given, member)) === value
}

function providedBase(node: SyntaxNode): Made | null {
  const token = propertyOf(node, 'provide')
  const value = propertyOf(node, 'useValue')
  return token?.type === 'Identifier' && token.name === provided && value
    ? { name: provided, form: null, base: value }
    : null
}

function madeByElement({ openingElement }: JsxElement, imports: ReadonlyMap<string, Imported>): Made | null {
  const { name: tag, attributes } = openingElement
  const form = formOf('element', meantBy(tag, imports))
  if (!form) return null
  const name = dottedName(tag) ?? form.name
  if (attributes.some((each) => each.type !== 'JSXAttribute')) return { name, form, base: undefined }
  for (const each of attributes) {
    if (each.type !== 'JSXAttribute' || each.name.type !== 'JSXIdentifier') continue
    if (each.name.name !== form.attribute) continue
    const { value } = each
    return { name, form, base: value?.type === 'JSXExpressionContainer' ? value.expression : value }
  }
  return { name, form, base: null }
}

const atTop = 'the router, which is given no base'

function baseOf(node: SyntaxNode | null | undefined, fold: Fold, at: Place): Reading<string | null> {
  if (node === null) return byDefault('/', atTop)
  if (node === undefined) return computed('…', at)
  const value = fold.of(node)
  if (value.kind === 'value' && typeof value.value === 'string') return stated(value.value, at)
  return computed(expressionOf(value), at)
}

function expressionOf(value: Folded): string {
  return value.kind === 'computed' || value.kind === 'call' ? value.expression : '…'
}
