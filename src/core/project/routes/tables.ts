import type { ArrayExpression, ObjectExpression, Program } from 'acorn'
import { directoryOf, joinPath } from '../../model/folder.ts'
import { joinRoute, type SourceRoute } from '../../model/source-route.ts'
import { type JsxElement, keyName, memberName, type SyntaxNode, textOf, walkTree } from '../../syntax/node.ts'
import { placeIn } from '../../syntax/place.ts'

/** Members of which an object beside its `path` has one when it is a route. */
const routeMembers = new Set([
  'element',
  'Component',
  'component',
  'components',
  'lazy',
  'loader',
  'action',
  'children',
  'loadChildren',
  'loadComponent',
  'redirectTo',
  'redirect',
  'pathMatch',
  'canActivate',
  'resolve',
  'meta',
  'name',
  'errorElement',
  'ErrorBoundary',
  'handle',
])
/** A route that only leads to another is no page. */
const leadsOn = new Set(['redirectTo', 'redirect'])

/** A table whose routes are below another file's route. */
export interface LazyTable {
  /** The module as it is imported, without extension, from the project. */
  readonly module: string
  readonly prefix: string
}

/** What a module says of routes. */
export interface ModuleRoutes {
  readonly routes: readonly SourceRoute[]
  readonly lazy: readonly LazyTable[]
}

/** Every text that an expression of the module may be. */
type TextsOf = (node: SyntaxNode | undefined) => readonly string[]

/** Routes of a module in React Router's, Vue Router's and Angular's tables, in objects and in JSX. */
export function routesIn(file: string, program: Program, textsOf: TextsOf, prefix = ''): ModuleRoutes {
  const found = new Tables(file, textsOf)
  walkTree(program, (node) => {
    if (node.type === 'ArrayExpression' && isTable(node, textsOf)) found.readList(node, prefix)
    else if (isRouteElement(node)) found.readElement(node, prefix)
    else if (node.type === 'ObjectExpression' && isAlone(node, textsOf)) found.readObject(node, prefix)
    // What lies inside a table has been read with it.
    else return true
    return false
  })
  return found
}

class Tables implements ModuleRoutes {
  readonly routes: SourceRoute[] = []
  readonly lazy: LazyTable[] = []
  readonly #file: string
  readonly #textsOf: TextsOf

  constructor(file: string, textsOf: TextsOf) {
    this.#file = file
    this.#textsOf = textsOf
  }

  readList({ elements }: ArrayExpression, above: string): void {
    for (const element of elements) if (element?.type === 'ObjectExpression') this.readObject(element, above)
  }

  readObject(node: ObjectExpression, above: string): void {
    const members = membersOf(node)
    const paths = this.#textsOf(members.get('path'))
    const children = members.get('children')
    const module = importedBy(members.get('loadChildren'))
    const isPage = paths.length > 0 || isTrue(members.get('index'))
    const isLayout = children?.type === 'ArrayExpression' || module !== null
    for (const path of orNone(paths)) {
      const whole = below(above, path)
      if (children?.type === 'ArrayExpression') this.readList(children, whole)
      if (module !== null)
        this.lazy.push({ module: joinPath(directoryOf(this.#file), module), prefix: whole })
      if (isPage && !isLayout && ![...leadsOn].some((name) => members.has(name)))
        this.#add(whole, members.get('path') ?? node)
    }
  }

  readElement(node: JsxElement, above: string): void {
    const attributes = attributesOf(node)
    const paths = this.#textsOf(attributes.get('path') ?? undefined)
    const children = node.children.filter(isRouteElement)
    for (const path of orNone(paths)) {
      const whole = below(above, path)
      for (const child of children) this.readElement(child, whole)
      if (children.length === 0 && (path !== null || attributes.has('index'))) this.#add(whole, node)
    }
  }

  #add(pattern: string, node: SyntaxNode): void {
    this.routes.push({ pattern, place: placeIn(this.#file)(node), kind: 'table' })
  }
}

function below(above: string, path: string | null): string {
  return path?.startsWith('/') === true ? joinRoute(path) : joinRoute(above, path ?? '')
}

function orNone(paths: readonly string[]): readonly (string | null)[] {
  return paths.length > 0 ? paths : [null]
}

/** A route that is made or added by itself: `router.addRoute({ path: … })`, `pages.map((page) => ({ path: page.path, … }))`. */
function isAlone(node: ObjectExpression & SyntaxNode, textsOf: TextsOf): boolean {
  const { parent } = node
  const isAdded = parent?.type === 'CallExpression' && memberName(parent.callee as SyntaxNode) === 'addRoute'
  const isMade =
    parent?.type === 'ArrowFunctionExpression' &&
    parent.parent?.type === 'CallExpression' &&
    memberName(parent.parent.callee as SyntaxNode) === 'map'
  return (isAdded || isMade) && isRoute(node, textsOf)
}

/** An array of which every element is an object, and one of them clearly a route. */
function isTable({ elements }: ArrayExpression, textsOf: TextsOf): boolean {
  return elements.some((element) => element?.type === 'ObjectExpression' && isRoute(element, textsOf))
}

function isRoute(node: ObjectExpression, textsOf: TextsOf): boolean {
  const members = membersOf(node)
  if (![...members.keys()].some((name) => routeMembers.has(name))) return false
  return isTrue(members.get('index')) || textsOf(members.get('path')).length > 0
}

function membersOf({ properties }: ObjectExpression): Map<string, SyntaxNode> {
  const found = new Map<string, SyntaxNode>()
  for (const property of properties) {
    const name = keyName(property)
    if (property.type === 'Property' && name !== null) found.set(name, property.value)
  }
  return found
}

function isTrue(node: SyntaxNode | undefined): boolean {
  return node?.type === 'Literal' && node.value === true
}

/** The module of `() => import('./x').then(…)`. */
function importedBy(node: SyntaxNode | undefined): string | null {
  if (!node) return null
  let found: string | null = null
  walkTree(node, (each) => {
    if (each.type === 'ImportExpression') found ??= textOf(each.source)
  })
  return found
}

function isRouteElement(node: SyntaxNode): node is JsxElement {
  if (node.type !== 'JSXElement') return false
  const { name } = node.openingElement
  return name.type === 'JSXIdentifier' && name.name === 'Route'
}

/** The values of an element's attributes; null for one without. */
function attributesOf({ openingElement }: JsxElement): Map<string, SyntaxNode | null> {
  const found = new Map<string, SyntaxNode | null>()
  for (const attribute of openingElement.attributes) {
    if (attribute.type !== 'JSXAttribute' || attribute.name.type !== 'JSXIdentifier') continue
    const { value } = attribute
    found.set(attribute.name.name, value?.type === 'JSXExpressionContainer' ? value.expression : value)
  }
  return found
}
