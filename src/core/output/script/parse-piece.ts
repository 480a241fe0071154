import { type Expression, Parser } from 'acorn'

/** The parser's own method for an expression without commas, which its types leave out. */
interface Methods {
  parseMaybeAssign(): Expression
  parseExpression(): Expression
}

/** Reads one expression and stops at the comma or bracket behind it: pieces of bundles are cut out of longer ones. */
class PieceParser extends Parser {
  #begun = false

  parseExpression(): Expression {
    if (this.#begun) return (Parser.prototype as unknown as Methods).parseExpression.call(this)
    this.#begun = true
    return (this as unknown as Methods).parseMaybeAssign()
  }
}

/**
 * The expression that begins at an offset, its own offsets counted from there; null when there is none.
 * @param longest how far it may reach, which bounds what a broken file costs
 */
export function expressionAt(code: string, at: number, longest: number): Expression | null {
  try {
    return PieceParser.parseExpressionAt(code.slice(at, at + longest), 0, {
      ecmaVersion: 'latest',
      sourceType: 'module',
      allowReturnOutsideFunction: true,
    })
  } catch {
    return null
  }
}
