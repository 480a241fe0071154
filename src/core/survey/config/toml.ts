import { parse as parseToml, TomlError } from 'smol-toml'
import type { Place } from '../../model/reading.ts'
import { SyntaxProblem } from './modules.ts'
import type { Folded } from './value.ts'

/** Reads TOML 1.0 with places. @throws {SyntaxProblem} */
export function foldToml(file: string, text: string): Folded {
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
