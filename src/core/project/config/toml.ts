import { type AST, getStaticTOMLValue, ParseError, parseTOML } from 'toml-eslint-parser'
import type { Place } from '../../model/reading.ts'
import { checkNesting, SyntaxProblem } from '../../syntax/parse.ts'
import type { Folded, Primitive } from '../../syntax/value.ts'

type Members = Map<string, Folded>

/** Reads TOML 1.0 with places. @throws {SyntaxProblem} */
export function foldToml(file: string, text: string): Folded {
  const root: Members = new Map()
  const whole: Folded = { kind: 'object', members: root, open: false, at: { file, line: 1, column: 1 } }
  for (const node of parsed(file, text).body[0].body) {
    if (node.type === 'TOMLKeyValue') putPair(file, root, node)
    else for (const pair of pairsOf(file, root, node)) putPair(file, pair.into, pair.node)
  }
  return whole
}

function parsed(file: string, text: string): AST.TOMLProgram {
  checkNesting(file, text, 'TOML that can be read')
  try {
    return parseTOML(text, { tomlVersion: '1.0' })
  } catch (error) {
    if (error instanceof ParseError)
      throw new SyntaxProblem('valid TOML', error.message.replace(/\.$/, ''), {
        file,
        line: error.lineNumber,
        column: error.column + 1,
      })
    throw error
  }
}

/** The pairs of a table, and the object that they belong to. */
function pairsOf(
  file: string,
  root: Members,
  table: AST.TOMLTable,
): { into: Members; node: AST.TOMLKeyValue }[] {
  const keys = table.key.keys.map(nameOf)
  const at = placeOf(file, table)
  let into: Members
  if (table.kind === 'array') {
    const parent = objectAt(root, keys.slice(0, -1), at)
    const name = keys.at(-1) ?? ''
    const known = parent.get(name)
    into = new Map()
    const item: Folded = { kind: 'object', members: into, open: false, at }
    const before = known?.kind === 'list' ? known.items : []
    parent.set(name, { kind: 'list', items: [...before, item], at: known?.at ?? at })
  } else into = objectAt(root, keys, at)
  return table.body.map((node) => ({ into, node }))
}

function putPair(file: string, into: Members, { key, value }: AST.TOMLKeyValue): void {
  const names = key.keys.map(nameOf)
  const at = placeOf(file, key)
  objectAt(into, names.slice(0, -1), at).set(names.at(-1) ?? '', foldContent(file, value, at))
}

/** The object at a path of keys, made where it is not there yet; of a list of tables, the last is meant. */
function objectAt(root: Members, keys: readonly string[], at: Place): Members {
  let members = root
  for (const key of keys) {
    const known = members.get(key)
    const inner = known?.kind === 'list' ? known.items.at(-1) : known
    if (inner?.kind === 'object') members = inner.members as Members
    else {
      const made: Members = new Map()
      members.set(key, { kind: 'object', members: made, open: false, at })
      members = made
    }
  }
  return members
}

function foldContent(file: string, node: AST.TOMLContentNode, at: Place): Folded {
  if (node.type === 'TOMLArray')
    return {
      kind: 'list',
      items: node.elements.map((each) => foldContent(file, each, placeOf(file, each))),
      at,
    }
  if (node.type === 'TOMLInlineTable') {
    const members: Members = new Map()
    for (const pair of node.body) putPair(file, members, pair)
    return { kind: 'object', members, open: false, at }
  }
  const value: unknown = getStaticTOMLValue(node)
  const plain = value instanceof Date ? value.toISOString() : value
  return { kind: 'value', value: typeof plain === 'bigint' ? Number(plain) : (plain as Primitive), at }
}

function nameOf(key: AST.TOMLBare | AST.TOMLQuoted): string {
  return key.type === 'TOMLBare' ? key.name : key.value
}

function placeOf(file: string, { loc: { start } }: AST.TOMLNode): Place {
  return { file, line: start.line, column: start.column + 1 }
}
