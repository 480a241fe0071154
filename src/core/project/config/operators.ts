import type * as t from '@babel/types'
import type { Place } from '../../model/reading.ts'
import { isEnvironment, nameOfKey, orElse, placeOf, truthOf, withPlace } from './fold-helpers.ts'
import type { Module } from './modules.ts'
import type { Folded } from './value.ts'

/** How the parts of an expression are folded, where it stands. */
export interface Operands {
  readonly module: Module
  readonly fold: (node: t.Node) => Folded
}

/** A template whose holes are all known. */
export function foldTemplate(node: t.TemplateLiteral, at: Place, { fold }: Operands): Folded | null {
  let text = ''
  for (const [index, quasi] of node.quasis.entries()) {
    text += quasi.value.cooked ?? ''
    const hole = node.expressions[index]
    if (!hole) continue
    const part = fold(hole)
    if (part.kind !== 'value') return null
    text += String(part.value)
  }
  return { kind: 'value', value: text, at }
}

/** An object with what is known of its members. One that spreads the unknown may hold more, and stays open. */
export function foldObject(node: t.ObjectExpression, at: Place, { fold, module }: Operands): Folded {
  const members = new Map<string, Folded>()
  let open = false
  for (const property of node.properties) {
    if (property.type === 'SpreadElement') {
      const spread = fold(property.argument)
      if (spread.kind === 'object') {
        for (const [name, value] of spread.members) members.set(name, value)
        open ||= spread.open
      } else if (truthOf(spread) !== false) open = true
    } else if (property.computed && property.key.type !== 'StringLiteral') {
      open = true
    } else {
      const value = property.type === 'ObjectProperty' ? property.value : property
      members.set(nameOfKey(property.key), withPlace(fold(value), placeOf(module, property)))
    }
  }
  return { kind: 'object', members, open, at }
}

/** `??`, `||` and `&&`. A variable nobody sets takes the default. */
export function foldLogical(node: t.LogicalExpression, { fold, module }: Operands): Folded | null {
  const left = fold(node.left)
  if (node.operator === '??') return orElse(left, () => fold(node.right))
  const truth = truthOf(left)
  if (node.operator === '||' && truth === null && isEnvironment(module, node.left)) {
    return fold(node.right)
  }
  if (truth === null) return null
  return truth === (node.operator === '||') ? left : fold(node.right)
}

/** Comparisons and sums of what is known. */
export function foldBinary(node: t.BinaryExpression, at: Place, { fold }: Operands): Folded | null {
  const left = fold(node.left)
  const right = fold(node.right)
  if (left.kind !== 'value' || right.kind !== 'value') return null
  const [a, b] = [left.value, right.value]
  if (node.operator === '===' || node.operator === '==') return { kind: 'value', value: a === b, at }
  if (node.operator === '!==' || node.operator === '!=') return { kind: 'value', value: a !== b, at }
  if (node.operator !== '+') return null
  const sum = typeof a === 'number' && typeof b === 'number' ? a + b : String(a) + String(b)
  return { kind: 'value', value: sum, at }
}
