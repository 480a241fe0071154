import type * as t from '@babel/types'
import { joinRoute, type SourceRoute } from './route.ts'

/** The routes of React Router's own route file: `route("sailings/:id", file)`, `index(file)`, `prefix("a", […])`, `layout(file, […])`. */
export function routeCalls(file: string, body: readonly t.Statement[]): SourceRoute[] {
  const found: SourceRoute[] = []
  const read = (node: t.Node | null | undefined, above: string): void => {
    if (!node) return
    if (node.type === 'ArrayExpression') for (const element of node.elements) read(element, above)
    else if (node.type === 'SpreadElement') read(node.argument, above)
    else if (node.type === 'TSSatisfiesExpression' || node.type === 'TSAsExpression')
      read(node.expression, above)
    else if (node.type === 'CallExpression' && node.callee.type === 'Identifier') {
      const [first, second, third] = node.arguments
      const path = joinRoute(above, first?.type === 'StringLiteral' ? first.value : '')
      const place = { file, line: node.loc?.start.line ?? 1, column: (node.loc?.start.column ?? 0) + 1 }
      if (node.callee.name === 'index') found.push({ pattern: joinRoute(above), place, kind: 'file' })
      else if (node.callee.name === 'prefix') read(second, path)
      else if (node.callee.name === 'layout') read(second, above)
      else if (node.callee.name === 'route') {
        const children = [second, third, node.arguments[3]].find((each) => each?.type === 'ArrayExpression')
        read(children, path)
        if (!children) found.push({ pattern: path, place, kind: 'file' })
      }
    }
  }
  for (const statement of body) {
    if (statement.type === 'ExportDefaultDeclaration') read(statement.declaration, '')
  }
  return found
}
