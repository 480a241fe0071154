import type { Node as JsonNode } from 'jsonc-parser'
import { jsonTree } from '../../model/json.ts'
import type { Place } from '../../model/reading.ts'
import { positionsIn } from '../../model/text.ts'
import type { Folded, Primitive } from '../../syntax/value.ts'

/**
 * Reads a data file (JSON with comments, YAML 1.2, TOML 1.0, XML) with places; null for other kinds. The readers of YAML and
 * TOML are loaded when there is such a file: most projects have none, and loading them takes longer than all the rest.
 * @throws {SyntaxProblem}
 */
export async function foldData(file: string, text: string): Promise<Folded | null> {
  if (/\.(?:json|jsonc|json5)$|(?:^|\/)\.[\w-]+$/.test(file)) return foldJson(file, text)
  if (/\.ya?ml$/.test(file)) return (await import('./yaml.ts')).foldYaml(file, text)
  if (file.endsWith('.xml')) return (await import('./xml.ts')).foldXml(file, text)
  return file.endsWith('.toml') ? (await import('./toml.ts')).foldToml(file, text) : null
}

function foldJson(file: string, text: string): Folded | null {
  const position = positionsIn(text)
  const fold = (node: JsonNode, at: Place): Folded => {
    if (node.type === 'array')
      return { kind: 'list', items: (node.children ?? []).map((item) => fold(item, place(item))), at }
    if (node.type !== 'object') return { kind: 'value', value: node.value as Primitive, at }
    const members = new Map<string, Folded>()
    for (const property of node.children ?? []) {
      const [key, value] = property.children ?? []
      if (key && value) members.set(String(key.value), fold(value, place(property)))
    }
    return { kind: 'object', members, open: false, at }
  }
  const place = (node: JsonNode): Place => ({ file, ...position(node.offset) })
  const root = jsonTree(text.replace(/^\ufeff/, ' '), [], { allowTrailingComma: true })
  return root ? fold(root, place(root)) : null
}
