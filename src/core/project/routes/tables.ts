import type * as t from '@babel/types'
import { directoryOf, joinPath } from '../../model/folder.ts'
import { walkTree } from '../sources/walk-tree.ts'
import { joinRoute, type SourceRoute } from './route.ts'

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

/** Routes of a module in React Router's, Vue Router's and Angular's tables, in objects and in JSX. */
export function routesIn(file: string, body: readonly t.Statement[], prefix = ''): ModuleRoutes {
  const routes: SourceRoute[] = []
  const lazy: LazyTable[] = []
  const inner = new Set<t.Node>()
  const place = (node: t.Node): SourceRoute['place'] => ({
    file,
    line: node.loc?.start.line ?? 1,
    column: (node.loc?.start.column ?? 0) + 1,
  })
  const add = (pattern: string, node: t.Node): void => {
    routes.push({ pattern, place: place(node), kind: 'table' })
  }

  const readObject = (node: t.ObjectExpression, above: string): void => {
    const members = membersOf(node)
    const path = textOf(members.get('path'))
    const whole = path?.startsWith('/') === true ? joinRoute(path) : joinRoute(above, path ?? '')
    const children = members.get('children')
    if (children?.type === 'ArrayExpression') {
      inner.add(children)
      for (const child of children.elements) if (child?.type === 'ObjectExpression') readObject(child, whole)
    }
    const module = importedBy(members.get('loadChildren'))
    if (module !== null) lazy.push({ module: joinPath(directoryOf(file), module), prefix: whole })
    const isPage = path !== null || isTrue(members.get('index'))
    const isLayout = children?.type === 'ArrayExpression' || module !== null
    if (isPage && !isLayout && ![...leadsOn].some((name) => members.has(name))) {
      add(whole, members.get('path') ?? node)
    }
  }

  const readElement = (node: t.JSXElement, above: string): void => {
    inner.add(node)
    const attributes = attributesOf(node)
    const path = attributes.get('path') ?? null
    const whole = path?.startsWith('/') === true ? joinRoute(path) : joinRoute(above, path ?? '')
    const children = node.children.filter(isRouteElement)
    for (const child of children) readElement(child, whole)
    if (children.length === 0 && (path !== null || attributes.has('index'))) add(whole, node)
  }

  walkTree(body, (node, parents) => {
    if (inner.has(node)) return
    if (node.type === 'ArrayExpression' && isTable(node)) {
      if (parents.some((parent) => inner.has(parent))) return
      inner.add(node)
      for (const element of node.elements)
        if (element?.type === 'ObjectExpression') readObject(element, prefix)
    } else if (isRouteElement(node) && !parents.some((parent) => inner.has(parent))) readElement(node, prefix)
  })
  return { routes, lazy }
}

/** An array of which every element is an object, and one of them clearly a route. */
function isTable({ elements }: t.ArrayExpression): boolean {
  return elements.some((element) => {
    if (element?.type !== 'ObjectExpression') return false
    const members = membersOf(element)
    const named = textOf(members.get('path')) !== null || isTrue(members.get('index'))
    return named && [...members.keys()].some((name) => routeMembers.has(name))
  })
}

function membersOf({ properties }: t.ObjectExpression): Map<string, t.Node> {
  const found = new Map<string, t.Node>()
  for (const property of properties) {
    if (property.type === 'SpreadElement' || property.key.type !== 'Identifier') continue
    found.set(property.key.name, property.type === 'ObjectProperty' ? property.value : property)
  }
  return found
}

function textOf(node: t.Node | undefined): string | null {
  if (node?.type === 'StringLiteral') return node.value
  return node?.type === 'TemplateLiteral' && node.quasis.length === 1
    ? (node.quasis[0]?.value.cooked ?? null)
    : null
}

function isTrue(node: t.Node | undefined): boolean {
  return node?.type === 'BooleanLiteral' && node.value
}

/** The module of `() => import('./x').then(…)`. */
function importedBy(node: t.Node | undefined): string | null {
  if (!node) return null
  let found: string | null = null
  walkTree([node], (each) => {
    if (each.type !== 'CallExpression' && each.type !== 'ImportExpression') return
    const source =
      each.type === 'ImportExpression'
        ? each.source
        : each.callee.type === 'Import'
          ? each.arguments[0]
          : undefined
    found ??= textOf(source)
  })
  return found
}

function isRouteElement(node: t.Node): node is t.JSXElement {
  if (node.type !== 'JSXElement') return false
  const { name } = node.openingElement
  return name.type === 'JSXIdentifier' && name.name === 'Route'
}

function attributesOf({ openingElement }: t.JSXElement): Map<string, string> {
  const found = new Map<string, string>()
  for (const attribute of openingElement.attributes) {
    if (attribute.type !== 'JSXAttribute' || attribute.name.type !== 'JSXIdentifier') continue
    const { value } = attribute
    const text =
      value?.type === 'JSXExpressionContainer' ? textOf(value.expression) : textOf(value ?? undefined)
    if (text !== null || value === null) found.set(attribute.name.name, text ?? '')
  }
  return found
}
