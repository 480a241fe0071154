import { type Node as JsonNode, type ParseError, type ParseOptions, parseTree } from 'jsonc-parser'

/** Deeper texts are no data of anybody's, and the parser calls itself for each level. */
const deepest = 1_000

/** The tree of a JSON text with offsets; undefined for none, and for one that nests too deeply to be anything. */
export function jsonTree(
  text: string,
  errors: ParseError[] = [],
  options?: ParseOptions,
): JsonNode | undefined {
  return isTooDeep(text) ? undefined : parseTree(text, errors, options)
}

/** Whether a text nests too deeply for a parser that calls itself. */
export function isTooDeep(text: string): boolean {
  return depthOf(text) > deepest
}

/** How deeply brackets nest at most, those in strings left out. */
function depthOf(text: string): number {
  let depth = 0
  let most = 0
  for (const [token] of text.matchAll(/"(?:[^"\\]|\\.)*"|[[\]{}]/g)) {
    if (token === '[' || token === '{') most = Math.max(most, ++depth)
    else if (token === ']' || token === '}') depth--
  }
  return most
}

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
