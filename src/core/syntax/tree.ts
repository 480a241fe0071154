import type { ExportNamedDeclaration, Identifier, ImportDeclaration, Node, Program } from 'acorn'
import { BuiltScript } from './built-script.ts'
import { childrenOf, forEachChild } from './children.ts'
import { outerName, type SyntaxNode } from './node.ts'
import { parseSource } from './parse.ts'
import { type Binding, declaredIn, isRead, namesIn, Scope, scopeFor } from './scope.ts'

/** Takes note of what is looked for in a tree that stands for a part of its code only. */
export interface Watch {
  /** The uses of a name in a node, or anywhere. */
  name(name: string, within: SyntaxNode | null): void
  /** A key or a number in a node, or anywhere. */
  word(word: string, within: SyntaxNode | null): void
  /** The statements of a function's body, or the properties of an object. */
  within(braces: SyntaxNode): void
}

/** A tree with its scopes. */
export interface Tree<Root extends Node = Node> {
  readonly root: Root
  /** Uses of names, by name; each knows the scope it stands in. */
  readonly uses: ReadonlyMap<string, readonly Identifier[]>
  /** Bindings by the identifiers that declare them. */
  readonly declared: ReadonlyMap<SyntaxNode, Binding>
  /** The exports of a module: what it calls them outside, and inside. */
  readonly exported: ReadonlyMap<string, string>
  /** The imports of a module: the local name, from where, and what it is called there. */
  readonly imported: ReadonlyMap<string, { readonly from: string; readonly name: string }>
  /** What the code declares outside of everything. */
  readonly scope: Scope
  /** What was added to it since it was made. */
  readonly added: SyntaxNode[]
  readonly watch?: Watch
}

/** The tree of a source, with lines and columns. @param mustBeSound see {@link parseSource} @throws {SyntaxProblem} */
export function sourceTree(file: string, text: string, mustBeSound = false): Tree<Program> {
  return linked(parseSource(file, text, mustBeSound))
}

/** The tree of a built script, with offsets alone; null when it can't be parsed. */
export function builtTree(code: string): Tree<Program> | null {
  const program = new BuiltScript(code).program()
  return program && linked(program)
}

/** The same, while it is being made. */
interface Growing {
  readonly uses: Map<string, Identifier[]>
  readonly declared: Map<SyntaxNode, Binding>
  readonly exported: Map<string, string>
  readonly imported: Map<string, { from: string; name: string }>
}

/** Links every node to its parent, and notes declarations and uses. */
export function linked<Root extends Node>(root: Root): Tree<Root> {
  const growing = { uses: new Map(), declared: new Map(), exported: new Map(), imported: new Map() }
  const scope = new Scope(null, true)
  link(growing, root as unknown as SyntaxNode, scope)
  return { root, scope, added: [], ...growing }
}

/** Links what stands between braces that a tree was made without. */
export function linkBraces(tree: Tree, braces: SyntaxNode): void {
  let around = braces.parent
  while (around && !(around.scope && around.type !== 'Identifier')) around = around.parent
  link(tree as Tree & Growing, braces, around?.scope ?? tree.scope)
  tree.added.push(braces)
}

/** Walks without recursion: minified code nests deep. */
function link({ uses, declared, exported, imported }: Growing, top: SyntaxNode, around: Scope): void {
  const pending = [top]
  const scopes = [around]
  for (let node = pending.pop(); node; node = pending.pop()) {
    const outer = scopes.pop() as Scope
    const scope = scopeFor(node, outer)
    if (scope !== outer) node.scope = scope
    if (node.type === 'Identifier') noteUse(node, scope, uses)
    if (node.type === 'ImportDeclaration') noteImports(node, scope, imported, declared)
    if (node.type === 'ExportNamedDeclaration') noteExports(node, exported)
    const holder = node
    forEachChild(holder, (child, key) => {
      child.parent = holder
      const names = declaredIn(holder, key, child, scope, outer)
      if (names) for (const name of names.names) declared.set(name, names.scope.declare(name.name, name))
      pending.push(child)
      scopes.push(scope)
    })
  }
}

function noteUse(node: Identifier, scope: Scope, uses: Map<string, Identifier[]>): void {
  const { parent } = node
  if (!parent || !isRead(node, parent)) return
  node.scope = scope
  const known = uses.get(node.name)
  if (known) known.push(node)
  else uses.set(node.name, [node])
}

function noteImports(
  node: ImportDeclaration,
  scope: Scope,
  imported: Map<string, { from: string; name: string }>,
  declared: Map<SyntaxNode, Binding>,
): void {
  for (const specifier of node.specifiers) {
    const { local } = specifier
    declared.set(local, scope.declare(local.name, local))
    const name =
      specifier.type === 'ImportSpecifier'
        ? outerName(specifier.imported)
        : specifier.type === 'ImportDefaultSpecifier'
          ? 'default'
          : '*'
    imported.set(local.name, { from: String(node.source.value), name })
  }
}

function noteExports(node: ExportNamedDeclaration, exported: Map<string, string>): void {
  for (const { local, exported: outside } of node.source ? [] : node.specifiers)
    exported.set(outerName(outside), outerName(local))
  const { declaration } = node
  if (declaration?.type === 'VariableDeclaration') {
    for (const { id } of declaration.declarations)
      for (const { name } of namesIn(id)) exported.set(name, name)
  } else if (declaration && 'id' in declaration && declaration.id?.type === 'Identifier')
    exported.set(declaration.id.name, declaration.id.name)
}

/** The smallest node that holds an offset. */
export function nodeAt(tree: Tree, offset: number): SyntaxNode | null {
  const root = tree.root as unknown as SyntaxNode
  let found = root
  for (;;) {
    let inner: SyntaxNode | null = null
    for (const child of childrenOf(found)) {
      if (child.start <= offset && offset < child.end) inner = child
    }
    if (inner === null) return found === root ? null : found
    found = inner
  }
}

/** All uses of a name, whatever it means there. */
export function usesNamed(tree: Tree, name: string): readonly Identifier[] {
  tree.watch?.name(name, null)
  return tree.uses.get(name) ?? []
}

/** The uses of what a name means. */
export function usesOf(tree: Tree, binding: Binding): readonly Identifier[] {
  tree.watch?.name(binding.name, binding.scope.node)
  const named = tree.uses.get(binding.name) ?? []
  // A tree may have grown since.
  if (binding.uses?.of !== named.length) {
    const found = named.filter(({ scope }) => scope?.lookup(binding.name) === binding)
    binding.uses = { of: named.length, found }
  }
  return binding.uses.found
}

/** What an identifier means: the binding it declares, or the one it uses. */
export function bindingOf(tree: Tree, node: SyntaxNode): Binding | null {
  if (node.type !== 'Identifier') return null
  return tree.declared.get(node) ?? node.scope?.lookup(node.name) ?? null
}

/** Whether a name is given another value after its declaration. */
export function isReassigned(tree: Tree, binding: Binding): boolean {
  return usesOf(tree, binding).some((use) => {
    const { parent } = use
    return (
      (parent?.type === 'AssignmentExpression' && parent.left === use) || parent?.type === 'UpdateExpression'
    )
  })
}
