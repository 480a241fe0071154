import { isCall, isFunction, keyName, memberName, type SyntaxNode } from '../../syntax/node.ts'

/**
 * The export that a node is, in a module that a bundler numbered: `n.d(t, { a: () => o })`, and shorter
 * `n.d(t, ["a", () => o, "b", 0, "a constant"])`.
 */
export function exportIn(node: SyntaxNode): { name: string; id: string | null } | null {
  const { parent } = node
  const call = parent?.type === 'Property' ? parent.parent?.parent : parent?.parent
  if (!parent || !call || !isCall(call) || memberName(call.callee) !== 'd') return null
  const name = parent.type === 'Property' ? keyName(parent) : nameInList(parent, node)
  if (name === null) return null
  let at: SyntaxNode | undefined = call.parent
  while (at && !(at.type === 'Property' && isFunction(at.value))) at = at.parent
  return { name, id: at ? keyName(at) : null }
}

function nameInList(list: SyntaxNode, node: SyntaxNode): string | null {
  if (list.type !== 'ArrayExpression') return null
  const index = (list.elements as readonly (SyntaxNode | null)[]).indexOf(node)
  const before = list.elements[index - 1]
  const named = before?.type === 'Literal' && before.value === 0 ? list.elements[index - 2] : before
  return named?.type === 'Literal' && typeof named.value === 'string' ? named.value : null
}

/** How a module's number may be written: minifiers make `1e3` of 1000. */
export function spellingsOf(module: string): string[] {
  let zeros = 0
  if (/^[1-9]\d*$/.test(module)) while (module.at(-1 - zeros) === '0') zeros++
  const shortened = Array.from({ length: zeros }, (_, index) => `${module.slice(0, -index - 1)}e${index + 1}`)
  return [module, ...shortened]
}
