import { isAlias, isMap, isScalar, isSeq, LineCounter, parseDocument, type Node as YamlNode } from 'yaml'
import type { Place } from '../../model/reading.ts'
import { checkNesting, SyntaxProblem } from '../../syntax/parse.ts'
import type { Folded, Primitive } from '../../syntax/value.ts'

/** A file that writes out more aliases than this configures nothing. */
const mostAliases = 1_000

/** Reads YAML 1.2 with places. @throws {SyntaxProblem} */
export function foldYaml(file: string, text: string): Folded | null {
  checkNesting(file, text, 'YAML that can be read')
  const lines = new LineCounter()
  const parsed = parseDocument(text, { lineCounter: lines, logLevel: 'silent', merge: true })
  const [error] = parsed.errors
  if (error) {
    const [line = ''] = error.message.split('\n')
    const { line: at, col } = lines.linePos(error.pos[0])
    const reason = line.replace(/ at line \d+, column \d+:?$/, '')
    throw new SyntaxProblem('valid YAML', reason, { file, line: at, column: col })
  }
  const place = (node: YamlNode | null | undefined): Place => {
    const found = lines.linePos(node?.range?.[0] ?? 0)
    return { file, line: found.line, column: found.col }
  }
  let aliases = 0
  const fold = (node: unknown, at: Place, depth: number): Folded => {
    // Aliases of aliases double with each line.
    if (isAlias(node) && ++aliases > mostAliases) return { kind: 'computed', expression: '…', at }
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
