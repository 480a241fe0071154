import { type Node as JsonNode, parseTree } from 'jsonc-parser'
import { parse as parseToml, TomlError } from 'smol-toml'
import { isAlias, isMap, isScalar, isSeq, LineCounter, parseDocument, type Node as YamlNode } from 'yaml'
import type { Place } from '../../model/reading.ts'
import { positionsIn } from '../../model/text.ts'
import { SyntaxProblem } from './modules.ts'
import type { Folded, Primitive } from './value.ts'

/** Reads a data file (JSON with comments, YAML 1.2, TOML 1.0) with places; null for other kinds. @throws {SyntaxProblem} */
export function foldData(file: string, text: string): Folded | null {
  if (/\.(?:json|jsonc|json5)$|(?:^|\/)\.[a-z]+rc$/.test(file)) return foldJson(file, text)
  if (/\.ya?ml$/.test(file)) return foldYaml(file, text)
  return file.endsWith('.toml') ? foldToml(file, text) : null
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
  const root = parseTree(text.replace(/^\ufeff/, ' '), [], { allowTrailingComma: true })
  return root ? fold(root, place(root)) : null
}

function foldYaml(file: string, text: string): Folded | null {
  const lines = new LineCounter()
  const parsed = parseDocument(text, { lineCounter: lines, logLevel: 'silent', merge: true })
  if (parsed.errors[0])
    throw new SyntaxProblem(`${file} is not valid YAML: ${parsed.errors[0].message.split('\n')[0]}.`)
  const place = (node: YamlNode | null | undefined): Place => {
    const found = lines.linePos(node?.range?.[0] ?? 0)
    return { file, line: found.line, column: found.col }
  }
  const fold = (node: unknown, at: Place, depth: number): Folded => {
    if (depth > 60) return { kind: 'computed', expression: '…', at }
    if (isAlias(node)) return fold(node.resolve(parsed), at, depth + 1)
    if (isSeq(node))
      return {
        kind: 'list',
        items: node.items.map((item) => fold(item, place(item as YamlNode), depth + 1)),
        at,
      }
    if (isMap(node)) {
      const members = new Map<string, Folded>()
      for (const { key, value } of node.items) {
        if (isScalar(key)) members.set(String(key.value), fold(value, place(key), depth + 1))
      }
      return { kind: 'object', members, open: false, at }
    }
    return { kind: 'value', value: isScalar(node) ? (node.value as Primitive) : null, at }
  }
  return parsed.contents ? fold(parsed.contents, place(parsed.contents), 0) : null
}

function foldToml(file: string, text: string): Folded {
  let root: unknown
  try {
    root = parseToml(text)
  } catch (error) {
    if (error instanceof TomlError)
      throw new SyntaxProblem(`${file} is not valid TOML: line ${error.line}, column ${error.column}.`)
    throw error
  }
  return foldPlain(root, [], tomlPlaces(file, text))
}

/** The TOML reader keeps no places, so keys are looked for again: a line `key =` below its table's header. */
function tomlPlaces(file: string, text: string): (path: readonly string[]) => Place {
  const found = new Map<string, Place>()
  let table = ''
  for (const [index, line] of text.split('\n').entries()) {
    const header = /^\s*\[{1,2}\s*([^\]]+?)\s*\]{1,2}/.exec(line)
    const key = /^\s*("[^"]*"|'[^']*'|[\w.-]+)\s*=/.exec(line)
    if (header?.[1]) table = header[1].replace(/["'\s]/g, '')
    const name = header ? table : key?.[1] && [table, key[1].replace(/["']/g, '')].filter(Boolean).join('.')
    if (name && !found.has(name)) found.set(name, { file, line: index + 1, column: line.search(/\S/) + 1 })
  }
  return (path) => {
    for (let length = path.length; length > 0; length--) {
      const place = found.get(path.slice(0, length).join('.'))
      if (place) return place
    }
    return { file, line: 1, column: 1 }
  }
}

function foldPlain(
  value: unknown,
  path: readonly string[],
  place: (path: readonly string[]) => Place,
): Folded {
  const at = place(path)
  if (Array.isArray(value))
    return { kind: 'list', items: value.map((item) => foldPlain(item, path, place)), at }
  if (typeof value === 'object' && value !== null && !(value instanceof Date)) {
    const members = new Map<string, Folded>()
    for (const [key, item] of Object.entries(value)) members.set(key, foldPlain(item, [...path, key], place))
    return { kind: 'object', members, open: false, at }
  }
  const primitive = typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean'
  return {
    kind: 'value',
    value: primitive ? value : value instanceof Date ? value.toISOString() : String(value),
    at,
  }
}
