import { parse as parseBabel } from '@babel/parser'
import { type Expression, Parser, type Program, parse as parseScript } from 'acorn'
import { tooDeepAt } from '../model/nesting.ts'
import type { Place } from '../model/reading.ts'
import { hasDeepTemplates } from './deep-templates.ts'

/** A file could not be parsed: which, where, and why. */
export class SyntaxProblem extends Error {
  override readonly name = 'SyntaxProblem'
  readonly at: Place
  readonly reason: string

  /** @param what what the file is not, as in "valid TOML" */
  constructor(what: string, reason: string, at: Place) {
    super(`${at.file} is not ${what}: ${reason} at line ${at.line}, column ${at.column}.`)
    this.at = at
    this.reason = reason
  }
}

/** Refuses data that is nested more deeply than its parser takes. @throws {SyntaxProblem} */
export function checkNesting(file: string, text: string, what: string): void {
  const at = tooDeepAt(text)
  if (at) throw new SyntaxProblem(what, 'nested too deeply', { file, ...at })
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
        // Of Angular and Lit, before parameters too.
        'decorators-legacy',
        /\.[mc]?ts$/.test(file) ? 'typescript' : 'jsx',
        ...(/\.tsx$/.test(file) ? (['typescript'] as const) : []),
      ],
    })
    // With the plugin the parser's nodes are those of the standard, which its types do not say.
    return program as unknown as Program
  } catch (error) {
    throw problemOf(file, error)
  }
}

function problemOf(file: string, error: unknown): SyntaxProblem {
  const { message, loc } = error as { message?: string; loc?: { line: number; column: number } }
  const reason = (message ?? 'unknown').replace(/(?<!\s)\s*\(\d+:\d+\)$/, '').replace(/\.$/, '')
  return new SyntaxProblem('a module that can be read', reason, {
    file,
    line: loc?.line ?? 1,
    column: (loc?.column ?? 0) + 1,
  })
}

/** More of a built script takes longer to parse than what it holds is worth; UTF-16 units. */
export const largestScript = 4_000_000

/** How far a script is one; null when all of it is, as a module or as a classic script. */
export function firstErrorIn(code: string): number | null {
  if (hasDeepTemplates(code)) return null
  let first: number | null = null
  for (const sourceType of ['module', 'script'] as const) {
    try {
      parseScript(code, { ecmaVersion: 'latest', sourceType, allowHashBang: true })
      return null
    } catch (error) {
      first = Math.max(first ?? 0, (error as { pos?: number }).pos ?? 0)
    }
  }
  return first
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
  const piece = code.slice(at, at + longest)
  if (hasDeepTemplates(piece)) return null
  try {
    return PieceParser.parseExpressionAt(piece, 0, {
      ecmaVersion: 'latest',
      sourceType: 'module',
      allowReturnOutsideFunction: true,
    })
  } catch {
    return null
  }
}
