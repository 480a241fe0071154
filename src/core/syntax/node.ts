import type {
  AnyNode,
  CallExpression,
  Expression,
  Function as FunctionNode,
  NewExpression,
  Node,
} from 'acorn'
import { forEachChild } from './children.ts'
import type { Scope } from './scope.ts'

declare module 'acorn' {
  /** Nodes are linked in place, since a bundle has a million of them: what each stands in, and what names mean there. */
  interface Node {
    parent?: SyntaxNode
    scope?: Scope
  }
}

/** A node of a tree as the ESTree standard has it, with what TypeScript and JSX add that is looked at here. */
export type SyntaxNode = AnyNode | TypeWrapper | JsxNode

/** An expression with a type put to it: `x as T`, `x satisfies T`, `x!`. */
export interface TypeWrapper extends Node {
  type: 'TSAsExpression' | 'TSSatisfiesExpression' | 'TSNonNullExpression'
  expression: Expression
}

/** JSX, as far as tables of routes need it. */
export type JsxNode = JsxElement | JsxAttribute | JsxContainer | JsxName | JsxMember

export interface JsxElement extends Node {
  type: 'JSXElement'
  openingElement: { name: SyntaxNode; attributes: SyntaxNode[] }
  children: SyntaxNode[]
}

interface JsxAttribute extends Node {
  type: 'JSXAttribute'
  name: SyntaxNode
  value: SyntaxNode | null
}

interface JsxContainer extends Node {
  type: 'JSXExpressionContainer'
  expression: SyntaxNode
}

interface JsxName extends Node {
  type: 'JSXIdentifier'
  name: string
}

interface JsxMember extends Node {
  type: 'JSXMemberExpression'
  object: SyntaxNode
  property: JsxName
}

export type Call = CallExpression | NewExpression

const functionTypes = new Set(['FunctionDeclaration', 'FunctionExpression', 'ArrowFunctionExpression'])

export function isFunction(node: SyntaxNode): node is SyntaxNode & FunctionNode {
  return functionTypes.has(node.type)
}

export function isCall(node: SyntaxNode): node is Call {
  return node.type === 'CallExpression' || node.type === 'NewExpression'
}

/** An expression without the types that are put to it. */
export function withoutTypes(node: SyntaxNode): SyntaxNode {
  return isTyped(node) ? withoutTypes(node.expression) : node
}

export function isTyped(node: SyntaxNode): node is TypeWrapper {
  return /^TS(?:As|Satisfies|NonNull)Expression$/.test(node.type)
}

/**
 * Visits every node below one, itself first, in the order of the text. What lies below a node for which `visit` answers
 * false is left out. Without recursion: minified code nests deep.
 */
export function walkTree(node: SyntaxNode, visit: (node: SyntaxNode) => unknown): void {
  const pending = [node]
  for (let next = pending.pop(); next; next = pending.pop()) {
    if (visit(next) === false) continue
    const first = pending.length
    forEachChild(next, (child) => pending.push(child))
    // The last one pushed is the next: what was pushed is turned round.
    for (let low = first, high = pending.length - 1; low < high; low++, high--) {
      const kept = pending[low] as SyntaxNode
      pending[low] = pending[high] as SyntaxNode
      pending[high] = kept
    }
  }
}

/** The nodes that hold one, the nearest first. */
export function* outward(node: SyntaxNode): Generator<SyntaxNode> {
  for (let at = node.parent; at; at = at.parent) yield at
}

/** The name of a member, or null when only the running code knows it. */
export function memberName(node: SyntaxNode): string | null {
  if (node.type !== 'MemberExpression') return null
  const { property } = node
  if (!node.computed && property.type === 'Identifier') return property.name
  if (property.type === 'PrivateIdentifier') return `#${property.name}`
  return textOf(property)
}

/** The key of a property of an object, class or pattern, or null when only the running code knows it. */
export function keyName(node: SyntaxNode): string | null {
  if (node.type !== 'Property' && node.type !== 'PropertyDefinition' && node.type !== 'MethodDefinition')
    return null
  const { key } = node
  if (key.type === 'Identifier' && !node.computed) return key.name
  if (key.type === 'PrivateIdentifier') return `#${key.name}`
  return key.type === 'Literal' ? String(key.value) : null
}

/** What an import or export calls a thing outside: a name, or a text. */
export function outerName(node: SyntaxNode): string {
  if (node.type === 'Identifier') return node.name
  return node.type === 'Literal' ? String(node.value) : ''
}

/** The text of a literal or of a template without holes. */
export function textOf(node: SyntaxNode | null | undefined): string | null {
  if (node?.type === 'Literal') return typeof node.value === 'string' ? node.value : null
  if (node?.type !== 'TemplateLiteral' || node.expressions.length > 0) return null
  return node.quasis[0]?.value.cooked ?? null
}

/** Names joined by points, as they are written: `process.env`, `import.meta.env`; null for anything else. */
export function dottedName(node: SyntaxNode): string | null {
  if (node.type === 'Identifier' || node.type === 'JSXIdentifier') return node.name
  if (node.type === 'JSXMemberExpression') {
    const outer = dottedName(node.object)
    return outer === null ? null : `${outer}.${node.property.name}`
  }
  if (node.type === 'MetaProperty') return `${node.meta.name}.${node.property.name}`
  if (node.type === 'ChainExpression') return dottedName(node.expression)
  const name = node.type === 'MemberExpression' && !node.computed ? memberName(node) : null
  const owner = name === null || node.type !== 'MemberExpression' ? null : dottedName(node.object)
  return owner === null ? null : `${owner}.${name}`
}

/** The value that an object's own text gives a key; of several, the last. */
export function propertyOf(node: SyntaxNode, key: string): SyntaxNode | null {
  if (node.type !== 'ObjectExpression') return null
  const found = node.properties.findLast((each) => each.type === 'Property' && keyName(each) === key)
  return found?.type === 'Property' ? found.value : null
}
