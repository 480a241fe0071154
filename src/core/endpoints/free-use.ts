import { isCall, isFunction, type SyntaxNode } from '../syntax/node.ts'
import { bindingOf, nodeAt, type Tree } from '../syntax/tree.ts'

/** When a name that nothing in the script declares is looked up: as soon as the script runs, or when a function is called. */
export type FreeUse = 'at once' | 'later'

/** The use of a name at an offset; null where it is declared, tested for, written to, or no name. */
export function freeUseAt(code: string, tree: Tree, offset: number): FreeUse | null {
  const node = nodeAt(tree, offset)
  if (node?.type !== 'Identifier' || node.start !== offset || bindingOf(tree, node) !== null) return null
  let use: FreeUse = 'at once'
  let child: SyntaxNode = node
  for (let { parent } = node; parent; { parent } = parent) {
    if (isAskedFor(code, parent, child)) return null
    if (isFunction(parent) && !isCalledAtOnce(parent)) use = 'later'
    child = parent
  }
  return use
}

/** `typeof process`, `"process" in self`, what stands behind such a test, and what may fail without harm. */
function isAskedFor(code: string, parent: SyntaxNode, child: SyntaxNode): boolean {
  if (parent.type === 'UnaryExpression') return parent.operator === 'typeof'
  if (parent.type === 'AssignmentExpression' && parent.left === child) return child.type === 'Identifier'
  if (parent.type === 'TryStatement') return parent.block === child
  const test =
    parent.type === 'IfStatement' || parent.type === 'ConditionalExpression'
      ? parent.test
      : parent.type === 'LogicalExpression'
        ? parent.left
        : null
  if (test === null || test === child) return false
  return /\btypeof\b|\bin (?:window|self|globalThis)\b|\b(?:window|self|globalThis)\??\./.test(
    code.slice(test.start, Math.min(test.end, test.start + 400)),
  )
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
