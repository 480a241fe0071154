import { isCall, keyName, type Linked, memberName } from './node.ts'
import { bindingOf, type Tree } from './tree.ts'

/** The known beginning of a text, and whether it is the whole of it. */
interface Known {
  readonly text: string
  readonly whole: boolean
}

const nothing: Known = { text: '', whole: false }

/** How deep constants are looked up in constants. */
const deepest = 12

/** The beginning of the text that an expression makes, as far as constants of the script tell it. Nothing is run. */
export function knownText(tree: Tree, node: Linked): string {
  return fold(tree, node, 0).text
}

function fold(tree: Tree, node: Linked, depth: number): Known {
  if (depth > deepest) return nothing
  const inner = (each: Linked): Known => fold(tree, each, depth + 1)
  switch (node.type) {
    case 'Literal':
      return node.value === null || typeof node.value === 'object'
        ? nothing
        : { text: String(node.value), whole: true }
    case 'TemplateLiteral':
      return joined(
        node.quasis.flatMap((quasi, index) => {
          const next = node.expressions[index]
          const fixed = { text: quasi.value.cooked ?? '', whole: true }
          return next ? [fixed, inner(next as Linked)] : [fixed]
        }),
      )
    case 'BinaryExpression':
      return node.operator === '+'
        ? joined([inner(node.left as Linked), inner(node.right as Linked)])
        : nothing
    case 'CallExpression': {
      const callee = node.callee as Linked
      if (callee.type !== 'MemberExpression' || memberName(callee) !== 'concat') return nothing
      return joined([callee.object as Linked, ...(node.arguments as Linked[])].map(inner))
    }
    case 'NewExpression':
      return isCall(node) && node.arguments.length === 1 ? inner(node.arguments[0] as Linked) : nothing
    case 'LogicalExpression':
      return /^(?:void 0|undefined)$/.test(plain(node.left as Linked)) ? inner(node.right as Linked) : nothing
    case 'Identifier':
    case 'MemberExpression': {
      const value = givenTo(tree, node, depth)
      return value ? inner(value) : nothing
    }
    default:
      return nothing
  }
}

function joined(parts: readonly Known[]): Known {
  let text = ''
  for (const part of parts) {
    text += part.text
    if (!part.whole) return { text, whole: false }
  }
  return { text, whole: true }
}

function plain(node: Linked): string {
  if (node.type === 'Identifier') return node.name
  return node.type === 'UnaryExpression' && node.operator === 'void' ? 'void 0' : ''
}

/** The expression that a constant, or a member of a constant object, was given when it was declared. */
function givenTo(tree: Tree, node: Linked, depth: number): Linked | null {
  if (depth > deepest) return null
  if (node.type === 'MemberExpression') {
    const name = memberName(node)
    const object = givenTo(tree, node.object as Linked, depth + 1)
    if (object?.type !== 'ObjectExpression' || name === null) return null
    const property = object.properties.find((each) => keyName(each as Linked) === name)
    return property?.type === 'Property' ? (property.value as Linked) : null
  }
  const binding = bindingOf(tree, node)
  const holder = binding?.declared.length === 1 ? binding.declared[0]?.parent : null
  return holder?.type === 'VariableDeclarator' && holder.id.type === 'Identifier'
    ? (holder.init as Linked | null)
    : null
}
