import type { SyntaxNode } from '../../syntax/node.ts'

/** The code of a node, as far as it matters for a look. */
export function beginningOf(code: string, node: SyntaxNode): string {
  return code.slice(node.start, Math.min(node.end, node.start + 400))
}

/** Whether a place is only reached where the page's own host is a developer's. */
export function isGuarded(code: string, at: SyntaxNode): boolean {
  for (let node = at; node.parent; node = node.parent) {
    const { parent } = node
    const test =
      parent.type === 'IfStatement' || parent.type === 'ConditionalExpression'
        ? parent.test
        : parent.type === 'LogicalExpression' && parent.operator === '&&'
          ? parent.left
          : null
    if (test && test !== node && asksForOwnHost(code, test)) return true
  }
  return false
}

/** Whether a test asks if the page's own host is a developer's. */
export function asksForOwnHost(code: string, test: SyntaxNode): boolean {
  const text = beginningOf(code, test)
  return (
    /\bhost(?:name)?\b|\borigin\b|\blocation\b/.test(text) &&
    /localhost|127\\?\.|\.test\(|\.match\(/.test(text)
  )
}
