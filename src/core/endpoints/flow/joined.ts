import { type Call, memberName, type SyntaxNode } from '../../syntax/node.ts'
import { namesOwnAddress } from './own-host.ts'
import { calledName } from './sinks.ts'

/** Whether a template begins with an expression, or with this part of its text. */
export function beginsWith(template: SyntaxNode & { type: 'TemplateLiteral' }, node: SyntaxNode): boolean {
  const [first] = template.quasis
  return (
    (first as SyntaxNode | undefined) === node ||
    (template.expressions[0] === node && first?.value.raw === '')
  )
}

/** What stands before an argument in the text or URL that a call makes of both: `a.concat(b, x)`, `new URL(x, a)`. */
export function standingBefore(code: string, call: Call, index: number): SyntaxNode[] {
  const name = calledName(call)
  const given = call.arguments as readonly SyntaxNode[]
  if (name === 'concat' && call.callee.type === 'MemberExpression')
    return [call.callee.object as SyntaxNode, ...given.slice(0, index)]
  // What a text is replaced by stands within another one.
  if ((name === 'replace' || name === 'replaceAll') && index === 1) return [call]
  const base = name === 'URL' && index === 0 ? given[1] : undefined
  return base && !namesOwnAddress(code, base) ? [base] : []
}

/** What an address in a longer text begins behind: whatever stands before `<img src="`, it is no part of it. */
export const beginsWord = /[\s"'`(=>]/

/** The last part of a sum. */
export function lastOf(node: SyntaxNode): SyntaxNode {
  return node.type === 'BinaryExpression' && node.operator === '+' ? (node.right as SyntaxNode) : node
}

/** The text of a template right before one of its holes. */
export function textInTemplate(hole: SyntaxNode): string {
  const { parent } = hole
  if (parent?.type !== 'TemplateLiteral') return ''
  return parent.quasis[(parent.expressions as readonly SyntaxNode[]).indexOf(hole)]?.value.raw ?? ''
}

/** What stands right before a hole of a template: a text, or the hole before it. */
export function nextBefore(
  template: SyntaxNode & { type: 'TemplateLiteral' },
  node: SyntaxNode,
): SyntaxNode | undefined {
  const at = (template.expressions as readonly SyntaxNode[]).indexOf(node)
  if (at < 0) return undefined
  const text = template.quasis[at]
  return text?.value.raw === ''
    ? (template.expressions[at - 1] as SyntaxNode | undefined)
    : (text as SyntaxNode)
}

/** Whether a list is made one text. */
export function isJoinedList({ parent }: SyntaxNode): boolean {
  return parent !== undefined && memberName(parent) === 'join'
}

/** What a list begins with that holds a text further back. */
export function before(elements: readonly unknown[], node: SyntaxNode): SyntaxNode | undefined {
  const at = elements.indexOf(node)
  return at > 0 ? (elements[0] as SyntaxNode) : undefined
}

/** Whether a node only joins a text to others. */
export function isJoined(parent: SyntaxNode, node: SyntaxNode): boolean {
  if (parent.type === 'TemplateElement' || parent.type === 'TemplateLiteral') return true
  if (parent.type === 'BinaryExpression') return parent.operator === '+'
  if (parent.type === 'MemberExpression') return parent.object === node && memberName(parent) === 'concat'
  return parent.type === 'CallExpression' && parent.callee === node && memberName(node) === 'concat'
}
