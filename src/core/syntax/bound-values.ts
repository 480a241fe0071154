import type { Function as FunctionNode, Identifier } from 'acorn'
import type { Around, Code } from './fold.ts'
import { keyName, outerName, type SyntaxNode } from './node.ts'
import type { Binding, Scope } from './scope.ts'
import { bindingOf, isReassigned } from './tree.ts'
import { type Folded, type Lazy, member, once, orElse, shorten } from './value.ts'
import { afterWrites, type Write, writesTo } from './writes.ts'

/** One call of a function: what its names mean meanwhile. */
export interface Frame {
  readonly outer: Frame | null
  readonly fn: SyntaxNode & FunctionNode
  readonly args: readonly Folded[]
  readonly values: Map<Binding, Lazy>
}

interface Folding {
  of(node: SyntaxNode, frame: Frame | null): Folded
  functionOf(node: SyntaxNode & FunctionNode, frame: Frame | null): Folded
}

/** The values of names: of constants, functions, imports, parameters, and of patterns of them. */
export class BoundValues {
  readonly #code: Code
  readonly #around: Around
  readonly #fold: Folding
  /** Of the module itself, and of functions that nobody is seen to call. */
  readonly #outermost = new Map<Binding, Lazy>()
  readonly #writes = new Map<Binding, readonly Write[]>()
  readonly #busy = new Set<Binding>()

  constructor(code: Code, around: Around, fold: Folding) {
    this.#code = code
    this.#around = around
    this.#fold = fold
  }

  /** The value of a name; null when it has none that is known. */
  of(name: Identifier, frame: Frame | null): Folded | null {
    const binding = bindingOf(this.#code.tree, name)
    const [declared] = binding?.declared ?? []
    if (!binding || !declared || binding.declared.length > 1) return null
    const { inOrder } = this.#around
    if (!inOrder && isReassigned(this.#code.tree, binding)) return null
    const home = homeOf(binding, frame)
    const first = this.#declared(binding, declared, home)
    return inOrder ? this.#written(first, binding, name, frame) : first
  }

  #declared(binding: Binding, declared: Identifier, home: Frame | null): Folded {
    const values = home?.values ?? this.#outermost
    const known = values.get(binding)
    if (known) return known()
    const unknown: Folded = { kind: 'computed', expression: binding.name, at: this.#code.placeOf(declared) }
    const nothing = (): Folded | null =>
      declared.parent?.type === 'VariableDeclarator' && declared.parent.init === null
        ? { kind: 'value', value: undefined, at: unknown.at }
        : null
    const value = once(() => this.#received(declared, home) ?? nothing() ?? unknown)
    values.set(binding, value)
    return value()
  }

  /** What has become of it where it is used. Members may be written later still, when the whole of it is passed on. */
  #written(first: Folded, binding: Binding, use: Identifier, frame: Frame | null): Folded {
    const isWhole = use.parent?.type !== 'MemberExpression'
    const isHere = ({ within }: Write): boolean =>
      within === null || (within.start <= use.start && use.end <= within.end)
    const writes = this.#writesTo(binding)
      .filter(({ at, end, path }) => end <= use.start || (isWhole && path.length > 0 && at > use.end))
      // Nothing tells when another function runs.
      .map((write) => (isHere(write) ? write : { ...write, value: null, conditions: [] }))
    // Two objects that are written into each other end here.
    if (writes.length === 0 || this.#busy.has(binding)) return first
    this.#busy.add(binding)
    try {
      return afterWrites(first, writes, {
        of: (node) => this.#fold.of(node, frame),
        unknown: (node) => ({
          kind: 'computed',
          expression: node ? shorten(this.#code.text.slice(node.start, node.end)) : binding.name,
          at: this.#code.placeOf(node ?? use),
        }),
      })
    } finally {
      this.#busy.delete(binding)
    }
  }

  #writesTo(binding: Binding): readonly Write[] {
    const known = this.#writes.get(binding)
    if (known) return known
    const found = writesTo(this.#code.tree, binding)
    this.#writes.set(binding, found)
    return found
  }

  /** What a name or pattern receives where it stands. */
  #received(pattern: SyntaxNode, frame: Frame | null): Folded | null {
    const { parent } = pattern
    switch (parent?.type) {
      case 'VariableDeclarator':
        return parent.init ? this.#fold.of(parent.init, frame) : null
      case 'AssignmentPattern': {
        const value = this.#received(parent, frame)
        return value && orElse(value, () => this.#fold.of(parent.right, frame))
      }
      case 'Property': {
        const key = keyName(parent)
        return key === null ? null : this.#member(parent.parent, key, frame)
      }
      case 'ArrayPattern':
        return this.#item(parent, parent.elements.indexOf(pattern as Identifier), frame)
      case 'FunctionDeclaration':
        return pattern === parent.id
          ? this.#fold.functionOf(parent, frame)
          : this.#argument(parent, pattern, frame)
      case 'FunctionExpression':
      case 'ArrowFunctionExpression':
        return this.#argument(parent, pattern, frame)
      case 'ImportSpecifier':
        return this.#imported(parent.parent, outerName(parent.imported))
      case 'ImportDefaultSpecifier':
        return this.#imported(parent.parent, 'default')
      default:
        return null
    }
  }

  #member(pattern: SyntaxNode | undefined, key: string, frame: Frame | null): Folded | null {
    const owner = pattern ? this.#received(pattern, frame) : null
    if (!owner || !pattern) return null
    return member(owner, key) ?? { kind: 'value', value: undefined, at: this.#code.placeOf(pattern) }
  }

  #item(pattern: SyntaxNode, index: number, frame: Frame | null): Folded | null {
    const owner = this.#received(pattern, frame)
    return owner?.kind === 'list' ? (owner.items[index] ?? null) : null
  }

  /** What a call gives a parameter; nothing is known of the parameters of a function that is not followed. */
  #argument(fn: FunctionNode, parameter: SyntaxNode, frame: Frame | null): Folded | null {
    if (frame === null || frame.fn !== fn) return null
    const index = fn.params.indexOf(parameter as Identifier)
    return frame.args[index] ?? { kind: 'value', value: undefined, at: this.#code.placeOf(parameter) }
  }

  #imported(declaration: SyntaxNode | undefined, name: string): Folded | null {
    if (declaration?.type !== 'ImportDeclaration') return null
    return this.#around.imported?.(String(declaration.source.value), name) ?? null
  }
}

/** The call whose function declares the name. */
function homeOf({ scope }: Binding, frame: Frame | null): Frame | null {
  const owner = functionScope(scope)
  for (let at = frame; at; at = at.outer) if (at.fn.scope === owner) return at
  return null
}

function functionScope(scope: Scope): Scope {
  return scope.isFunction || scope.parent === null ? scope : functionScope(scope.parent)
}
