import { type Call, isCall, isFunction, type SyntaxNode } from '../../syntax/node.ts'
import { bindingOf, type Tree, usesOf } from '../../syntax/tree.ts'
import { constructedBy } from './holders.ts'
import type { Methods } from './methods.ts'

/** Calls of a function that are seen. */
export interface Calls {
  readonly calls: readonly Call[]
  /** There are no others. */
  readonly isAll: boolean
}

export const noCalls: Calls = { calls: [], isAll: false }

/** The functions of a script and their calls, by names and by what is given to them. */
export class Functions {
  readonly #tree: Tree
  readonly #methods: Methods

  constructor(tree: Tree, methods: Methods) {
    this.#tree = tree
    this.#methods = methods
  }

  /** The function of this script that a call means; null for one of others. */
  of(callee: SyntaxNode): SyntaxNode | null {
    if (isFunction(callee)) return callee
    if (callee.type === 'ClassExpression') return this.#methods.constructorFor(callee)
    if (callee.type === 'MemberExpression' || callee.type === 'Super') return this.#methods.called(callee)
    const binding = bindingOf(this.#tree, callee)
    const [declared] = binding?.declared ?? []
    const holder = declared?.parent
    if (!holder || binding?.declared.length !== 1) return null
    if (isFunction(holder) && 'id' in holder && holder.id === declared) return holder
    const value = holder.type === 'VariableDeclarator' ? holder.init : null
    if (value && isFunction(value)) return value
    return this.#methods.constructorFor(holder.type === 'VariableDeclarator' ? (value ?? holder) : holder)
  }

  /** The calls of a function, or of the class that it is the constructor of; and whether there can be no others. */
  callsOf(fn: SyntaxNode): Calls {
    const called = constructedBy(fn) ?? fn
    const { parent } = called
    const name =
      parent?.type === 'VariableDeclarator' && parent.init === called
        ? parent.id
        : 'id' in called
          ? called.id
          : null
    const binding = name && bindingOf(this.#tree, name as SyntaxNode)
    const uses = binding ? usesOf(this.#tree, binding) : []
    const calls = uses.flatMap((use) =>
      use.parent && isCall(use.parent) && use.parent.callee === use ? [use.parent] : [],
    )
    const isAtOnce = parent && isCall(parent) && parent.callee === called
    const isExported = [called, called.parent?.parent].some((each) =>
      /^Export/.test(each?.parent?.type ?? ''),
    )
    const isAll = !isExported && (binding ? calls.length === uses.length : isAtOnce === true)
    return { calls: isAtOnce ? [...calls, parent] : calls, isAll }
  }
}
