import { type BlockStatement, type Node, type Options, Parser, type Program } from 'acorn'
import type { SyntaxNode } from './node.ts'

/** Where the body of a function ends that begins at an offset and is passed over; null when it is parsed. */
export type EndOfBody = (start: number) => number | null

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
}

/** Bits of the parser's scopes. */
const functionScope = 2
const asyncScope = 4
const generatorScope = 8
/** Calls of `super` and its members: whether the class has one was seen when its body was passed over. */
const superScope = 64 | 128

const base = Parser.prototype as unknown as Internals

/**
 * Parses a built script, with offsets alone, and passes over the bodies of functions that nobody asked for. What is built was once
 * parsed by its bundler: names that are declared twice are not looked for, which took time by the square of their number.
 */
class BuiltParser extends Parser {
  readonly #endOf: EndOfBody
  readonly #passed: Map<number, SyntaxNode>
  /** How much was passed over; UTF-16 units. */
  left = 0

  constructor(options: Options, code: string, endOf: EndOfBody, passed: Map<number, SyntaxNode>) {
    super(options, code)
    this.#endOf = endOf
    this.#passed = passed
  }

  parseFunctionBody(node: Node & { body?: Node; expression?: boolean }, ...rest: readonly unknown[]): void {
    const own = this as unknown as Internals
    const end = own.type.label === '{' ? this.#endOf(own.start) : null
    if (end === null) {
      base.parseFunctionBody.call(own, node, ...rest)
      return
    }
    const body = own.startNode() as Node & { body?: unknown }
    this.#passed.set(own.start, node as unknown as SyntaxNode)
    this.left += end - own.start
    own.pos = end - 1
    own.next()
    if (own.type.label !== '}') throw new SyntaxError('No bracket closes this body.')
    own.next()
    body.body = []
    node.body = own.finishNode(body, 'BlockStatement')
    node.expression = false
    own.exitScope()
  }

  declareName(): void {}
  checkLocalExport(): void {}
  validateRegExpFlags(): void {}
  validateRegExpPattern(): void {}

  /** The block that begins at an offset, as the body of a function of that kind. */
  blockAt(at: number, flags: number): BlockStatement {
    const own = this as unknown as Internals
    own.pos = at
    own.enterScope(functionScope | superScope | flags)
    own.nextToken()
    return own.parseBlock(false)
  }
}

/** A built script that is parsed as far as it is asked for. */
export class BuiltScript {
  readonly #code: string
  readonly #endOf: EndOfBody
  /** The functions whose bodies were passed over, by where these begin. */
  readonly passed = new Map<number, SyntaxNode>()
  #sourceType: 'module' | 'script' = 'module'
  /** How much was parsed; UTF-16 units. */
  parsed = 0
  /** It may be sound: browsers take more levels than a parser that calls itself for each. */
  isTooDeep = false

  constructor(code: string, endOf: EndOfBody = () => null) {
    this.#code = code
    this.#endOf = endOf
  }

  /** The whole of it, without what is passed over; null when it is no script. */
  program(): Program | null {
    for (const sourceType of ['module', 'script'] as const) {
      this.#sourceType = sourceType
      this.passed.clear()
      try {
        const parser = this.#parser(this.#code)
        const program = parser.parse()
        this.parsed = this.#code.length - parser.left
        return program
      } catch (error) {
        // A classic script may hold what a module may not.
        this.isTooDeep ||= /\bstack\b/.test((error as Error).message)
      }
    }
    return null
  }

  /** Parses a body that was passed over and puts it in its place; null when it was none, or is not sound. */
  body(start: number, end: number): SyntaxNode | null {
    const fn = this.passed.get(start) as (SyntaxNode & { async?: boolean; generator?: boolean }) | undefined
    if (!fn) return null
    this.passed.delete(start)
    const flags = (fn.async ? asyncScope : 0) | (fn.generator ? generatorScope : 0)
    const parser = this.#parser(this.#code.slice(0, end))
    const block = parser.blockAt(start, flags)
    this.parsed += end - start - parser.left
    Object.assign(fn, { body: block })
    return fn
  }

  #parser(code: string): BuiltParser {
    const options: Options = {
      ecmaVersion: 'latest',
      sourceType: this.#sourceType,
      allowReturnOutsideFunction: true,
      allowHashBang: true,
      // A body that is parsed alone does not see its class.
      checkPrivateFields: false,
    }
    return new BuiltParser(options, code, this.#endOf, this.passed)
  }
}
