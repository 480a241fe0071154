import type {
  BinaryExpression,
  LogicalExpression,
  ObjectExpression,
  TemplateLiteral,
  UnaryExpression,
} from 'acorn'
import type { Dependence, Place } from '../model/reading.ts'
import { keyName, type SyntaxNode } from './node.ts'
import {
  decidedBy,
  type Folded,
  isUnset,
  orElse,
  type Primitive,
  shorten,
  truthOf,
  without,
} from './value.ts'

/** How the parts of an expression are folded, where it stands. */
export interface Operands {
  readonly at: Place
  readonly fold: (node: SyntaxNode) => Folded
  readonly placeOf: (node: SyntaxNode) => Place
  readonly textOf: (node: SyntaxNode) => string
}

/** A text that is folded is no longer; UTF-16 units. */
const longestText = 100_000

/** A text put together from parts: the whole of it, or as much as is known before the first part that is not. */
export function joined(parts: readonly Folded[], node: SyntaxNode, { at, textOf }: Operands): Folded {
  let text = ''
  let dependsOn: Dependence | undefined
  for (const part of parts) {
    if (part.kind === 'value') {
      text += String(part.value)
      // Sums of sums grow without end: what is this long is no path, and no setting.
      if (text.length > longestText) return { kind: 'computed', expression: shorten(textOf(node)), at }
      dependsOn ??= part.dependsOn
    } else {
      const begins = text + ((part.kind === 'computed' ? part.begins : '') ?? '')
      return { kind: 'computed', expression: shorten(textOf(node)), at, begins }
    }
  }
  return { kind: 'value', value: text, at, ...(dependsOn === undefined ? {} : { dependsOn }) }
}

export function foldTemplate(node: TemplateLiteral, operands: Operands): Folded {
  const parts = node.quasis.flatMap((quasi, index): Folded[] => {
    const hole = node.expressions[index]
    const fixed: Folded = { kind: 'value', value: quasi.value.cooked ?? '', at: operands.at }
    return hole ? [fixed, operands.fold(hole)] : [fixed]
  })
  return joined(parts, node, operands)
}

/** An object with what is known of its members. One that spreads the unknown may hold more, and stays open. */
export function foldObject(node: ObjectExpression, { at, fold, placeOf }: Operands): Folded {
  const members = new Map<string, Folded>()
  let open: boolean | 'environment' = false
  for (const property of node.properties) {
    if (property.type === 'SpreadElement') {
      const spread = fold(property.argument)
      if (spread.kind === 'object') {
        for (const [name, value] of spread.members) members.set(name, value)
        open ||= spread.open
      } else if (truthOf(spread) !== false) open = true
      continue
    }
    const name = keyName(property)
    if (name === null) open = true
    else members.set(name, withPlace(fold(property.value), placeOf(property)))
  }
  return { kind: 'object', members, open, at }
}

/** A member is shown where its key stands: that is the line a person edits. */
function withPlace(value: Folded, at: Place): Folded {
  return value.kind === 'object' || value.kind === 'list' || value.kind === 'function'
    ? value
    : { ...value, at }
}

/** `??`, `||` and `&&`. A variable nobody sets takes the default. */
export function foldLogical(node: LogicalExpression, { fold }: Operands): Folded | null {
  const left = fold(node.left)
  if (node.operator === '??') return orElse(left, () => fold(node.right))
  if (node.operator === '||' && isUnset(left)) return without(left, fold(node.right))
  const truth = truthOf(left)
  if (truth === null) return null
  return truth === (node.operator === '||') ? left : fold(node.right)
}

/** Comparisons of what is known, and sums as far as they are. */
export function foldBinary(node: BinaryExpression, operands: Operands): Folded | null {
  if (node.left.type === 'PrivateIdentifier') return null
  const left = operands.fold(node.left)
  const right = operands.fold(node.right)
  const value = (result: Primitive): Folded =>
    decidedBy({ kind: 'value', value: result, at: operands.at }, left, right)
  if (node.operator === '+') {
    const both = left.kind === 'value' && right.kind === 'value'
    return both && typeof left.value === 'number' && typeof right.value === 'number'
      ? value(left.value + right.value)
      : joined([left, right], node, operands)
  }
  if (left.kind !== 'value' || right.kind !== 'value') return null
  const [a, b] = [left.value, right.value]
  switch (node.operator) {
    case '===':
      return value(a === b)
    case '!==':
      return value(a !== b)
    case '==':
      return value(looselyEqual(a, b))
    case '!=':
      return value(!looselyEqual(a, b))
    default:
      return null
  }
}

function looselyEqual(a: Primitive, b: Primitive): boolean {
  const isNothing = (each: Primitive): boolean => each === null || each === undefined
  return isNothing(a) || isNothing(b) ? isNothing(a) && isNothing(b) : String(a) === String(b)
}

export function foldUnary(node: UnaryExpression, { at, fold }: Operands): Folded | null {
  if (node.operator === 'void') return { kind: 'value', value: undefined, at }
  if (node.operator !== '!') return null
  const argument = fold(node.argument)
  const truth = truthOf(argument)
  return truth === null ? null : decidedBy({ kind: 'value', value: !truth, at }, argument)
}
