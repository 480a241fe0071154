import type * as t from '@babel/types'

/** Members that hold no code. */
const skipped = new Set(['loc', 'extra', 'typeAnnotation', 'returnType', 'typeParameters'])

/** Visits every node of a syntax tree, outermost first, with its ancestors, the nearest last. */
export function walkTree(
  body: readonly t.Node[],
  visit: (node: t.Node, parents: readonly t.Node[]) => void,
): void {
  const parents: t.Node[] = []
  const enter = (node: t.Node): void => {
    visit(node, parents)
    parents.push(node)
    const members = node as unknown as Readonly<Record<string, unknown>>
    for (const key in members) {
      const value = members[key]
      if (typeof value !== 'object' || value === null || skipped.has(key)) continue
      if (isNode(value)) enter(value)
      else if (Array.isArray(value)) for (const item of value) if (isNode(item)) enter(item)
    }
    parents.pop()
  }
  for (const node of body) enter(node)
}

function isNode(value: unknown): value is t.Node {
  return typeof value === 'object' && value !== null && 'type' in value && typeof value.type === 'string'
}
