import { isTyped, outward, type SyntaxNode } from '../../syntax/node.ts'

/** Whether the code copes with a value that is missing: a default, a test, a comparison, optional access. */
export function isGuarded(node: SyntaxNode): boolean {
  // `const { X = 1 } = import.meta.env`
  if (node.type === 'Property' && node.value.type === 'AssignmentPattern') return true
  let child = node
  for (const parent of outward(node)) {
    switch (parent.type) {
      case 'LogicalExpression':
      case 'AssignmentPattern':
        return true
      case 'ConditionalExpression':
      case 'IfStatement':
      case 'WhileStatement':
        return parent.test === child
      case 'UnaryExpression':
        if (parent.operator === 'typeof' || parent.operator === '!') return true
        break
      case 'BinaryExpression':
        // A comparison copes with any value.
        if (/^[!=]==?$/.test(parent.operator)) return true
        if (parent.operator === '+') return false
        break
      case 'MemberExpression':
      case 'CallExpression':
        if ('optional' in parent && parent.optional) return true
        if (parent.type === 'CallExpression') return false
        break
      case 'ChainExpression':
      case 'ParenthesizedExpression':
        break
      default:
        if (!isTyped(parent)) return false
    }
    child = parent
  }
  return false
}
