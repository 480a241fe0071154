import type { Node as JsonNode } from 'jsonc-parser'
import { descend, jsonTree, membersOf } from '../model/json.ts'
import type { Reference, ReferenceKind } from '../model/reference.ts'

/** Members of a web app manifest that are URLs of pictures, and of pages (W3C Web Application Manifest). */
const pictures = new Set(['icons', 'screenshots'])

/** What a web app manifest refers to. URLs are relative to the manifest itself. */
export function readWebManifest(json: string): Reference[] {
  const root = jsonTree(json)
  if (root?.type !== 'object') return []
  const found: Reference[] = []
  const add = (kind: ReferenceKind, node: JsonNode | null): void => {
    if (node?.type !== 'string' || node.value === '') return
    found.push({ kind, raw: node.value, against: 'file', offset: node.offset + 1, length: node.length - 2 })
  }
  for (const [name, value] of membersOf(root)) {
    if (name === 'start_url') add('page', value)
    if (!pictures.has(name)) continue
    for (const item of value.children ?? []) add('icon', descend(item, ['src']))
  }
  return found
}
