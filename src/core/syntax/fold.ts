import type {
  ArrayExpression,
  CallExpression,
  Function as FunctionNode,
  MemberExpression,
  NewExpression,
  ObjectExpression,
  Property,
  Statement,
} from 'acorn'
import type { Place } from '../model/reading.ts'
import { BoundValues, type Frame } from './bound-values.ts'
import {
  dottedName,
  isFunction,
  isTyped,
  keyName,
  memberName,
  type SyntaxNode,
  textOf,
  walkTree,
} from './node.ts'
import {
  foldBinary,
  foldLogical,
  foldObject,
  foldTemplate,
  foldUnary,
  joined,
  type Operands,
} from './operators.ts'
import type { Tree } from './tree.ts'
import { decidedBy, type Folded, member, type Primitive, shorten, truthOf } from './value.ts'

/** The code that is folded. */
export interface Code {
  readonly text: string
  readonly tree: Tree
  readonly placeOf: (node: SyntaxNode) => Place
}

/** What is known around the code; each answers null for what it does not know. */
export interface Around {
  /** What a module imports under a name. */
  imported?(specifier: string, name: string): Folded | null
  /** Names joined by points that the language or the platform gives: `process.env.X`, `import.meta.url`. */
  named?(name: string, at: Place): Folded | null
  /** Calls whose result is known without running them. */
  called?(callee: string, args: readonly Folded[], at: Place): Folded | null
  /** What an unknown call gives back of what it is given, where its name says that it adds to it. */
  wrapped?(callee: string, args: readonly Folded[]): Folded | null
  /** Members of texts whose value is known: `new URL(…).pathname`. */
  textMember?(text: Folded, name: string): Folded | null
  /** The package that a local name comes from. */
  packageOf?(name: string): string | null
  /** The code runs once, from top to bottom: what is written to a name later is followed. Else such a name is not folded. */
  readonly inOrder?: true
}

/** The patterns by which slashes are taken off a text, at its end or its beginning. */
const slashesAt: ReadonlyMap<string, (text: string) => string> = new Map([
  ['/\\/$/', (text) => (text.endsWith('/') ? text.slice(0, -1) : text)],
  ['/\\/+$/', (text) => text.slice(0, text.length - trailing(text))],
  ['/^\\//', (text) => (text.startsWith('/') ? text.slice(1) : text)],
  ['/^\\/+/', (text) => text.slice(leading(text))],
])

function trailing(text: string): number {
  let count = 0
  while (text.charAt(text.length - 1 - count) === '/') count++
  return count
}

function leading(text: string): number {
  let count = 0
  while (text.charAt(count) === '/') count++
  return count
}

/** Deeper nesting than this is a program, not a constant. */
const deepest = 200

/** Code that takes more steps than this is a program too. */
const mostSteps = 500_000

/**
 * Folds expressions of one file without running anything: literals, templates, operators, constants, conditionals, spreads,
 * simple functions. What it can't fold is `computed`, with the code.
 */
export class Fold {
  readonly #code: Code
  readonly #around: Around
  readonly #values: BoundValues
  readonly #tables = new Map<SyntaxNode, Table>()
  readonly #textOf = (node: SyntaxNode): string => this.#code.text.slice(node.start, node.end)
  #depth = 0
  #steps = 0

  constructor(code: Code, around: Around = {}) {
    this.#code = code
    this.#around = around
    this.#values = new BoundValues(code, around, {
      of: (node, frame) => this.of(node, frame),
      functionOf: (node, frame) => this.#functionOf(node, frame),
    })
  }

  /** Folds one expression. @param frame the call it stands in, when a function is followed */
  of(node: SyntaxNode, frame: Frame | null = null): Folded {
    if (this.#depth >= deepest || this.#steps >= mostSteps) return this.#unknown(node)
    this.#depth++
    this.#steps++
    try {
      return this.#folded(node, frame) ?? this.#unknown(node)
    } finally {
      this.#depth--
    }
  }

  #folded(node: SyntaxNode, frame: Frame | null): Folded | null {
    const operands = this.#operands(node, frame)
    const { at } = operands
    switch (node.type) {
      case 'Literal':
        return literal(node.value, at)
      case 'Identifier':
        if (node.name === 'undefined') return { kind: 'value', value: undefined, at }
        return this.#values.of(node, frame) ?? this.#around.named?.(node.name, at) ?? null
      case 'TemplateLiteral':
        return foldTemplate(node, operands)
      case 'ObjectExpression':
        this.#code.tree.watch?.within(node)
        return foldObject(node, operands)
      case 'ArrayExpression':
        return this.#list(node, frame, at)
      case 'ConditionalExpression': {
        const test = this.of(node.test, frame)
        const truth = truthOf(test)
        return truth === null
          ? null
          : decidedBy(this.of(truth ? node.consequent : node.alternate, frame), test)
      }
      case 'LogicalExpression':
        return foldLogical(node, operands)
      case 'BinaryExpression':
        return foldBinary(node, operands)
      case 'UnaryExpression':
        return foldUnary(node, operands)
      case 'MemberExpression':
        return this.#member(node, frame, at)
      case 'CallExpression':
      case 'NewExpression':
        return this.#call(node, frame, at)
      case 'ArrowFunctionExpression':
      case 'FunctionExpression':
      case 'FunctionDeclaration':
        return this.#functionOf(node, frame)
      case 'AwaitExpression':
        return this.of(node.argument, frame)
      case 'ChainExpression':
      case 'ParenthesizedExpression':
        return this.of(node.expression, frame)
      default:
        return isTyped(node) ? this.of(node.expression, frame) : null
    }
  }

  #operands(node: SyntaxNode, frame: Frame | null): Operands {
    const { placeOf } = this.#code
    return { at: placeOf(node), fold: (part) => this.of(part, frame), placeOf, textOf: this.#textOf }
  }

  #list(node: ArrayExpression, frame: Frame | null, at: Place): Folded {
    const items = node.elements.flatMap((element) => {
      if (!element) return []
      if (element.type !== 'SpreadElement') return [this.of(element, frame)]
      const spread = this.of(element.argument, frame)
      this.#steps += spread.kind === 'list' ? spread.items.length : 0
      const isUsual = spread.kind === 'list' && this.#steps < mostSteps
      return isUsual ? spread.items : [this.#unknown(element)]
    })
    return { kind: 'list', items, at }
  }

  #member(node: MemberExpression, frame: Frame | null, at: Place): Folded | null {
    const dotted = dottedName(node)
    const named = dotted === null ? null : (this.#around.named?.(dotted, at) ?? null)
    if (named) return named
    const key = node.computed ? this.of(node.property as SyntaxNode, frame) : null
    const name = key ? (key.kind === 'value' ? String(key.value) : null) : memberName(node)
    if (name === null || node.object.type === 'Super') return null
    const owner = this.#entry(node.object, name, frame) ?? this.of(node.object, frame)
    if (owner.kind === 'list') return owner.items[Number(name)] ?? null
    if (owner.kind === 'value') return this.#around.textMember?.(owner, name) ?? null
    if (owner.kind !== 'object') return null
    const found = member(owner, name)
    return found ? withCode(found, this.#textOf(node)) : { kind: 'value', value: undefined, at }
  }

  /** Tables of thousands of entries are looked up by the entry: `{179: "main", …}[id]`. */
  #entry(object: SyntaxNode, name: string, frame: Frame | null): Folded | null {
    if (object.type !== 'ObjectExpression') return null
    this.#code.tree.watch?.within(object)
    const table = this.#tables.get(object) ?? tableOf(object)
    this.#tables.set(object, table)
    return table.isPlain
      ? foldObject({ ...object, properties: table.entries.get(name) ?? [] }, this.#operands(object, frame))
      : null
  }

  #call(node: CallExpression | NewExpression, frame: Frame | null, at: Place): Folded | null {
    const { callee } = node
    if (callee.type === 'MemberExpression' && memberName(callee) === 'concat') {
      const parts = [callee.object as SyntaxNode, ...node.arguments].map((part) => this.of(part, frame))
      return joined(parts, node, this.#operands(node, frame))
    }
    const trimmed = this.#withoutSlashes(node, frame)
    if (trimmed) return trimmed
    const args = node.arguments.map((argument) => this.of(argument, frame))
    const text = dottedName(callee) ?? this.#textOf(callee)
    const known = this.#around.called?.(text, args, at) ?? null
    if (known) return known
    const own = isFunction(callee) || callee.type === 'Identifier' ? this.of(callee, frame) : null
    if (own?.kind === 'function') return own.call(args)
    const wrapped = this.#around.wrapped?.(text, args) ?? null
    if (wrapped) return wrapped
    const expression = shorten(this.#textOf(node))
    return { kind: 'call', callee: this.#around.packageOf?.(text) ?? text, args, expression, at }
  }

  /** A text from which a call takes the slashes at one end; other patterns are a program's. */
  #withoutSlashes(
    { callee, arguments: given }: CallExpression | NewExpression,
    frame: Frame | null,
  ): Folded | null {
    if (callee.type !== 'MemberExpression' || memberName(callee) !== 'replace') return null
    const [pattern, instead] = given as SyntaxNode[]
    const trim = slashesAt.get(pattern ? this.#textOf(pattern) : '')
    if (!trim || !instead || textOf(instead) !== '') return null
    const folded = this.of(callee.object as SyntaxNode, frame)
    return folded.kind === 'value' && typeof folded.value === 'string'
      ? { ...folded, value: trim(folded.value) }
      : null
  }

  /** A function that can be called with folded arguments. */
  #functionOf(node: SyntaxNode & FunctionNode, outer: Frame | null): Folded {
    const call = (args: readonly Folded[]): Folded => {
      const frame: Frame = { outer, fn: node, args, values: new Map() }
      if (node.body.type !== 'BlockStatement') return this.of(node.body, frame)
      this.#code.tree.watch?.within(node.body)
      const result = this.#run(node.body.body, frame)
      if (result === 'unknown') return this.#unknown(node)
      return result ?? { kind: 'value', value: undefined, at: this.#code.placeOf(node) }
    }
    return { kind: 'function', call, at: this.#code.placeOf(node) }
  }

  /** Follows statements to the value they return; "unknown" when that hangs on what can't be folded. */
  #run(statements: readonly Statement[], frame: Frame): Folded | 'unknown' | null {
    for (const statement of statements) {
      if (statement.type === 'ReturnStatement') {
        return statement.argument ? this.of(statement.argument, frame) : 'unknown'
      }
      if (statement.type === 'IfStatement') {
        const truth = truthOf(this.of(statement.test, frame))
        if (truth === null && mayReturn(statement)) return 'unknown'
        const branch = truth === null ? null : truth ? statement.consequent : statement.alternate
        const result = branch ? this.#run([branch], frame) : null
        if (result) return result
      } else if (statement.type === 'BlockStatement') {
        const result = this.#run(statement.body, frame)
        if (result) return result
      } else if (/^(For|While|Do|Switch|Try)/.test(statement.type) && mayReturn(statement)) {
        return 'unknown'
      }
    }
    return null
  }

  #unknown(node: SyntaxNode): Folded {
    return { kind: 'computed', expression: shorten(this.#textOf(node)), at: this.#code.placeOf(node) }
  }
}

/** The properties of an object by name. */
interface Table {
  /** Whether all have a name that is written out. */
  readonly isPlain: boolean
  readonly entries: ReadonlyMap<string, Property[]>
}

function tableOf({ properties }: ObjectExpression): Table {
  const entries = new Map<string, Property[]>()
  for (const each of properties) {
    const name = each.type === 'Property' ? keyName(each) : null
    if (each.type !== 'Property' || name === null) return { isPlain: false, entries }
    const known = entries.get(name)
    if (known) known.push(each)
    else entries.set(name, [each])
  }
  return { isPlain: true, entries }
}

/** Whether a statement may return from the function it stands in. */
function mayReturn(statement: Statement): boolean {
  let found = false
  walkTree(statement, (node) => {
    found ||= node.type === 'ReturnStatement'
    return !found && !isFunction(node)
  })
  return found
}

function literal(value: unknown, at: Place): Folded | null {
  if (typeof value === 'bigint') return { kind: 'value', value: String(value), at }
  return typeof value === 'object' && value !== null ? null : { kind: 'value', value: value as Primitive, at }
}

/** What is not seen of an object is shown as the code that reads it. */
function withCode(value: Folded, code: string): Folded {
  return value.kind === 'computed' && value.expression === '…'
    ? { ...value, expression: shorten(code) }
    : value
}
