import { dottedName, isCall, isTyped, outward, type SyntaxNode, textOf } from '../../syntax/node.ts'

/** Whether the code copes with a value that is missing: a default, a test, a comparison, optional access. */
export function isGuarded(node: SyntaxNode): boolean {
  return thrownFor(node) === null && (copesWith(node) || isTestedBefore(node))
}

/**
 * The error that a test of a value throws where it is missing, by what it says; null where none is thrown. Such a test copes with
 * nothing: the page stops. Empty where the error says nothing of its own.
 */
export function thrownFor(node: SyntaxNode): string | null {
  let child = node
  for (const parent of outward(node)) {
    if (parent.type === 'IfStatement') return parent.test === child ? messageOf(parent.consequent) : null
    const isNegated = parent.type === 'UnaryExpression' && parent.operator === '!'
    if (!isNegated && parent.type !== 'ParenthesizedExpression' && !isTyped(parent)) return null
    child = parent
  }
  return null
}

function messageOf(branch: SyntaxNode): string | null {
  const statement = branch.type === 'BlockStatement' ? branch.body[0] : branch
  if (statement?.type !== 'ThrowStatement') return null
  const error = statement.argument
  const said = isCall(error) ? error.arguments[0] : null
  return (said?.type === 'TemplateLiteral' ? said.quasis[0]?.value.cooked : textOf(said)) ?? ''
}

/** The text that stands in for a value where it is missing: `X ?? 'text'`, `X ? X : 'text'`, `const { X = 'text' } = …`. */
export function standInFor(node: SyntaxNode): string | null {
  if (node.type === 'Property' && node.value.type === 'AssignmentPattern') return textOf(node.value.right)
  let child = node
  for (const parent of outward(node)) {
    if (parent.type === 'LogicalExpression' && parent.operator !== '&&') {
      const text = parent.left === child ? textOf(parent.right) : null
      if (text !== null) return text
    } else if (parent.type === 'ConditionalExpression') {
      return parent.alternate === child ? null : textOf(parent.alternate)
    } else if (
      parent.type !== 'ChainExpression' &&
      parent.type !== 'ParenthesizedExpression' &&
      !isTyped(parent)
    )
      return null
    child = parent
  }
  return null
}

/** Inside a branch that is only taken where the same value is there: `X ? f(X) : 0`. */
function isTestedBefore(node: SyntaxNode): boolean {
  const name = dottedName(node)
  if (name === null) return false
  let child = node
  for (const parent of outward(node)) {
    const isBranch = parent.type === 'ConditionalExpression' || parent.type === 'IfStatement'
    if (isBranch && parent.consequent === child && asksFor(parent.test, name)) return true
    if (parent.type === 'LogicalExpression' && parent.operator === '&&' && parent.right === child)
      if (asksFor(parent.left, name)) return true
    child = parent
  }
  return false
}

/** Whether a test asks for a value that is there, and not for the want of one. */
function asksFor(test: SyntaxNode, name: string): boolean {
  if (test.type === 'LogicalExpression')
    return test.operator === '&&' && (asksFor(test.left, name) || asksFor(test.right, name))
  return dottedName(test) === name || (test.type === 'BinaryExpression' && dottedName(test.left) === name)
}

function copesWith(node: SyntaxNode): boolean {
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
      case 'SwitchStatement':
        return parent.discriminant === child
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
