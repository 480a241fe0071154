import { givenNamed } from '../../syntax/name-index.ts'
import { isCall, isFunction, keyName, memberName, type SyntaxNode } from '../../syntax/node.ts'
import type { Binding } from '../../syntax/scope.ts'
import { bindingOf, type Tree, usesOf } from '../../syntax/tree.ts'

/** Whether a value is replaced by another one: for sure, maybe, or not. */
export type Replaced = 'surely' | 'maybe' | 'not'

/** Says the text that an expression gives, as far as it is known. */
export type KnownText = (node: SyntaxNode) => string

/** Methods that give a client other settings than it was made with. */
const setting = /^(?:set|config|update)/i

/** Whether what a name holds, or a member of it, is given another text: `api.base = "https://…"`. */
export function replacedIn(
  tree: Tree,
  binding: Binding,
  {
    key,
    except,
    known,
  }: { readonly key: string | null; readonly except: SyntaxNode | null; readonly known: KnownText },
): Replaced {
  const found = usesOf(tree, binding).map((use): Replaced => {
    const target = key === null ? use : use.parent && memberName(use.parent) === key ? use.parent : null
    const assignment = target?.parent
    if (target === null || target === except || assignment?.type !== 'AssignmentExpression') return 'not'
    return assignment.left === target && assignment.operator === '='
      ? byAssignment(tree, assignment, known)
      : 'not'
  })
  return strongest(found)
}

/** The uses of a name, in the function that declares it, which come before it is given anything else. */
export function usedBefore(tree: Tree, binding: Binding, except: SyntaxNode | null): readonly SyntaxNode[] {
  const [declared] = binding.declared
  const uses: readonly SyntaxNode[] = usesOf(tree, binding)
  const isTarget = (use: SyntaxNode): boolean =>
    use.parent?.type === 'AssignmentExpression' && use.parent.left === use
  const first = Math.min(...uses.filter((use) => isTarget(use) && use !== except).map(({ start }) => start))
  const around = declared && functionAround(declared)
  return uses.filter(
    (use) => use.start < first && !isTarget(use) && functionAround(use) === around && isEvaluated(use),
  )
}

function functionAround(node: SyntaxNode): SyntaxNode | null {
  for (let at = node.parent; at; at = at.parent) if (isFunction(at)) return at
  return null
}

/** Whether a use is more than a look at whether there is something: `while (next)`. */
function isEvaluated({ parent }: SyntaxNode): boolean {
  return !/^(?:If|While|DoWhile|For|Logical|Conditional|Unary)/.test(parent?.type ?? '')
}

/** The same of a client that a call makes: by its defaults, by a method for its settings, by the member itself. */
export function clientReplaced(tree: Tree, made: SyntaxNode, key: string, known: KnownText): Replaced {
  const binding = bindingOf(tree, holderOf(made))
  if (!binding) return 'not'
  const found = usesOf(tree, binding).map((use): Replaced => {
    const member = use.parent
    if (member?.type !== 'MemberExpression' || member.object !== use) return 'not'
    const inner = memberName(member) === 'defaults' ? member.parent : member
    if (inner && memberName(inner) === key && inner.parent?.type === 'AssignmentExpression')
      return inner.parent.left === inner ? byAssignment(tree, inner.parent, known) : 'not'
    const call = member.parent
    if (!call || !isCall(call) || call.callee !== member || !setting.test(memberName(member) ?? ''))
      return 'not'
    const [settings] = call.arguments as readonly SyntaxNode[]
    if (settings?.type !== 'ObjectExpression') return 'not'
    tree.watch?.within(settings)
    const given = propertyNamed(settings, key)
    return given && known(given) !== '' ? (isConditional(tree, call) ? 'maybe' : 'surely') : 'not'
  })
  return strongest(found)
}

/** Whether an option of this name is given an address of another host somewhere in the script: its default is then for others. */
export function isGivenElsewhere(tree: Tree, key: string, known: KnownText): boolean {
  tree.watch?.word(key, null)
  return givenNamed(tree, key).some(
    (value) =>
      value.parent?.parent?.type === 'ObjectExpression' &&
      /^https?:\/\/(?!localhost|127\.|\[::1\]|0\.0\.0\.0)/i.test(known(value)),
  )
}

function propertyNamed(object: SyntaxNode & { type: 'ObjectExpression' }, key: string): SyntaxNode | null {
  const found = object.properties.find((each) => keyName(each as SyntaxNode) === key)
  return found?.type === 'Property' ? (found.value as SyntaxNode) : null
}

/** The name that holds what a call makes, behind the calls that it is handed on to. */
function holderOf(made: SyntaxNode): SyntaxNode {
  let at = made
  while (at.parent && (isCall(at.parent) || /^(?:Await|Parenthesized|TS)/.test(at.parent.type)))
    at = at.parent
  const { parent } = at
  if (parent?.type === 'VariableDeclarator' && parent.init === at) return parent.id as SyntaxNode
  return parent?.type === 'AssignmentExpression' && parent.right === at ? (parent.left as SyntaxNode) : at
}

function byAssignment(
  tree: Tree,
  assignment: SyntaxNode & { type: 'AssignmentExpression' },
  known: KnownText,
): Replaced {
  const right = assignment.right as SyntaxNode
  if (isNothing(right)) return 'not'
  return known(right) !== '' && !isConditional(tree, assignment) ? 'surely' : 'maybe'
}

function isNothing(node: SyntaxNode): boolean {
  if (node.type === 'UnaryExpression') return node.operator === 'void'
  if (node.type === 'Identifier') return node.name === 'undefined'
  return node.type === 'Literal' && (node.value === null || node.value === '')
}

/** Functions that call functions are asked so far. */
const deepest = 4

/** Whether a statement may be passed over: by a branch, or where its function is called in branches alone. One of which no call is seen counts as called. */
function isConditional(tree: Tree, node: SyntaxNode, depth = 0): boolean {
  for (let at = node; at.parent; at = at.parent) {
    const { parent } = at
    if (/^(?:If|Switch|For|While|DoWhile|Try)/.test(parent.type) || parent.type === 'CatchClause') return true
    if (parent.type === 'ConditionalExpression' && parent.test !== at) return true
    if (parent.type === 'LogicalExpression' && parent.right === at) return true
    if (!isFunction(parent)) continue
    const calls = depth < deepest ? callsOf(tree, parent) : []
    return calls.length > 0 && calls.every((call) => isConditional(tree, call, depth + 1))
  }
  return false
}

function callsOf(tree: Tree, fn: SyntaxNode): SyntaxNode[] {
  const named = fn.parent?.type === 'VariableDeclarator' ? fn.parent.id : 'id' in fn ? fn.id : null
  const binding = named ? bindingOf(tree, named as SyntaxNode) : null
  return (binding ? usesOf(tree, binding) : []).flatMap((use) =>
    use.parent && isCall(use.parent) && use.parent.callee === use ? [use.parent] : [],
  )
}

function strongest(found: readonly Replaced[]): Replaced {
  return found.includes('surely') ? 'surely' : found.includes('maybe') ? 'maybe' : 'not'
}
