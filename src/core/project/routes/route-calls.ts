import type { Program } from 'acorn'
import { joinRoute, type SourceRoute } from '../../model/source-route.ts'
import { type SyntaxNode, textOf, withoutTypes } from '../../syntax/node.ts'
import { placeIn } from '../../syntax/place.ts'

/** The routes of React Router's own route file: `route("sailings/:id", file)`, `index(file)`, `prefix("a", […])`, `layout(file, […])`. */
export function routeCalls(file: string, { body }: Program): SourceRoute[] {
  const found: SourceRoute[] = []
  const add = (pattern: string, node: SyntaxNode): void => {
    found.push({ pattern, place: placeIn(file)(node), kind: 'file' })
  }
  const read = (typed: SyntaxNode | null | undefined, above: string): void => {
    const node = typed && withoutTypes(typed)
    if (node?.type === 'ArrayExpression') for (const element of node.elements) read(element, above)
    else if (node?.type === 'SpreadElement') read(node.argument, above)
    if (node?.type !== 'CallExpression' || node.callee.type !== 'Identifier') return
    const [first, second, third, fourth] = node.arguments
    const path = joinRoute(above, textOf(first) ?? '')
    if (node.callee.name === 'index') add(joinRoute(above), node)
    else if (node.callee.name === 'prefix') read(second, path)
    else if (node.callee.name === 'layout') read(second, above)
    else if (node.callee.name === 'route') {
      const children = [second, third, fourth].find((each) => each?.type === 'ArrayExpression')
      if (children) read(children, path)
      else add(path, node)
    }
  }
  for (const statement of body) {
    if (statement.type === 'ExportDefaultDeclaration') read(statement.declaration, '')
  }
  return found
}
