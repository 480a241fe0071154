import { isCall, isFunction, keyName, type Linked, memberName } from './node.ts'

/**
 * The export that a node is, in a module that a bundler numbered: `n.d(t, { a: () => o })`, and shorter
 * `n.d(t, ["a", () => o, "b", 0, "a constant"])`.
 */
export function exportIn(node: Linked): { name: string; id: string | null } | null {
  const { parent } = node
  const call = parent?.type === 'Property' ? parent.parent?.parent : parent?.parent
  if (!parent || !call || !isCall(call) || memberName(call.callee as Linked) !== 'd') return null
  const name = parent.type === 'Property' ? keyName(parent) : nameInList(parent, node)
  if (name === null) return null
  let at: Linked | undefined = call.parent
  while (at && !(at.type === 'Property' && isFunction(at.value as Linked))) at = at.parent
  return { name, id: at ? keyName(at) : null }
}

function nameInList(list: Linked, node: Linked): string | null {
  if (list.type !== 'ArrayExpression') return null
  const index = (list.elements as (Linked | null)[]).indexOf(node)
  const before = list.elements[index - 1]
  const named = before?.type === 'Literal' && before.value === 0 ? list.elements[index - 2] : before
  return named?.type === 'Literal' && typeof named.value === 'string' ? named.value : null
}
