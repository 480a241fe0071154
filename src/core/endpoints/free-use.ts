import { isCall, isFunction, type SyntaxNode } from '../syntax/node.ts'
import { bindingOf, nodeAt, type Tree } from '../syntax/tree.ts'

/** When a name that nothing in the script declares is looked up: as soon as the script runs, or when a function is called. */
export type FreeUse = 'at once' | 'later'

/** The use of a name at an offset; null where it is declared, tested for, written to, or no name. */
export function freeUseAt(tree: Tree, offset: number): FreeUse | null {
  const node = nodeAt(tree, offset)
  if (node?.type !== 'Identifier' || node.start !== offset || bindingOf(tree, node) !== null) return null
  let use: FreeUse = 'at once'
  let child: SyntaxNode = node
  for (let { parent } = node; parent; { parent } = parent) {
    if (isAskedFor(parent, child)) return null
    if (isFunction(parent) && !isCalledAtOnce(parent)) use = 'later'
    child = parent
  }
  return use
}

/** `typeof process`, what stands in a branch, whatever its test asks for, and what may fail without harm. */
function isAskedFor(parent: SyntaxNode, child: SyntaxNode): boolean {
  switch (parent.type) {
    case 'UnaryExpression':
      return parent.operator === 'typeof'
    case 'AssignmentExpression':
      return parent.left === child && child.type === 'Identifier'
    case 'TryStatement':
      return parent.block === child
    case 'IfStatement':
    case 'ConditionalExpression':
    case 'WhileStatement':
      return parent.test !== child
    case 'LogicalExpression':
      return parent.left !== child
    case 'SwitchCase':
    case 'CatchClause':
      return true
    default:
      return false
  }
}

function isCalledAtOnce(fn: SyntaxNode): boolean {
  const { parent } = fn
  if (!parent) return false
  if (isCall(parent) && parent.callee === fn) return true
  return (
    parent.type === 'MemberExpression' &&
    parent.object === fn &&
    parent.parent?.type === 'CallExpression' &&
    parent.parent.callee === parent
  )
}
