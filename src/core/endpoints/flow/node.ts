import type { AnyNode } from 'acorn'
import type { Scope } from './scope.ts'

/** A node that knows what it stands in. The parser's nodes are linked in place: a bundle has a million of them. */
export type Linked = AnyNode & { parent?: Linked; scope?: Scope }

const functionTypes = new Set(['FunctionDeclaration', 'FunctionExpression', 'ArrowFunctionExpression'])

export function isFunction(node: Linked): node is Linked & { params: Linked[]; body: Linked } {
  return functionTypes.has(node.type)
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
