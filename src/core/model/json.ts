import type { Node as JsonNode } from 'jsonc-parser'

/** The members of a parsed JSON object, offsets kept; none when the node is no object. */
export function membersOf(node: JsonNode | null | undefined): [string, JsonNode][] {
  if (node?.type !== 'object') return []
  return (node.children ?? []).flatMap(({ children }) =>
    children?.[0] && children[1] ? [[String(children[0].value), children[1]] as [string, JsonNode]] : [],
  )
}

/** The value at a path of member names, or null. */
export function descend(root: JsonNode | null | undefined, path: readonly string[]): JsonNode | null {
  let at = root ?? null
  for (const name of path) at = membersOf(at).find(([key]) => key === name)?.[1] ?? null
  return at
}
