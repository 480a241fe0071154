import { isFunction, type SyntaxNode } from '../../syntax/node.ts'
import type { Binding } from '../../syntax/scope.ts'

/** The class that a function is the constructor of. */
export function constructedBy({ parent }: SyntaxNode): SyntaxNode | null {
  return parent?.type === 'MethodDefinition' && parent.kind === 'constructor'
    ? (parent.parent?.parent ?? null)
    : null
}

/** Globals that every browser has: code that sets one is for where there is none. */
export const ofBrowser = /^(?:location|document|navigator|origin|localStorage|sessionStorage)$/

/** A name for the window itself. */
export function isGlobal(node: SyntaxNode): boolean {
  return node.type === 'Identifier' && /^(?:window|self|globalThis|global)$/.test(node.name)
}

/** Whether a member is set by a constructor to what that was given, and to no text of its own. */
export function isGivenToConstructor(member: SyntaxNode): boolean {
  const { parent } = member
  const isText = parent?.type === 'AssignmentExpression' && /Literal$/.test(parent.right.type)
  return !isText && isInConstructor(member)
}

/** Whether a node stands in a constructor. */
export function isInConstructor(node: SyntaxNode): boolean {
  const { parent } = enclosingFunction(node) ?? {}
  return parent?.type === 'MethodDefinition' && parent.kind === 'constructor'
}

/** Whether a name is that of a parameter. */
export function isParameter({ declared }: Binding): boolean {
  return declared.length === 1 && declared[0]?.parent !== undefined && isFunction(declared[0].parent)
}

/** Whether a name is exported where it is declared. */
export function isExportedAtOnce({ declared }: Binding): boolean {
  return declared.some((name) => name.parent?.parent?.parent?.type === 'ExportNamedDeclaration')
}

/** The function that a node stands in. */
export function enclosingFunction(node: SyntaxNode): SyntaxNode | null {
  let at: SyntaxNode | undefined = node.parent
  while (at && !isFunction(at)) at = at.parent
  return at ?? null
}

/** The class that a node stands in; without one, the whole function that `this` belongs to. */
export function classOf(node: SyntaxNode): SyntaxNode | null {
  for (let at: SyntaxNode | undefined = node.parent; at; at = at.parent) {
    if (at.type === 'ClassBody') return at
    if (at.type === 'FunctionDeclaration') return at
  }
  return null
}
