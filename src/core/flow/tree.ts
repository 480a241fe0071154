import { type AnyNode, type Program, parse } from 'acorn'

/** A node that knows what it stands in. The parser's nodes are linked in place: a bundle has a million of them. */
export type Linked = AnyNode & { parent?: Linked; scope?: Scope }

/** A name, where it is declared, and in which scope. */
export interface Binding {
  readonly name: string
  readonly scope: Scope
  /** The identifiers that declare it. */
  readonly declared: Linked[]
  /** Where it is used, once somebody asked. */
  uses?: readonly Linked[]
}

/** What one function, block, class or module declares. */
export class Scope {
  readonly parent: Scope | null
  readonly isFunction: boolean
  readonly bindings = new Map<string, Binding>()

  constructor(parent: Scope | null, isFunction: boolean) {
    this.parent = parent
    this.isFunction = isFunction
  }

  /** The binding of a name that is declared at a place in this scope. */
  declare(name: string, at: Linked): Binding {
    const binding = this.bindings.get(name) ?? { name, scope: this, declared: [] }
    binding.declared.push(at)
    this.bindings.set(name, binding)
    return binding
  }

  lookup(name: string): Binding | null {
    return this.bindings.get(name) ?? this.parent?.lookup(name) ?? null
  }
}

/** A script with its scopes. */
export interface Tree {
  readonly program: Linked & Program
  /** Uses of names, by name; each knows the scope it stands in. */
  readonly uses: ReadonlyMap<string, readonly Linked[]>
  /** Bindings by the identifiers that declare them. */
  readonly declared: ReadonlyMap<Linked, Binding>
  /** The exports of a module: what it calls them outside, and inside. */
  readonly exported: ReadonlyMap<string, string>
  /** The imports of a module: the local name, from where, and what it is called there. */
  readonly imported: ReadonlyMap<string, { readonly from: string; readonly name: string }>
}

/** Larger scripts take longer to parse than what they hold is worth; UTF-16 units. */
export const largestTree = 8_000_000

/** Parses a script; null when it is none, or too large. Nothing of it is run. */
export function treeOf(code: string): Tree | null {
  if (code.length > largestTree) return null
  for (const sourceType of ['module', 'script'] as const) {
    try {
      return linked(
        parse(code, {
          ecmaVersion: 'latest',
          sourceType,
          allowReturnOutsideFunction: true,
          allowHashBang: true,
        }),
      )
    } catch {
      // A classic script may hold what a module may not.
    }
  }
  return null
}

const functionTypes = new Set(['FunctionDeclaration', 'FunctionExpression', 'ArrowFunctionExpression'])
const blockTypes = new Set([
  'BlockStatement',
  'ForStatement',
  'ForInStatement',
  'ForOfStatement',
  'SwitchStatement',
  'CatchClause',
  'StaticBlock',
])

export function isFunction(node: Linked): node is Linked & { params: Linked[]; body: Linked } {
  return functionTypes.has(node.type)
}

/** Links every node to its parent, and notes declarations and uses. Walks without recursion: minified code nests deep. */
function linked(program: Program): Tree {
  const declared = new Map<Linked, Binding>()
  const uses = new Map<string, Linked[]>()
  const exported = new Map<string, string>()
  const imported = new Map<string, { from: string; name: string }>()
  const pending: { node: Linked; scope: Scope }[] = [
    { node: program as Linked, scope: new Scope(null, true) },
  ]
  for (let next = pending.pop(); next; next = pending.pop()) {
    const { node } = next
    const scope = scopeFor(node, next.scope)
    if (node.type === 'Identifier') noteUse(node, scope, uses)
    if (node.type === 'ImportDeclaration') noteImports(node, scope, imported, declared)
    if (node.type === 'ExportNamedDeclaration') noteExports(node, exported)
    for (const [key, child] of childrenOf(node)) {
      child.parent = node
      const names = declaredIn(node, key, child, scope, next.scope)
      if (names) for (const name of names.names) declared.set(name, names.scope.declare(name.name, name))
      pending.push({ node: child, scope })
    }
  }
  return { program: program as Tree['program'], uses, declared, exported, imported }
}

function scopeFor(node: Linked, outer: Scope): Scope {
  if (isFunction(node)) return new Scope(outer, true)
  // The body of a function shares the function's scope: its parameters are seen in it.
  if (node.type === 'BlockStatement' && node.parent && isFunction(node.parent)) return outer
  return blockTypes.has(node.type) || node.type === 'ClassExpression' ? new Scope(outer, false) : outer
}

/** The names that one child declares, and the scope that gets them. */
function declaredIn(
  node: Linked,
  key: string,
  child: Linked,
  inner: Scope,
  outer: Scope,
): { names: readonly Name[]; scope: Scope } | null {
  if (node.type === 'VariableDeclarator' && key === 'id') {
    const kind = node.parent?.type === 'VariableDeclaration' ? node.parent.kind : 'var'
    return { names: namesIn(child), scope: kind === 'var' ? functionScope(inner) : inner }
  }
  if (isFunction(node) && key === 'params') return { names: namesIn(child), scope: inner }
  if (node.type === 'CatchClause' && key === 'param') return { names: namesIn(child), scope: inner }
  if (key !== 'id' || child.type !== 'Identifier') return null
  // The name of an expression is known only inside it.
  if (node.type === 'FunctionExpression' || node.type === 'ClassExpression')
    return { names: [child], scope: inner }
  return node.type === 'FunctionDeclaration' || node.type === 'ClassDeclaration'
    ? { names: [child], scope: outer }
    : null
}

function functionScope(scope: Scope): Scope {
  return scope.isFunction || scope.parent === null ? scope : functionScope(scope.parent)
}

type Name = Linked & { type: 'Identifier'; name: string }

/** The identifiers that a pattern declares. */
function namesIn(pattern: Linked): Name[] {
  switch (pattern.type) {
    case 'Identifier':
      return [pattern]
    case 'ObjectPattern':
      return pattern.properties.flatMap((each) =>
        namesIn(each.type === 'Property' ? each.value : each.argument),
      )
    case 'ArrayPattern':
      return pattern.elements.flatMap((each) => (each ? namesIn(each) : []))
    case 'AssignmentPattern':
      return namesIn(pattern.left)
    case 'RestElement':
      return namesIn(pattern.argument)
    default:
      return []
  }
}

function noteUse(node: Name, scope: Scope, uses: Map<string, Linked[]>): void {
  const { parent } = node
  if (!parent || !isRead(node, parent)) return
  node.scope = scope
  const known = uses.get(node.name)
  if (known) known.push(node)
  else uses.set(node.name, [node])
}

/** Whether an identifier stands for a value here, and is no key, label or declaration. */
function isRead(node: Linked, parent: Linked): boolean {
  switch (parent.type) {
    case 'MemberExpression':
      return parent.object === node || parent.computed
    case 'Property':
      return (
        (parent.value === node && parent.parent?.type !== 'ObjectPattern') ||
        (parent.computed && parent.key === node)
      )
    case 'MethodDefinition':
    case 'PropertyDefinition':
      return parent.value === node || (parent.computed && parent.key === node)
    case 'VariableDeclarator':
      return parent.init === node
    case 'AssignmentPattern':
      return parent.right === node
    case 'ExportSpecifier':
      return parent.local === node
    default:
      return (
        !/^(?:Function|Class|ArrowFunction.*|Import.*|Labeled.*|Break.*|Continue.*|.*Pattern|RestElement)/.test(
          parent.type,
        ) || isBody(node, parent)
      )
  }
}

function isBody(node: Linked, parent: Linked): boolean {
  return (
    ('body' in parent && parent.body === node) ||
    ('superClass' in parent && parent.superClass === node) ||
    parent.type === 'ImportExpression'
  )
}

function noteImports(
  node: Linked & { type: 'ImportDeclaration' },
  scope: Scope,
  imported: Map<string, { from: string; name: string }>,
  declared: Map<Linked, Binding>,
): void {
  for (const specifier of node.specifiers) {
    const { local } = specifier
    declared.set(local as Linked, scope.declare(local.name, local as Linked))
    const name =
      specifier.type === 'ImportSpecifier'
        ? nameOf(specifier.imported)
        : specifier.type === 'ImportDefaultSpecifier'
          ? 'default'
          : '*'
    imported.set(local.name, { from: String(node.source.value), name })
  }
}

function noteExports(node: Linked & { type: 'ExportNamedDeclaration' }, exported: Map<string, string>): void {
  for (const { local, exported: outside } of node.source ? [] : node.specifiers)
    exported.set(nameOf(outside), nameOf(local))
  const { declaration } = node
  if (declaration?.type === 'VariableDeclaration') {
    for (const { id } of declaration.declarations)
      for (const { name } of namesIn(id as Linked)) exported.set(name, name)
  } else if (declaration && 'id' in declaration && declaration.id)
    exported.set(declaration.id.name, declaration.id.name)
}

function nameOf(node: { type: string; name?: string; value?: unknown }): string {
  return node.name ?? String(node.value)
}

/** The nodes right below one, each with the key it stands under. */
export function* childrenOf(node: Linked): Generator<[key: string, child: Linked]> {
  for (const key in node) {
    if (key === 'parent' || key === 'scope') continue
    const value: unknown = (node as unknown as Record<string, unknown>)[key]
    if (Array.isArray(value)) {
      for (const each of value) if (isNode(each)) yield [key, each]
    } else if (isNode(value)) yield [key, value]
  }
}

function isNode(value: unknown): value is Linked {
  return typeof value === 'object' && value !== null && 'type' in value && 'start' in value
}

/** The smallest node that holds an offset. */
export function nodeAt(tree: Tree, offset: number): Linked | null {
  let found: Linked = tree.program
  for (;;) {
    let inner: Linked | null = null
    for (const [, child] of childrenOf(found)) {
      if (child.start <= offset && offset < child.end) inner = child
    }
    if (inner === null) return found === tree.program ? null : found
    found = inner
  }
}

/** The uses of what a name means. */
export function usesOf(tree: Tree, binding: Binding): readonly Linked[] {
  binding.uses ??= (tree.uses.get(binding.name) ?? []).filter(
    ({ scope }) => scope?.lookup(binding.name) === binding,
  )
  return binding.uses
}

/** What an identifier means: the binding it declares, or the one it uses. */
export function bindingOf(tree: Tree, node: Linked): Binding | null {
  if (node.type !== 'Identifier') return null
  return node.scope ? node.scope.lookup(node.name) : (tree.declared.get(node) ?? null)
}

/** Every node below one, itself among them. */
export function* nodesBelow(node: Linked): Generator<Linked> {
  const pending = [node]
  for (let next = pending.pop(); next; next = pending.pop()) {
    yield next
    for (const [, child] of childrenOf(next)) pending.push(child)
  }
}

/** The name of a member, or null when only the running code knows it. */
export function memberName(node: Linked): string | null {
  if (node.type !== 'MemberExpression') return null
  const { property } = node
  if (!node.computed && property.type === 'Identifier') return property.name
  return property.type === 'Literal' && typeof property.value === 'string' ? property.value : null
}

/** The key of a property of an object or class, or null when only the running code knows it. */
export function keyName(node: Linked): string | null {
  if (node.type !== 'Property' && node.type !== 'PropertyDefinition' && node.type !== 'MethodDefinition')
    return null
  const { key } = node
  if (key.type === 'Identifier' && !node.computed) return key.name
  return key.type === 'Literal' ? String(key.value) : null
}

export type Call = Linked & { type: 'CallExpression' | 'NewExpression' }

export function isCall(node: Linked): node is Call {
  return node.type === 'CallExpression' || node.type === 'NewExpression'
}
