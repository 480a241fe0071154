import { parse as parseBabel } from '@babel/parser'
import { type Expression, Parser, type Program, parse as parseScript } from 'acorn'

/** A module could not be parsed. The message says where. */
export class SyntaxProblem extends Error {
  override readonly name = 'SyntaxProblem'
}

/**
 * Parses a source in TypeScript, JavaScript or JSX of any age, with lines and columns. Errors that leave a tree are passed
 * over, unless it must be sound.
 * @throws {SyntaxProblem} when there is no tree, or it must be sound and is not
 */
export function parseSource(file: string, text: string, mustBeSound = false): Program {
  try {
    const { program } = parseBabel(text, {
      sourceType: 'unambiguous',
      errorRecovery: !mustBeSound,
      allowReturnOutsideFunction: true,
      attachComment: false,
      plugins: [
        'estree',
        /\.[mc]?ts$/.test(file) ? 'typescript' : 'jsx',
        ...(/\.tsx$/.test(file) ? (['typescript'] as const) : []),
      ],
    })
    // With the plugin the parser's nodes are those of the standard, which its types do not say.
    return program as unknown as Program
  } catch (error) {
    throw new SyntaxProblem(
      `${file} could not be parsed: ${error instanceof Error ? error.message : 'unknown'}.`,
    )
  }
}

/** Larger scripts take longer to parse than what they hold is worth; UTF-16 units. */
const largestScript = 4_000_000

/** Parses a built script, with offsets alone; null when it is none, or too large. */
export function parseBuilt(code: string): Program | null {
  if (code.length > largestScript) return null
  for (const sourceType of ['module', 'script'] as const) {
    try {
      return parseScript(code, {
        ecmaVersion: 'latest',
        sourceType,
        allowReturnOutsideFunction: true,
        allowHashBang: true,
      })
    } catch {
      // A classic script may hold what a module may not.
    }
  }
  return null
}

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
