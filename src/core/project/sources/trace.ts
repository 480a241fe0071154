import type * as t from '@babel/types'
import type { Trace } from '../../model/search.ts'

type WithoutRead<T> = T extends unknown ? Omit<T, 'name' | 'read'> : never

/**
 * The mark an expression would leave in built code: the fixed text beside it in a template or a concatenation, or
 * the property it is the value of. Null when nothing a minifier keeps stands near it.
 */
export function traceAround(node: t.Node, parents: readonly t.Node[]): WithoutRead<Trace> | null {
  const outward = parents.toReversed()
  const parent = outward[0]
  if (parent?.type === 'TemplateLiteral') {
    const index = parent.expressions.indexOf(node as t.Expression)
    return template(quasi(parent, index), quasi(parent, index + 1))
  }
  if (parent?.type === 'BinaryExpression' && parent.operator === '+') {
    return parent.left === node
      ? template('', textAtStart(parent.right))
      : template(textAtEnd(parent.left), startOfNext(outward, parent))
  }
  const property = parent?.type === 'ObjectProperty' ? parent : null
  const object = outward[1]
  if (property?.key.type !== 'Identifier' || property.value !== node) return null
  if (object?.type !== 'ObjectExpression') return null
  const { name } = property.key
  const siblings = object.properties.flatMap((each) =>
    each.type === 'ObjectProperty' && each.key.type === 'Identifier' && each !== property
      ? [each.key.name]
      : [],
  )
  // A single short key stands in every library; with nothing beside it, it proves nothing.
  return siblings.length === 0 && name.length < 5 ? null : { kind: 'property', key: name, siblings }
}

function template(before: string, after: string): WithoutRead<Trace> | null {
  return before === '' && after === '' ? null : { kind: 'template', before, after }
}

function quasi(node: t.TemplateLiteral, index: number): string {
  return node.quasis[index]?.value.cooked ?? ''
}

function textAtStart(node: t.Node): string {
  if (node.type === 'StringLiteral') return node.value
  if (node.type === 'TemplateLiteral') return quasi(node, 0)
  return node.type === 'BinaryExpression' ? textAtStart(node.left) : ''
}

function textAtEnd(node: t.Node): string {
  if (node.type === 'StringLiteral') return node.value
  if (node.type === 'TemplateLiteral') return quasi(node, node.quasis.length - 1)
  return node.type === 'BinaryExpression' ? textAtEnd(node.right) : ''
}

/** In `'a' + X + 'b'` the text after X belongs to the addition around the one X stands in. */
function startOfNext(outward: readonly t.Node[], inner: t.Node): string {
  const outer = outward[1]
  return outer?.type === 'BinaryExpression' && outer.operator === '+' && outer.left === inner
    ? textAtStart(outer.right)
    : ''
}
