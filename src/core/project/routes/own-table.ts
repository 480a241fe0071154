import type { Program } from 'acorn'
import type { SourceRoute } from '../../model/source-route.ts'
import { keyName, memberName, type SyntaxNode, textOf, walkTree } from '../../syntax/node.ts'
import { placeIn } from '../../syntax/place.ts'

/** Whether a module is a router of the project's own: it reads the page's path, and writes others into the history. */
export function holdsOwnRouter(text: string): boolean {
  return /\bpushState\s{0,3}\(/.test(text) && /\blocation\.pathname\b/.test(text)
}

/** The pages of such a router: the keys of its table, the cases of its switch, and what the path is compared with. */
export function ownRoutes(file: string, program: Program): SourceRoute[] {
  const found: SourceRoute[] = []
  const note = (pattern: string | null, node: SyntaxNode): void => {
    if (pattern !== null && pagePath.test(pattern))
      found.push({ pattern, place: placeIn(file)(node), kind: 'table' })
  }
  walkTree(program, (node) => {
    if (node.type === 'ObjectExpression')
      for (const each of tableOf(node.properties as readonly SyntaxNode[])) note(keyName(each), each)
    if (node.type === 'SwitchStatement' && isPath(node.discriminant as SyntaxNode))
      for (const { test } of node.cases) if (test) note(textOf(test as SyntaxNode), test as SyntaxNode)
    if (node.type === 'BinaryExpression' && /^===?$/.test(node.operator)) {
      const [left, right] = [node.left as SyntaxNode, node.right as SyntaxNode]
      if (isPath(left)) note(textOf(right), right)
      if (isPath(right)) note(textOf(left), left)
    }
  })
  return found
}

/** A page's path from the top of the site; what has a point is a file. */
const pagePath = /^\/[\w~:/-]{0,300}$/
/** What stands in a table for all other paths. */
const others = /^(?:\*|\d{3}|default|not-?found|error)$/i

/** The entries of an object whose keys are all paths of pages: two at least, and none that only says where to forward them. */
function tableOf(properties: readonly SyntaxNode[]): readonly SyntaxNode[] {
  const isEntry = (each: SyntaxNode): boolean => {
    const key = each.type === 'Property' && !each.computed ? keyName(each) : null
    const value = each.type === 'Property' ? textOf(each.value as SyntaxNode) : null
    return key !== null && (pagePath.test(key) || others.test(key)) && !/^https?:/.test(value ?? '')
  }
  const paths = properties.filter((each) => pagePath.test(keyName(each) ?? ''))
  return paths.length >= 2 && properties.every(isEntry) ? paths : []
}

function isPath(node: SyntaxNode): boolean {
  return memberName(node) === 'pathname'
}
