import { byDefault, computed, type Place, type Reading, stated } from '../../model/reading.ts'
import { Fold } from '../../syntax/fold.ts'
import { keyName, propertyOf, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { sourceTree } from '../../syntax/tree.ts'
import type { Folded } from '../../syntax/value.ts'
import { scriptName, scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'

/** How a router in the browser is made, and where it is given the path that its routes are below. */
export interface RouterMaker {
  readonly name: string
  /** Which argument holds the base, by itself or as a member of an object. */
  readonly argument: number
  readonly member: string | null
  /** The packages whose function is meant, where others have one of this name. */
  readonly from?: RegExp
}

/** The same as an element: `<BrowserRouter basename="/b">`. */
interface RouterElement {
  readonly name: string
  readonly attribute: string
  readonly from?: RegExp
}

/** Makers of React Router, Vue Router, the history package and TanStack Router. */
export const routerMakers: readonly RouterMaker[] = [
  { name: 'createBrowserRouter', argument: 1, member: 'basename' },
  { name: 'createBrowserHistory', argument: 0, member: 'basename' },
  { name: 'createWebHistory', argument: 0, member: null },
  { name: 'createRouter', argument: 0, member: 'basepath', from: /^@tanstack\/\w+-router$/ },
]

/** Elements of React Router, Solid's router and wouter. */
export const routerElements: readonly RouterElement[] = [
  { name: 'BrowserRouter', attribute: 'basename' },
  { name: 'Router', attribute: 'base', from: /^(?:@solidjs\/router|wouter(?:-preact)?)$/ },
]

/** The path that the router in the browser puts before its routes, and what makes the router. */
export interface RouterBase {
  readonly maker: string
  readonly place: Place
  readonly base: Reading<string | null>
  /** Where a configuration makes it: the text that gives it a base. */
  readonly write?: (base: string) => string
}

/**
 * The base of the router that the sources make; null when none is seen, or several are. What takes the build's own base path
 * is computed: it can't disagree with it.
 */
export function readRouterBase(sources: Sources): RouterBase | null {
  const found: RouterBase[] = []
  for (const [file, text] of sources.texts) {
    if (!makesOne.test(text)) continue
    found.push(...makersIn(file, scriptOf(file, text)))
  }
  return found.length === 1 ? (found[0] ?? null) : null
}

const namesOf = (list: readonly { readonly name: string }[]): string => list.map(({ name }) => name).join('|')
/** Angular's: `{ provide: APP_BASE_HREF, useValue: '/b/' }` counts before the page's `<base>`. */
const provided = 'APP_BASE_HREF'

const makesOne = new RegExp(
  `\\b${provided}\\b|\\b(?:${namesOf(routerMakers)})\\s*\\(|<(?:${namesOf(routerElements)})\\b`,
)

function makersIn(file: string, script: string): RouterBase[] {
  try {
    const tree = sourceTree(scriptName(file), script)
    const placeOf = placeIn(file)
    const fold = new Fold({ text: script, tree, placeOf })
    const found: RouterBase[] = []
    const packages = packagesIn(tree.root)
    walkTree(tree.root, (node) => {
      const made = makerOf(node, packages)
      if (made)
        found.push({ maker: made.name, place: placeOf(node), base: baseOf(made.base, fold, placeOf(node)) })
    })
    return found
  } catch (error) {
    if (error instanceof SyntaxProblem) return []
    throw error
  }
}

/** The package that each imported name is of. */
function packagesIn(root: SyntaxNode): Map<string, string> {
  const packages = new Map<string, string>()
  walkTree(root, (node) => {
    if (node.type !== 'ImportDeclaration' || typeof node.source.value !== 'string') return
    for (const { local } of node.specifiers) packages.set(local.name, node.source.value)
  })
  return packages
}

/** The maker that a node is, with the expression of its base: null for none, undefined where it can't be seen. */
function makerOf(
  node: SyntaxNode,
  packages: ReadonlyMap<string, string>,
): { name: string; base: SyntaxNode | null | undefined } | null {
  if (node.type === 'CallExpression' && node.callee.type === 'Identifier') {
    const { name } = node.callee
    const maker = routerMakers.find((each) => each.name === name)
    if (!maker || (maker.from && !maker.from.test(packages.get(name) ?? ''))) return null
    const given = node.arguments[maker.argument]
    if (!given) return { name, base: null }
    if (maker.member === null) return { name, base: given }
    const isPlain =
      given.type === 'ObjectExpression' && given.properties.every((each) => keyName(each) !== null)
    return { name, base: isPlain ? propertyOf(given, maker.member) : undefined }
  }
  if (node.type === 'ObjectExpression') {
    const token = propertyOf(node, 'provide')
    const value = propertyOf(node, 'useValue')
    return token?.type === 'Identifier' && token.name === provided && value
      ? { name: provided, base: value }
      : null
  }
  if (node.type !== 'JSXElement') return null
  const { name, attributes } = node.openingElement
  const element = name.type === 'JSXIdentifier' && routerElements.find((each) => each.name === name.name)
  if (!element || (element.from && !element.from.test(packages.get(element.name) ?? ''))) return null
  if (attributes.some((each) => each.type !== 'JSXAttribute')) return { name: element.name, base: undefined }
  for (const each of attributes) {
    if (each.type !== 'JSXAttribute' || each.name.type !== 'JSXIdentifier') continue
    if (each.name.name !== element.attribute) continue
    const { value } = each
    return { name: element.name, base: value?.type === 'JSXExpressionContainer' ? value.expression : value }
  }
  return { name: element.name, base: null }
}

function baseOf(node: SyntaxNode | null | undefined, fold: Fold, at: Place): Reading<string | null> {
  if (node === null) return byDefault('/', 'the router, which is given no base')
  if (node === undefined) return computed('…', at)
  const value = fold.of(node)
  if (value.kind === 'value' && typeof value.value === 'string') return stated(value.value, at)
  return computed(expressionOf(value), at)
}

function expressionOf(value: Folded): string {
  return value.kind === 'computed' || value.kind === 'call' ? value.expression : '…'
}
