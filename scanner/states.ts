// What stood before, as far as it decides whether a slash divides or opens a regular expression.
export const START = 0
export const NAME = 1 // identifiers, literals, closing brackets: an operand has just ended
export const OPERATOR = 2 // an operand must follow
export const PAREN_OPEN = 3
export const PAREN_CLOSE = 4
export const BRACE_OPEN = 5
export const SEMICOLON = 6
export const COLON = 7
export const DOT = 8
export const ARROW = 9
export const ELSE = 10
export const RETURN = 11
export const HEAD = 12 // if, for, while, with: their parentheses are followed by a statement
export const FUNCTION = 13 // function, class
export const DECLARE = 14 // var, const
export const BREAK = 15 // keywords after which neither an operand nor an operator is certain
export const BRACE_CLOSE = 16

// What a bracket or a function belongs to. Odd numbers are expressions: after them a slash divides.
export const BLOCK = 0
export const OBJECT = 1
export const TEMPLATE_HOLE = 2
export const STATEMENT_PARENS = 4
export const PARENS = 5
export const FUNCTION_STATEMENT = 6
export const FUNCTION_EXPRESSION = 7

/** Whether a brace opens a block, and no object, by what it is in and what stands before it. */
export function opensBlock(parent: i32, before: i32, operand: bool, lineBroken: bool): bool {
  if (parent === FUNCTION_EXPRESSION || parent === FUNCTION_STATEMENT) return true
  if (before === COLON && (parent === BLOCK || parent === OBJECT)) return parent === BLOCK
  if (before === RETURN) return lineBroken
  if (before === NAME && operand) return lineBroken
  if (before === ELSE || before === SEMICOLON || before === START) return true
  if (before === PAREN_CLOSE || before === ARROW) return true
  if (before === BRACE_OPEN) return parent === BLOCK
  if (before === DECLARE || before === NAME) return false
  return !operand || before === BRACE_CLOSE
}

/** Whether `function` or `class` begins an expression, and no declaration. */
export function isExpression(parent: i32, before: i32, operand: bool, lineBroken: bool): bool {
  if (!operand || before === ELSE || before === BREAK || before === BRACE_CLOSE) return false
  if (before === SEMICOLON) return parent === PARENS
  if (before === RETURN) return !lineBroken
  if (before === COLON || before === BRACE_OPEN) return parent !== BLOCK
  return before !== START && before !== PAREN_CLOSE
}
