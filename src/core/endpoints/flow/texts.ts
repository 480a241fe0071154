import type { Fold } from '../../syntax/fold.ts'
import { isFunction, outerName, type SyntaxNode } from '../../syntax/node.ts'
import type { Tree } from '../../syntax/tree.ts'
import type { Functions } from './functions.ts'
import { beginsWord, lastOf, textInTemplate } from './joined.ts'
import { givesBack } from './lists.ts'

/** Parts of a sum that are put together. */
const mostParts = 20

/** The texts that a script is known to put before others. */
export class Texts {
  readonly #tree: Tree
  readonly #fold: Fold
  readonly #functions: Functions

  constructor(tree: Tree, fold: Fold, functions: Functions) {
    this.#tree = tree
    this.#fold = fold
    this.#functions = functions
  }

  /** The end of a text that something stands behind, from where a word begins in it. */
  before(node: SyntaxNode, depth = 0): string | null {
    if (node.type === 'TemplateElement') return node.value.raw
    const last = lastOf(node)
    const text = this.#of(last)
    if (text === null || beginsWord.test(text)) return text
    if (last !== node) {
      const { left } = node as SyntaxNode & { type: 'BinaryExpression' }
      const before = depth < mostParts ? this.before(left as SyntaxNode, depth + 1) : null
      return before === null ? null : before + text
    }
    return textInTemplate(node) + text
  }

  /** The text that an expression is known to give. */
  #of(node: SyntaxNode): string | null {
    const folded = this.#fold.of(this.#unwrapped(node))
    return folded.kind === 'value' ? String(folded.value ?? '') : null
  }

  /** What a function is given that gives it back, or what it holds: `unref(base)`. */
  #unwrapped(node: SyntaxNode): SyntaxNode {
    if (node.type !== 'CallExpression' || node.arguments.length !== 1) return node
    const [given] = node.arguments as readonly SyntaxNode[]
    const fn = this.#functions.of(node.callee as SyntaxNode)
    // Of a function of another file a path comes back as it is, or longer.
    if (!fn && given && this.#tree.imported.has(outerName(node.callee as SyntaxNode))) return given
    if (!fn || !isFunction(fn)) return node
    if (fn.body.type === 'BlockStatement') this.#tree.watch?.within(fn.body as SyntaxNode)
    return givesBack(fn) && given ? given : node
  }
}
