import { type BlockStatement, type Node, type Options, Parser, type Program } from 'acorn'
import { hasDeepTemplates } from './deep-templates.ts'
import type { SyntaxNode } from './node.ts'

/** Where the braces end that begin at an offset and are passed over; null when they are parsed. */
export type EndOfBraces = (start: number) => number | null

/** What was passed over, and the scope's bits of the parser where it stands. */
interface Passed {
  readonly node: Node
  readonly flags: number
}

/** The parser's own members that its types leave out. */
interface Internals {
  type: { readonly label: string }
  pos: number
  start: number
  next(): void
  nextToken(): void
  startNode(): Node
  finishNode(node: Node, type: string): Node
  enterScope(flags: number): void
  exitScope(): void
  parseBlock(createsScope: boolean): BlockStatement
  parseFunctionBody(node: Node, ...rest: readonly unknown[]): void
  parseObj(isPattern: boolean, errors?: object): Node
  toAssignable(node: Node | null, ...rest: readonly unknown[]): Node
  currentVarScope(): { readonly flags: number }
}

/** Bits of the parser's scopes: calls of `super` and its members: whether the class has one was seen when its body was passed over. */
const superScope = 64 | 128

/** Marks of a parser that has not seen what only a pattern may hold. */
const noErrors = {
  shorthandAssign: -1,
  trailingComma: -1,
  parenthesizedAssign: -1,
  parenthesizedBind: -1,
  doubleProto: -1,
}

const base = Parser.prototype as unknown as Internals

/**
 * Parses a built script, with offsets alone, and passes over the bodies of functions and the object literals that nobody asked for.
 * What is built was once parsed by its bundler: names that are declared twice are not looked for, which took time by the square of
 * their number.
 */
class BuiltParser extends Parser {
  readonly #endOf: EndOfBraces
  readonly #passed: Map<number, Passed>
  /** How much was passed over; UTF-16 units. */
  left = 0

  constructor(options: Options, code: string, endOf: EndOfBraces, passed: Map<number, Passed>) {
    super(options, code)
    this.#endOf = endOf
    this.#passed = passed
  }

  parseFunctionBody(node: Node & { body?: Node; expression?: boolean }, ...rest: readonly unknown[]): void {
    const own = this as unknown as Internals
    const body = own.type.label === '{' ? this.#passOver('BlockStatement', { body: [] }) : null
    if (!body) {
      base.parseFunctionBody.call(own, node, ...rest)
      return
    }
    node.body = body
    node.expression = false
    own.exitScope()
  }

  parseObj(isPattern: boolean, errors?: object): Node {
    const passed = isPattern ? null : this.#passOver('ObjectExpression', { properties: [] })
    return passed ?? base.parseObj.call(this as unknown as Internals, isPattern, errors)
  }

  /** An object literal that turns out to be a pattern, as the parameters of arrow functions do. */
  toAssignable(node: Node | null, ...rest: readonly unknown[]): Node {
    const passed = node && this.#passed.get(node.start)
    if (passed && passed.node === node) {
      this.#passed.delete(node.start)
      this.left -= node.end - node.start
      this.reveal(passed, this.input.slice(0, node.end))
    }
    return base.toAssignable.call(this as unknown as Internals, node, ...rest)
  }

  /** Parses what was passed over and puts it in its place. @param code up to its end */
  reveal(passed: Passed, code: string): Node {
    const parser = new BuiltParser(this.options, code, this.#endOf, this.#passed)
    const revealed = Object.assign(passed.node, parser.#inside(passed))
    this.left += parser.left
    return revealed
  }

  #passOver(type: string, inside: object): Node | null {
    const own = this as unknown as Internals
    const end = this.#endOf(own.start)
    if (end === null) return null
    const node = own.startNode()
    this.#passed.set(own.start, { node, flags: own.currentVarScope().flags })
    this.left += end - own.start
    own.pos = end - 1
    own.next()
    if (own.type.label !== '}') throw new SyntaxError('No bracket closes this one.')
    own.next()
    return own.finishNode(Object.assign(node, inside), type)
  }

  declareName(): void {}
  checkLocalExport(): void {}
  validateRegExpFlags(): void {}
  validateRegExpPattern(): void {}

  #inside({ node, flags }: Passed): Node {
    const own = this as unknown as Internals
    own.pos = node.start
    own.enterScope(superScope | flags)
    own.nextToken()
    return node.type === 'ObjectExpression' ? base.parseObj.call(own, false, noErrors) : own.parseBlock(false)
  }
}

/** A built script that is parsed as far as it is asked for. */
export class BuiltScript {
  readonly #code: string
  readonly #endOf: EndOfBraces
  readonly #passed = new Map<number, Passed>()
  #parser: BuiltParser | null = null
  /** It may be sound: browsers take more levels than a parser that calls itself for each. */
  isTooDeep = false

  constructor(code: string, endOf: EndOfBraces = () => null) {
    this.#code = code
    this.#endOf = endOf
  }

  /** How much was parsed; UTF-16 units. */
  get parsed(): number {
    return this.#parser ? this.#code.length - this.#parser.left : 0
  }

  /** The whole of it, without what is passed over; null when it is no script. */
  program(): Program | null {
    this.isTooDeep = hasDeepTemplates(this.#code)
    if (this.isTooDeep) return null
    for (const sourceType of ['module', 'script'] as const) {
      this.#passed.clear()
      try {
        this.#parser = new BuiltParser(optionsFor(sourceType), this.#code, this.#endOf, this.#passed)
        return this.#parser.parse()
      } catch (error) {
        // A classic script may hold what a module may not.
        this.isTooDeep ||= /\bstack\b/.test((error as Error).message)
      }
    }
    return null
  }

  /** Parses what was passed over and puts it in its place; null when nothing was. @throws {SyntaxError} it is not sound */
  reveal(start: number, end: number): SyntaxNode | null {
    const passed = this.#passed.get(start)
    if (!passed || !this.#parser) return null
    this.#passed.delete(start)
    this.#parser.left -= end - start
    return this.#parser.reveal(passed, this.#code.slice(0, end)) as SyntaxNode
  }
}

function optionsFor(sourceType: 'module' | 'script'): Options {
  return {
    ecmaVersion: 'latest',
    sourceType,
    allowReturnOutsideFunction: true,
    allowHashBang: true,
    // What is parsed alone does not see its class.
    checkPrivateFields: false,
  }
}
