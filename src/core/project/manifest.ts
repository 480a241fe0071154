import { type Node as JsonNode, type ParseError, printParseErrorCode } from 'jsonc-parser'
import type { Manifest } from '../frameworks/project-sources.ts'
import { FolderError } from '../model/errors.ts'
import { type Folder, joinPath } from '../model/folder.ts'
import { descend, jsonTree, membersOf } from '../model/json.ts'
import { type Place, type Reading, stated } from '../model/reading.ts'
import { positionAt, positionsIn, readText } from '../model/text.ts'

/** The members of a manifest that list dependencies. */
export const dependencySorts = ['dependencies', 'devDependencies', 'optionalDependencies', 'peerDependencies']

/**
 * Reads `package.json`; null when there is none.
 * @param from the directory that its places are told from, below that of the folder
 * @throws {FolderError} when it is not a JSON object (RFC 8259).
 */
export async function readManifest(
  folder: Folder,
  directory = '',
  from: string = '',
): Promise<Manifest | null> {
  const path = joinPath(directory, 'package.json')
  const text = await readText(folder, path)
  const file = from === '' ? path : '../'.repeat(from.split('/').length) + path
  if (text === null) return null
  const root = parseJsonObject(file, text)
  const positionOf = positionsIn(text)
  const placeOf = (node: JsonNode): Place => ({ file, ...positionOf((node.parent ?? node).offset) })
  const textAt = (node: JsonNode | null): Reading<string> | null =>
    node?.type === 'string' ? stated(String(node.value), placeOf(node)) : null
  // Every framework asks for its own, and repositories list thousands.
  const known = new Map<string, ReadonlyMap<string, Reading<string>>>()
  const textsAt = (...path: readonly string[]): ReadonlyMap<string, Reading<string>> => {
    const key = path.join('\n')
    const found = known.get(key) ?? readTexts(path)
    known.set(key, found)
    return found
  }
  const readTexts = (path: readonly string[]): ReadonlyMap<string, Reading<string>> => {
    const found = new Map<string, Reading<string>>()
    for (const [name, node] of membersOf(descend(root, path))) {
      const reading = textAt(node)
      if (reading) found.set(name, reading)
    }
    return found
  }
  let dependencies: ReadonlyMap<string, JsonNode> | null = null
  return {
    file,
    place: { file, line: 1, column: 1 },
    text: (...path) => textAt(descend(root, path)),
    texts: textsAt,
    textsBelow: (name) => new Map(membersOf(descend(root, [name])).map(([key]) => [key, textsAt(name, key)])),
    list: (...path) =>
      (descend(root, path)?.children ?? []).flatMap(({ value }) => (typeof value === 'string' ? value : [])),
    dependency: (name) => {
      dependencies ??= dependenciesOf(root)
      return textAt(dependencies.get(name) ?? null)
    },
  }
}

/** The dependencies of every sort; of one that is listed twice, the first. */
function dependenciesOf(root: JsonNode): Map<string, JsonNode> {
  const found = new Map<string, JsonNode>()
  for (const sort of dependencySorts) {
    for (const [name, node] of membersOf(descend(root, [sort]))) {
      if (node.type === 'string' && !found.has(name)) found.set(name, node)
    }
  }
  return found
}

/** Parses a JSON object, offsets kept. @throws {FolderError} when the text is none, with the place of the first error. */
function parseJsonObject(file: string, text: string): JsonNode {
  const errors: ParseError[] = []
  const plain = text.replace(/^\ufeff/, ' ')
  const root = jsonTree(plain, errors, { disallowComments: true, allowTrailingComma: false })
  const first = errors[0]
  if (first) {
    const { line, column } = positionAt(text, first.offset)
    const what = printParseErrorCode(first.error)
      .replace(/([a-z])([A-Z])/g, '$1 $2')
      .toLowerCase()
    throw new FolderError(
      'unreadable',
      `${file} is not valid JSON: ${what} at line ${line}, column ${column}.`,
    )
  }
  if (root?.type !== 'object') throw new FolderError('unreadable', `${file} holds no JSON object.`)
  return root
}
