import { type Program, parse } from 'acorn'
import { childrenOf, type Linked } from './node.ts'
import { type Binding, declaredIn, isRead, type Name, namesIn, Scope, scopeFor } from './scope.ts'

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
export const largestTree = 4_000_000

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

function noteUse(node: Name, scope: Scope, uses: Map<string, Linked[]>): void {
  const { parent } = node
  if (!parent || !isRead(node, parent)) return
  node.scope = scope
  const known = uses.get(node.name)
  if (known) known.push(node)
  else uses.set(node.name, [node])
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
