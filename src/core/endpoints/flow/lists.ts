import { type Call, isCall, isFunction, keyName, memberName, type SyntaxNode } from '../../syntax/node.ts'
import type { Binding } from '../../syntax/scope.ts'
import { bindingOf, type Tree } from '../../syntax/tree.ts'
import { calledName } from './sinks.ts'

/** How what stands for a value holds it; a box gives it to whoever asks the box: `signal()`, `get(signal)`. */
export type Held = 'itself' | 'in a list' | 'in a box'

/** Where states keep their values: `ref(url).value`, `useRef(url).current`, the first of `useState(url)`. */
export const holding = ['value', 'current', '0']

/** Methods of a list that give each of its items to a function, and those that give back the list or an item. */
const overEach = /^(?:map|forEach|filter|find|findLast|findIndex|flatMap|some|every|sort)$/
const keepingList =
  /^(?:filter|sort|toSorted|reverse|toReversed|flat|slice|concat|values|entries|splice|toSpliced|with|map|flatMap)$/
/** The same of maps and of what goes over a list. */
const givingItem = /^(?:find|findLast|at|get|pop|shift|next)$/
/** What makes another list of the items by a function. */
const making = /^(?:map|flatMap|from)$/

/** What a member of a list, or a call of it, is: the list again, one of its items, or something else. */
export function ofListMember(member: SyntaxNode & { type: 'MemberExpression' }): Held | null {
  const name = memberName(member)
  if (name === null) return 'itself'
  const { parent } = member
  if (!parent || !isCall(parent) || parent.callee !== member) return null
  if (givingItem.test(name)) return 'itself'
  return keepingList.test(name) && !making.test(name) ? 'in a list' : null
}

/** The function that a method gives what is held, or each item of it. */
interface Over {
  readonly fn: SyntaxNode | undefined
  /** Which of its parameters. */
  readonly at: number
  /** Null where it is as before. */
  readonly held: Held | null
}

/** The function that a method of a list gives each item to, or a promise all of them; null where it is another method. */
export function overItems(call: Call): Over | null {
  const name = memberName(call.callee) ?? ''
  const [fn] = call.arguments as readonly SyntaxNode[]
  if (/^reduce(?:Right)?$/.test(name)) return { fn, at: 1, held: 'itself' }
  if (name === 'then') return { fn, at: 0, held: null }
  return overEach.test(name) ? { fn, at: 0, held: 'itself' } : null
}

/** The parameters that take the items of a list which is given to a call beside a function: `each(list, (item) => …)`. */
export function takersBeside(call: Call, list: SyntaxNode): SyntaxNode[] {
  return (call.arguments as readonly SyntaxNode[]).flatMap((each) =>
    each !== list && isFunction(each) && each.params[0] ? [each.params[0] as SyntaxNode] : [],
  )
}

/**
 * The same where a function gives the list. What draws at a place is given that place first: `each(node, () => list, (node, item) => …)`.
 */
export function takersBehind(call: Call, giver: SyntaxNode): SyntaxNode[] {
  const given = call.arguments as readonly SyntaxNode[]
  return given.slice(given.indexOf(giver) + 1).flatMap((each) => {
    const item = isFunction(each) ? (each.params[1] ?? each.params[0] ?? null) : null
    return item ? [item as SyntaxNode] : []
  })
}

/** The same where the list and the function are members of one object: `{ each: list, children: (item) => … }`. */
export function takersAround(object: SyntaxNode): SyntaxNode[] {
  if (object.type !== 'ObjectExpression') return []
  return object.properties.flatMap((each) => {
    const value = each.type === 'Property' ? (each.value as SyntaxNode) : null
    return value && isFunction(value) && value.params[0] ? [value.params[0] as SyntaxNode] : []
  })
}

/**
 * The path from a component to what one of its functions gives, where its template reads that as a member of the component:
 * `data() { return { list } }`, `computed: { list() { … } }`. Null for other functions.
 */
export function ofComponent(fn: SyntaxNode, path: readonly string[]): readonly string[] | null {
  const property = fn.parent
  if (property?.type !== 'Property') return null
  const name = keyName(property)
  if (name === 'data') return path
  const around = property.parent?.parent
  const isComputed = around?.type === 'Property' && keyName(around) === 'computed'
  return isComputed && name !== null ? [name, ...path] : null
}

/** The component and the name of its property that a value is the default of: `props: { picture: { default: "/a.png" } }`. */
export function ofDefault(
  property: SyntaxNode,
): { readonly component: SyntaxNode; readonly name: string } | null {
  const option = property.parent?.parent
  const name = option?.type === 'Property' ? keyName(option) : null
  const properties = option?.parent?.parent
  if (name === null || properties?.type !== 'Property' || keyName(properties) !== 'props') return null
  const component = properties.parent
  return component ? { component, name } : null
}

/** The call that a function is given to, and what the call makes of what the function gives. */
export function givenTo(fn: SyntaxNode): { readonly call: Call; readonly makes: Held | null } | null {
  const call = fn.parent
  if (!call || !isCall(call) || call.callee === fn) return null
  const at = (call.arguments as readonly SyntaxNode[]).indexOf(fn)
  const name = memberName(call.callee)
  if (name !== null && making.test(name)) return { call, makes: 'in a list' }
  // What asks a function that needs nothing keeps its answer: `computed(() => list[n])`.
  const isAsked = at === 0 && isFunction(fn) && fn.params.length === 0
  return { call, makes: isAsked ? 'in a box' : null }
}

/** Whether a function gives back its one parameter, or a member of it: `(e) => isRef(e) ? e.value : e`. */
export function givesBack(fn: SyntaxNode): boolean {
  const [parameter, ...others] = isFunction(fn) ? (fn.params as readonly SyntaxNode[]) : []
  const result = isFunction(fn) ? resultOf(fn.body as SyntaxNode) : null
  return parameter?.type === 'Identifier' && others.length === 0 && isOf(parameter.name, result)
}

function resultOf(body: SyntaxNode): SyntaxNode | null {
  if (body.type !== 'BlockStatement') return body
  const [only, ...more] = body.body as readonly SyntaxNode[]
  return only?.type === 'ReturnStatement' && more.length === 0
    ? ((only.argument as SyntaxNode) ?? null)
    : null
}

function isOf(name: string, result: SyntaxNode | null): boolean {
  if (result?.type === 'ConditionalExpression')
    return isOf(name, result.consequent as SyntaxNode) && isOf(name, result.alternate as SyntaxNode)
  const whole =
    result?.type === 'MemberExpression' && !result.computed ? (result.object as SyntaxNode) : result
  return whole?.type === 'Identifier' && whole.name === name
}

/** Whether a call makes a context, which gives what it holds to whoever asks it: `useContext(createContext(value))`. */
export function makesContext(call: Call, index: number): boolean {
  return index === 0 && calledName(call) === 'createContext'
}

/** The context that a part of a page is given a value for: `jsx(Context.Provider, { value })`. */
export function providedTo(tree: Tree, call: Call, index: number, path: readonly string[]): Binding | null {
  const [drawn] = call.arguments as readonly SyntaxNode[]
  const isProvided = index === 1 && path[0] === 'value' && drawn && memberName(drawn) === 'Provider'
  return isProvided && drawn.type === 'MemberExpression' ? bindingOf(tree, drawn.object as SyntaxNode) : null
}

/** What the setter of a state sets: the first name of `const [list, setList] = useState([])`. */
export function stateOf(tree: Tree, setter: SyntaxNode): SyntaxNode | null {
  const [declared] = setter.type === 'Identifier' ? (bindingOf(tree, setter)?.declared ?? []) : []
  const pattern = declared?.parent
  if (pattern?.type !== 'ArrayPattern' || pattern.elements[1] !== declared) return null
  return (pattern.elements[0] as SyntaxNode | null) ?? null
}
