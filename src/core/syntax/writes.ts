import type { AssignmentExpression, CallExpression } from 'acorn'
import { dottedName, isFunction, memberName, type SyntaxNode } from './node.ts'
import type { Binding } from './scope.ts'
import { type Tree, usesOf } from './tree.ts'
import { type Folded, isUnset, truthOf, without } from './value.ts'

/** A statement after its declaration that gives a name another value, or a member of what it holds. */
export interface Write {
  /** The members that lead to what is written; none for the name itself. */
  readonly path: readonly string[]
  /** What is written there; null when only the running code knows it. */
  readonly value: SyntaxNode | null
  /** `Object.assign`: what is there already stays beside it. */
  readonly adds: boolean
  /** What must hold, and what must not, for it to be run. */
  readonly conditions: readonly { readonly test: SyntaxNode; readonly holds: boolean }[]
  /** The function that it stands in, where that is not the one that declares the name: it is run when that is called. */
  readonly within: SyntaxNode | null
  readonly at: number
  readonly end: number
}

/** The writes to a name, in the order of the text. */
export function writesTo(tree: Tree, binding: Binding): Write[] {
  return usesOf(tree, binding)
    .flatMap((use) => writeAt(use, binding) ?? [])
    .sort((a, b) => a.at - b.at)
}

function writeAt(use: SyntaxNode, binding: Binding): Write | null {
  const path: string[] = []
  let top = use
  while (top.parent?.type === 'MemberExpression' && top.parent.object === top) {
    const name = memberName(top.parent)
    if (name === null) return null
    path.push(name)
    top = top.parent
  }
  const { parent } = top
  const written =
    parent?.type === 'AssignmentExpression' && parent.left === top
      ? assigned(parent)
      : parent?.type === 'UpdateExpression'
        ? { value: null, adds: false }
        : parent?.type === 'CallExpression' && parent.arguments[0] === top
          ? added(parent)
          : null
  if (!parent || !written) return null
  const conditions = conditionsOf(parent, binding)
  return {
    path,
    ...written,
    ...(conditions ?? { value: null, conditions: [], within: null }),
    at: parent.start,
    end: parent.end,
  }
}

function assigned({ operator, right }: AssignmentExpression): Pick<Write, 'value' | 'adds'> {
  return { value: operator === '=' ? right : null, adds: false }
}

function added(call: CallExpression): Pick<Write, 'value' | 'adds'> | null {
  if (dottedName(call.callee) !== 'Object.assign') return null
  const [, value, another] = call.arguments
  return { value: value && !another && value.type !== 'SpreadElement' ? value : null, adds: true }
}

/** What a write hangs on, up to the function it stands in; null when it may run several times. */
function conditionsOf(write: SyntaxNode, { scope }: Binding): Pick<Write, 'conditions' | 'within'> | null {
  const found: { test: SyntaxNode; holds: boolean }[] = []
  for (let node = write; node.parent; node = node.parent) {
    const { parent } = node
    if (isFunction(parent)) return { conditions: found, within: isWithin(scope, parent) ? null : parent }
    if (parent.type === 'IfStatement' || parent.type === 'ConditionalExpression') {
      if (parent.test !== node) found.push({ test: parent.test, holds: parent.consequent === node })
    } else if (parent.type === 'LogicalExpression' && parent.right === node) {
      if (parent.operator === '??') return null
      found.push({ test: parent.left, holds: parent.operator === '&&' })
    } else if (/^(?:For|While|DoWhile|Switch|CatchClause)/.test(parent.type)) return null
  }
  return { conditions: found, within: null }
}

/** Whether a function is the one in which a scope stands. */
function isWithin(scope: Binding['scope'], fn: SyntaxNode): boolean {
  for (let at: Binding['scope'] | null = scope; at; at = at.parent) if (at.isFunction) return at === fn.scope
  return false
}

/** How writes are folded where they stand. */
export interface Writing {
  readonly of: (node: SyntaxNode) => Folded
  readonly unknown: (node: SyntaxNode | null) => Folded
}

/** A value after what is written to it later. */
export function afterWrites(first: Folded, writes: readonly Write[], { of, unknown }: Writing): Folded {
  let value = first
  for (const { path, value: written, adds, conditions } of writes) {
    const tests = conditions.map(({ test, holds }) => ({ test: of(test), holds }))
    const runs = tests.map(({ test, holds }) => isSo(test, holds))
    if (runs.includes(false)) {
      const variable = tests.find(({ test }) => isUnset(test))?.test
      if (variable) value = put(value, path, (before) => without(variable, before ?? nothing(variable)))
      continue
    }
    const known = written !== null && !runs.includes(null)
    value = put(value, path, (before) => {
      if (!known) return unknown(written)
      const after = of(written)
      return adds ? (merged(before, after) ?? unknown(written)) : after
    })
  }
  return value
}

function nothing({ at }: Folded): Folded {
  return { kind: 'value', value: undefined, at }
}

/** A variable that nobody sets counts as unset, as it does for a default. */
function isSo(test: Folded, holds: boolean): boolean | null {
  const truth = isUnset(test) ? false : truthOf(test)
  return truth === null ? null : truth === holds
}

function put(
  value: Folded,
  [name, ...rest]: readonly string[],
  make: (before: Folded | null) => Folded,
): Folded {
  if (name === undefined) return make(value)
  if (value.kind !== 'object') return value
  const before = value.members.get(name) ?? null
  // What holds the member is not seen, so nothing is known of it.
  if (before === null && rest.length > 0) return { ...value, open: true }
  const after = rest.length > 0 && before ? put(before, rest, make) : make(before)
  return { ...value, members: new Map(value.members).set(name, after) }
}

function merged(before: Folded | null, after: Folded): Folded | null {
  if (before?.kind !== 'object' || after.kind !== 'object') return null
  return {
    ...before,
    members: new Map([...before.members, ...after.members]),
    open: before.open || after.open,
  }
}
