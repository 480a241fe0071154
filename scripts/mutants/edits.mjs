// Small edits of a source, as a slip of the hand would make them. Each is an offset range and what stands there instead.
import { parse } from '@babel/parser'

const opposite = {
  '===': '!==',
  '!==': '===',
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '&&': '||',
  '||': '&&',
}
const otherMethod = {
  some: 'every',
  every: 'some',
  find: 'findLast',
  startsWith: 'endsWith',
  min: 'max',
  max: 'min',
}

/** A bound that somebody chose: one more or less is another choice and no mistake. */
const bound = /^(?:most|longest|largest|deepest|lines)/

/**
 * Every edit of a source that could change what it does. Left alone are bounds, and which of two words a sentence for a person
 * has ("is" or "are").
 */
export function editsOf(text) {
  const { program } = parse(text, { sourceType: 'module', plugins: ['typescript'] })
  const found = []
  const add = (start, end, write) => found.push({ start, end, write })
  visit(program, null, (node, parent) => {
    if (node.type === 'VariableDeclarator' && bound.test(node.id.name ?? '')) return false
    if (node.type === 'ConditionalExpression' && isWord(node.consequent) && isWord(node.alternate))
      return false
    switch (node.type) {
      case 'BinaryExpression':
      case 'LogicalExpression': {
        const write = opposite[node.operator]
        if (!write) break
        const at = text.indexOf(node.operator, node.left.end)
        add(at, at + node.operator.length, write)
        break
      }
      case 'UnaryExpression':
        if (node.operator === '!') add(node.start, node.start + 1, '')
        break
      case 'BooleanLiteral':
        add(node.start, node.end, String(!node.value))
        break
      case 'NumericLiteral':
        // A bound of thousands is a choice; one more or less tells nothing.
        if (node.value < 1000) add(node.start, node.end, String(node.value + 1))
        break
      case 'ConditionalExpression':
      case 'IfStatement':
        if (!opposite[node.test.operator] && node.test.type !== 'UnaryExpression')
          add(node.test.start, node.test.end, `!(${text.slice(node.test.start, node.test.end)})`)
        break
      case 'MemberExpression': {
        const write = parent?.type === 'CallExpression' && otherMethod[node.property.name]
        if (write) add(node.property.start, node.property.end, write)
        break
      }
      case 'RegExpLiteral':
        if (node.pattern.startsWith('^') && node.pattern.length > 2) add(node.start + 1, node.start + 2, '')
        if (node.pattern.endsWith('$') && node.pattern.length > 2) {
          const at = node.start + node.pattern.length
          add(at, at + 1, '')
        }
        break
    }
    return true
  })
  return found.sort((a, b) => a.start - b.start)
}

/** A literal of words, or nothing. */
function isWord(node) {
  return node.type === 'StringLiteral' && /^[a-z ,']*$/i.test(node.value)
}

function visit(node, parent, enter) {
  if (Array.isArray(node)) for (const each of node) visit(each, parent, enter)
  if (typeof node?.type !== 'string') return
  if (/^TS|^Import/.test(node.type) && !/^TS(As|Satisfies|NonNull)/.test(node.type)) return
  if (!enter(node, parent)) return
  for (const [key, value] of Object.entries(node))
    if (
      typeof value === 'object' &&
      value !== null &&
      !/^(loc|extra|errors|typeAnnotation|returnType|typeParameters)$/.test(key)
    )
      visit(value, node, enter)
}
