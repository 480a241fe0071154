import { keyName, memberName, type SyntaxNode, walkTree } from './node.ts'
import type { Tree } from './tree.ts'

/** Where the names of members stand in a tree, noted once for all that ask. */
interface Noted {
  readonly read: Map<string, SyntaxNode[]>
  readonly given: Map<string, SyntaxNode[]>
  /** How much of what was added to the tree is noted. */
  added: number
}

const notes = new WeakMap<object, Noted>()

/** The members of a name, whatever object they are of: `x.base`. */
export function membersNamed(tree: Tree, name: string): readonly SyntaxNode[] {
  return [...new Set(notedOf(tree).read.get(name))]
}

/** What members of a name are given, wherever one is: in a class, in an object, by an assignment. */
export function givenNamed(tree: Tree, name: string): readonly SyntaxNode[] {
  return [...new Set(notedOf(tree).given.get(name))]
}

function notedOf(tree: Tree): Noted {
  const noted = notes.get(tree.added) ?? { read: new Map(), given: new Map(), added: -1 }
  notes.set(tree.added, noted)
  const fresh = noted.added < 0 ? [tree.root as SyntaxNode] : tree.added.slice(noted.added)
  noted.added = tree.added.length
  for (const each of fresh) walkTree(each, (node) => note(noted, node))
  return noted
}

function note({ read, given }: Noted, node: SyntaxNode): void {
  if (node.type === 'MemberExpression') add(read, memberName(node), node)
  else if (node.type === 'AssignmentExpression')
    add(given, memberName(node.left as SyntaxNode), node.right as SyntaxNode)
  else if ('value' in node && node.parent?.type !== 'ObjectPattern')
    add(given, keyName(node), node.value as SyntaxNode | null)
}

function add(names: Map<string, SyntaxNode[]>, name: string | null, node: SyntaxNode | null): void {
  if (name === null || node === null) return
  const known = names.get(name)
  if (known) known.push(node)
  else names.set(name, [node])
}
