import { isForElement } from '../../model/content-type.ts'
import { withoutQuery } from '../../model/reference.ts'
import { type SyntaxNode, textOf } from '../../syntax/node.ts'
import { bindingOf, nodeAt, type Tree, usesNamed } from '../../syntax/tree.ts'
import { atFirst, Follower } from './follower.ts'
import type { Exported, Outcome } from './outcome.ts'
import { isAfterOwnAddress, isGuarded } from './own-host.ts'

/** Follows the text at an offset of a script to what it is passed to. */
export function followText(code: string, tree: Tree, offset: number): Outcome {
  return followNode(code, tree, nodeAt(tree, offset))
}

/** Follows what an expression is to what it is passed to. */
export function followNode(code: string, tree: Tree, node: SyntaxNode | null): Outcome {
  const follower = new Follower(code, tree)
  const whole = node?.type === 'TemplateElement' ? node.parent : node
  follower.isPath = node !== null && /^["'`]?\/(?!\/)/.test(code.slice(node.start, node.start + 3))
  follower.isFile = follower.isPath && isForElement(withoutQuery(textOf(whole) ?? ''))
  if (whole && isAfterOwnAddress(code, whole)) follower.harmless.add('after own address')
  else if (whole && isGuarded(code, tree, whole)) follower.harmless.add('guarded')
  else if (whole) {
    if (node?.type === 'TemplateElement') follower.partOf(node)
    follower.value(whole, atFirst)
  }
  return follower.toItsEnd()
}

/** Follows what stands at an offset, which is not there when the script runs: `void 0`, a name for it, a text of it. */
export function followAbsence(code: string, tree: Tree, offset: number): Outcome {
  const follower = new Follower(code, tree, { isAbsent: true })
  const node = nodeAt(tree, offset)
  const whole =
    node?.type === 'TemplateElement' || node?.parent?.type === 'UnaryExpression' ? node.parent : node
  if (whole?.type === 'Identifier' && isPatternOf(whole)) follower.bound(whole)
  else if (
    whole?.type === 'Identifier' &&
    whole.parent?.type === 'MemberExpression' &&
    whole.parent.property === whole
  )
    follower.value(whole.parent, atFirst)
  else if (whole) follower.value(whole, atFirst)
  return follower.toItsEnd()
}

function isPatternOf({ parent }: SyntaxNode): boolean {
  return parent?.type === 'Property' && parent.parent?.type === 'ObjectPattern'
}

/** Follows what a script imports: the uses of one export of another module. */
export function followImport(
  code: string,
  tree: Tree,
  from: (specifier: string) => boolean,
  { name, path, module, held }: Exported,
): Outcome {
  const follower = new Follower(code, tree)
  const way = { ...atFirst, held }
  if (module !== null) follower.required(module, [name, ...path], way)
  for (const [local, entry] of tree.imported) {
    if (!from(entry.from)) continue
    for (const node of usesNamed(tree, local)) {
      // The name of an import may be another thing inside a function.
      if (bindingOf(tree, node)?.scope.parent != null) continue
      if (entry.name === name) follower.use(node, path, way)
      else if (entry.name === '*') follower.object(node, [name, ...path], way)
    }
  }
  return follower.toItsEnd()
}
