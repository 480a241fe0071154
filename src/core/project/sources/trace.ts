import type { TemplateLiteral } from 'acorn'
import type { Trace } from '../../model/search.ts'
import { keyName, type SyntaxNode } from '../../syntax/node.ts'

type WithoutRead<T> = T extends unknown ? Omit<T, 'name' | 'read'> : never

/**
 * The mark an expression would leave in built code: the fixed text beside it in a template or a concatenation, or
 * the property it is the value of. Null when nothing a minifier keeps stands near it.
 */
export function traceAround(node: SyntaxNode): WithoutRead<Trace> | null {
  const { parent } = node
  if (parent?.type === 'TemplateLiteral') {
    const index = (parent.expressions as readonly SyntaxNode[]).indexOf(node)
    return template(quasi(parent, index), quasi(parent, index + 1))
  }
  if (parent?.type === 'BinaryExpression' && parent.operator === '+') {
    return parent.left === node
      ? template('', textAtStart(parent.right))
      : template(textAtEnd(parent.left), startOfNext(parent))
  }
  if (parent?.type !== 'Property' || parent.value !== node || parent.parent?.type !== 'ObjectExpression')
    return null
  const name = keyName(parent)
  if (name === null) return null
  const siblings = parent.parent.properties.flatMap((each) => (each === parent ? [] : (keyName(each) ?? [])))
  // A single short key stands in every library; with nothing beside it, it proves nothing.
  return siblings.length === 0 && name.length < 5 ? null : { kind: 'property', key: name, siblings }
}

function template(before: string, after: string): WithoutRead<Trace> | null {
  return before === '' && after === '' ? null : { kind: 'template', before, after }
}

function quasi(node: TemplateLiteral, index: number): string {
  return node.quasis[index]?.value.cooked ?? ''
}

function textAtStart(node: SyntaxNode): string {
  if (node.type === 'Literal') return typeof node.value === 'string' ? node.value : ''
  if (node.type === 'TemplateLiteral') return quasi(node, 0)
  return node.type === 'BinaryExpression' ? textAtStart(node.left) : ''
}

function textAtEnd(node: SyntaxNode): string {
  if (node.type === 'Literal') return typeof node.value === 'string' ? node.value : ''
  if (node.type === 'TemplateLiteral') return quasi(node, node.quasis.length - 1)
  return node.type === 'BinaryExpression' ? textAtEnd(node.right) : ''
}

/** In `'a' + X + 'b'` the text after X belongs to the addition around the one X stands in. */
function startOfNext(inner: SyntaxNode): string {
  const outer = inner.parent
  return outer?.type === 'BinaryExpression' && outer.operator === '+' && outer.left === inner
    ? textAtStart(outer.right)
    : ''
}
