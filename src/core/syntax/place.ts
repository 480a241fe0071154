import type { Place } from '../model/reading.ts'
import type { SyntaxNode } from './node.ts'

/** Where the nodes of a source are written. Sources are parsed with lines and columns, built scripts are not. */
export function placeIn(file: string): (node: SyntaxNode) => Place {
  return ({ loc }) => ({ file, line: loc?.start.line ?? 1, column: (loc?.start.column ?? 0) + 1 })
}
