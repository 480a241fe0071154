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
  const found: [string, JsonNode][] = []
  if (node?.type !== 'object') return found
  for (const { children } of node.children ?? []) {
    if (children?.[0] && children[1]) found.push([String(children[0].value), children[1]])
  }
  return found
}

/** The value at a path of member names, or null. */
export function descend(root: JsonNode | null | undefined, path: readonly string[]): JsonNode | null {
  let at: JsonNode | null = root ?? null
  for (const name of path) {
    const members: readonly JsonNode[] = at?.type === 'object' ? (at.children ?? []) : []
    at =
      members.find(({ children }) => String(children?.[0]?.value) === name && children?.[1])?.children?.[1] ??
      null
  }
  return at
}
