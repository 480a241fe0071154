import type { Identifier } from 'acorn'
import { isFunction, type SyntaxNode } from './node.ts'

/** A name, where it is declared, and in which scope. */
export interface Binding {
  readonly name: string
  readonly scope: Scope
  /** The identifiers that declare it. */
  readonly declared: Identifier[]
  /** Where it is used, once somebody asked: found among so many uses of the name. */
  uses?: { readonly of: number; readonly found: readonly Identifier[] }
}

/** What one function, block, class or module declares. */
export class Scope {
  readonly parent: Scope | null
  readonly isFunction: boolean
  /** What has the scope; null for the whole of the code. */
  readonly node: SyntaxNode | null
  readonly bindings = new Map<string, Binding>()

  constructor(parent: Scope | null, isFunction: boolean, node: SyntaxNode | null = null) {
    this.parent = parent
    this.isFunction = isFunction
    this.node = node
  }

  /** The binding of a name that is declared at a place in this scope. */
  declare(name: string, at: Identifier): Binding {
    const binding = this.bindings.get(name) ?? { name, scope: this, declared: [] }
    binding.declared.push(at)
    this.bindings.set(name, binding)
    return binding
  }

  lookup(name: string): Binding | null {
    return this.bindings.get(name) ?? this.parent?.lookup(name) ?? null
  }
}

const blockTypes = new Set([
  'BlockStatement',
  'ForStatement',
  'ForInStatement',
  'ForOfStatement',
  'SwitchStatement',
  'CatchClause',
  'StaticBlock',
])

/** The scope of what a node holds. */
export function scopeFor(node: SyntaxNode, outer: Scope): Scope {
  if (isFunction(node)) return new Scope(outer, true, node)
  // The body of a function shares the function's scope: its parameters are seen in it.
  if (node.type === 'BlockStatement' && node.parent && isFunction(node.parent)) return outer
  return blockTypes.has(node.type) || node.type === 'ClassExpression' ? new Scope(outer, false, node) : outer
}

/** The names that one child declares, and the scope that gets them. */
export function declaredIn(
  node: SyntaxNode,
  key: string,
  child: SyntaxNode,
  inner: Scope,
  outer: Scope,
): { names: readonly Identifier[]; scope: Scope } | null {
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

/** The identifiers that a pattern declares. */
export function namesIn(pattern: SyntaxNode): Identifier[] {
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

/** Whether an identifier stands for a value here, and is no key, label or declaration. */
export function isRead(node: SyntaxNode, parent: SyntaxNode): boolean {
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
      return !naming(parent.type) || isBody(node, parent)
  }
}

/** Kinds of nodes that identifiers right below them are names for, by kind: there are few, and millions of identifiers. */
const namingKinds = new Map<string, boolean>()

function naming(type: string): boolean {
  let known = namingKinds.get(type)
  if (known === undefined) {
    known = /^(?:Function|Class|ArrowFunction|Import|Labeled|Break|Continue|RestElement)|Pattern$/.test(type)
    namingKinds.set(type, known)
  }
  return known
}

function isBody(node: SyntaxNode, parent: SyntaxNode): boolean {
  return (
    ('body' in parent && parent.body === node) ||
    ('superClass' in parent && parent.superClass === node) ||
    parent.type === 'ImportExpression'
  )
}
