import type { Expression, Node, Statement } from 'acorn'

/** What an expression of a built script comes to, as far as names of files need it. */
export type Folded = string | number | boolean | null | undefined | { readonly [key: string]: Folded }

/** An expression that can't be folded. */
export class NotFolded extends Error {}

/** Names and their values. */
export type Names = ReadonlyMap<string, Folded>

/**
 * Folds the value a small function returns: what chunk-name functions are made of, and no more. Nothing of it is run.
 * @throws {NotFolded} when there is anything else in it
 */
export function foldCall(fn: Node, args: readonly Folded[]): Folded {
  if (fn.type !== 'ArrowFunctionExpression' && fn.type !== 'FunctionExpression') throw new NotFolded()
  const { params, body } = fn as Node & { params: Node[]; body: Node }
  const names = new Map<string, Folded>()
  for (const [index, param] of params.entries()) {
    if (param.type !== 'Identifier') throw new NotFolded()
    names.set((param as Node & { name: string }).name, args[index])
  }
  if (body.type !== 'BlockStatement') return fold(body as Expression, names)
  const returned = foldStatements((body as Node & { body: Statement[] }).body, names)
  return returned === 'falls through' ? undefined : returned.value
}

type Returned = { readonly value: Folded } | 'falls through'

function foldStatements(statements: readonly Statement[], names: Names): Returned {
  for (const statement of statements) {
    const returned = foldStatement(statement, names)
    if (returned !== 'falls through') return returned
  }
  return 'falls through'
}

function foldStatement(statement: Statement, names: Names): Returned {
  switch (statement.type) {
    case 'ReturnStatement':
      return { value: statement.argument ? fold(statement.argument, names) : undefined }
    case 'IfStatement': {
      const taken = fold(statement.test, names) ? statement.consequent : statement.alternate
      return taken ? foldStatement(taken, names) : 'falls through'
    }
    case 'BlockStatement':
      return foldStatements(statement.body, names)
    default:
      throw new NotFolded()
  }
}

function fold(node: Expression, names: Names): Folded {
  switch (node.type) {
    case 'Literal':
      if (typeof node.value === 'object' && node.value !== null) throw new NotFolded()
      return typeof node.value === 'bigint' ? String(node.value) : node.value
    case 'Identifier':
      if (!names.has(node.name)) throw new NotFolded()
      return names.get(node.name)
    case 'TemplateLiteral':
      return node.quasis
        .map(({ value }, index) => {
          const hole = node.expressions[index]
          return (value.cooked ?? '') + (hole ? String(fold(hole, names)) : '')
        })
        .join('')
    case 'ConditionalExpression':
      return fold(fold(node.test, names) ? node.consequent : node.alternate, names)
    case 'LogicalExpression': {
      const left = fold(node.left, names)
      if (node.operator === '||') return left || fold(node.right, names)
      if (node.operator === '&&') return left && fold(node.right, names)
      return left ?? fold(node.right, names)
    }
    case 'BinaryExpression':
      if (node.left.type === 'PrivateIdentifier') throw new NotFolded()
      return foldBinary(node.operator, fold(node.left, names), fold(node.right, names))
    case 'UnaryExpression':
      if (node.operator === 'void') return undefined
      if (node.operator === '!') return !fold(node.argument, names)
      throw new NotFolded()
    case 'ObjectExpression':
      return foldObject(node.properties, names)
    case 'MemberExpression': {
      if (node.object.type === 'Super') throw new NotFolded()
      const object = fold(node.object, names)
      if (typeof object !== 'object' || object === null) throw new NotFolded()
      const key = node.computed ? fold(node.property as Expression, names) : nameOf(node.property)
      return Object.hasOwn(object, String(key)) ? object[String(key)] : undefined
    }
    case 'ParenthesizedExpression':
      return fold(node.expression, names)
    default:
      throw new NotFolded()
  }
}

function foldBinary(operator: string, left: Folded, right: Folded): Folded {
  if (typeof left === 'object' || typeof right === 'object') throw new NotFolded()
  switch (operator) {
    case '+':
      return typeof left === 'number' && typeof right === 'number'
        ? left + right
        : String(left) + String(right)
    case '===':
      return left === right
    case '!==':
      return left !== right
    case '==':
      return String(left) === String(right)
    case '!=':
      return String(left) !== String(right)
    default:
      throw new NotFolded()
  }
}

function foldObject(properties: readonly Node[], names: Names): Folded {
  const found: Record<string, Folded> = {}
  for (const property of properties) {
    if (property.type !== 'Property') throw new NotFolded()
    const { key, value, computed } = property as Node & {
      key: Expression
      value: Expression
      computed: boolean
    }
    if (computed) throw new NotFolded()
    found[nameOf(key)] = fold(value, names)
  }
  return found
}

/** The keys of every object that stands in an expression or function: the ids a chunk-name function knows. */
export function keysWithin(node: unknown, found = new Set<string>()): Set<string> {
  if (Array.isArray(node)) for (const each of node) keysWithin(each, found)
  else if (typeof node === 'object' && node !== null) {
    const { type, key, computed } = node as { type?: string; key?: Node; computed?: boolean }
    if (type === 'Property' && key && !computed) found.add(nameOf(key))
    if (type === 'BinaryExpression') addCompared(node, found)
    for (const value of Object.values(node)) if (typeof value === 'object') keysWithin(value, found)
  }
  return found
}

/** `179===e?"static/js/main.js":…` knows an id by comparison. */
function addCompared(node: object, found: Set<string>): void {
  const { operator, left, right } = node as { operator: string; left: Node; right: Node }
  if (operator !== '===' && operator !== '==') return
  for (const side of [left, right]) {
    if (side.type === 'Literal') found.add(String((side as Node & { value: unknown }).value))
  }
}

function nameOf(key: Node): string {
  if (key.type === 'Identifier') return (key as Node & { name: string }).name
  if (key.type === 'Literal') return String((key as Node & { value: unknown }).value)
  throw new NotFolded()
}
