import type { Edit } from '../model/report.ts'
import { startOfLine } from '../model/text.ts'
import {
  type Call,
  isCall,
  type JsxElement,
  keyName,
  type SyntaxNode,
  walkTree,
  withoutTypes,
} from '../syntax/node.ts'
import { bindingOf, nodeAt, sourceTree, type Tree } from '../syntax/tree.ts'
import type { Change } from './edit.ts'
import { type Setting, settingOf, writtenBelow } from './setting.ts'

/**
 * The change of a JavaScript or TypeScript file that an edit means: the value at its place, or a member of the object that
 * begins there; without a place, of the object that the file exports. Null where that is not known.
 */
export function changeInScript(file: string, source: string, edit: Edit): Change | null {
  if (edit.into) return changeInCall(file, source, edit)
  const { line, column, write } = edit
  const setting = settingOf(inQuotesOf(source, write))
  const tree = treeOf(file, source)
  if (!setting || !tree) return null
  const node = line === null ? null : nodeAtPlace(tree, source, line, column ?? null)
  if (node?.type === 'Literal' || node?.type === 'TemplateLiteral')
    return { start: node.start, end: node.end, text: setting.value }
  const object = node?.type === 'ObjectExpression' ? node : exportedObject(tree)
  return object?.type === 'ObjectExpression' ? changeInObject(source, object, setting) : null
}

/** Trees of the files that edits are placed in: many edits are of one file, and a parse costs more than all of them. */
const kept = new Map<string, { readonly source: string; readonly tree: Tree | null }>()
const mostKept = 4

function treeOf(file: string, source: string): Tree | null {
  const known = kept.get(file)
  if (known?.source === source) return known.tree
  const tree = parsed(file, source)
  kept.delete(file)
  kept.set(file, { source, tree })
  for (const oldest of kept.keys()) {
    if (kept.size <= mostKept) break
    kept.delete(oldest)
  }
  return tree
}

function parsed(file: string, source: string): Tree | null {
  try {
    return sourceTree(file, source, true)
  } catch {
    return null
  }
}

/** The change of what begins at a place: a call that gets an argument or a member of it, or an element that gets an attribute. */
function changeInCall(file: string, source: string, { line, column, write, into = {} }: Edit): Change | null {
  const tree = treeOf(file, source)
  if (!tree || line === null || column === undefined) return null
  const start = startOfLine(source, line) + column - 1
  let change: Change | null = null
  walkTree(tree.root as unknown as SyntaxNode, (node) => {
    if (node.start !== start || change) return
    if (isCall(node) && into.argument !== undefined)
      change = inArguments(source, node, into.argument, into.member ?? null, inQuotesOf(source, write))
    if (node.type === 'JSXElement' && into.attribute !== undefined)
      change = inElement(node, into.attribute, write)
  })
  return change
}

function inArguments(
  source: string,
  call: Call,
  index: number,
  member: string | null,
  value: string,
): Change | null {
  const given = call.arguments[index]
  if (given && member === null) return { start: given.start, end: given.end, text: value }
  if (given)
    return given.type === 'ObjectExpression'
      ? changeInObject(source, given, { path: [member ?? ''], value })
      : null
  if (call.arguments.length !== index) return null
  const text = member === null ? value : `{ ${member}: ${value} }`
  const last = call.arguments.at(-1)
  const at = last ? last.end : call.end - 1
  return { start: at, end: at, text: last ? `, ${text}` : text }
}

function inElement({ openingElement }: JsxElement, name: string, value: string): Change | null {
  for (const each of openingElement.attributes) {
    if (each.type !== 'JSXAttribute' || each.name.type !== 'JSXIdentifier' || each.name.name !== name)
      continue
    return each.value ? { start: each.value.start, end: each.value.end, text: value } : null
  }
  const { end } = openingElement.name
  return { start: end, end, text: ` ${name}=${value}` }
}

/**
 * The change of a URL that a source writes by hand: the text as a whole becomes an expression, in braces where it is an attribute;
 * inside a longer template, the expression stands in its place.
 */
export function changeOfUrl(file: string, source: string, edit: Edit): Change | null {
  const { line, column, instead: url = '', write } = edit
  if (line === null || column === undefined) return null
  const start = startOfLine(source, line) + column - 1
  // A longer path that only begins alike is another one.
  if (source.slice(start, start + url.length) !== url || /[\w/.-]/.test(source.charAt(start + url.length)))
    return null
  const whole = { start: start - 1, end: start + url.length + 1 }
  const isExpression = /\{\s*$/.test(source.slice(Math.max(0, whole.start - 20), whole.start))
  if (/\.(?:svelte|astro)$/.test(file) && isExpression && isQuoted(source, whole))
    return { ...whole, text: write }
  if (/\.(?:svelte|astro)$/.test(file) && !isInScript(source, start)) {
    if (file.endsWith('.svelte'))
      return { start, end: start + url.length, text: inTemplate(write).replace(/\$\{/g, '{') }
    return { ...whole, text: `{${write}}` }
  }
  if (/\.(?:svelte|astro|vue)$/.test(file))
    return isQuoted(source, whole) && isInScript(source, start) ? { ...whole, text: write } : null
  const tree = treeOf(file, source)
  const node = tree && nodeAt(tree, start)
  if (node?.type === 'TemplateElement') {
    const isAll =
      node.parent?.type === 'TemplateLiteral' && isQuoted(source, whole) && source.charAt(whole.start) === '`'
    return isAll ? { ...whole, text: write } : { start, end: start + url.length, text: inTemplate(write) }
  }
  if (node?.type !== 'Literal') return null
  if (node.end - node.start !== url.length + 2) return insideText(source, node, whole.start + 1, url, write)
  return { ...whole, text: node.parent?.type === 'JSXAttribute' ? `{${write}}` : write }
}

/** A text that holds the URL becomes a template: `'url(/a.svg)'` to `` `url(${base}a.svg)` ``. A text with what a template would read is left. */
function insideText(source: string, node: SyntaxNode, at: number, url: string, write: string): Change | null {
  const text = source.slice(node.start + 1, node.end - 1)
  const inside = at - node.start - 1
  // A longer URL that begins alike is another one.
  if (
    !/^(?:$|[)\s,'"{])/.test(text.slice(inside + url.length)) ||
    !/(?:^|[(\s,'"=])$/.test(text.slice(0, inside))
  )
    return null
  // Several URLs of one text would each make another template of it.
  if ((text.match(/(?:^|[\s,(])\.{0,2}\/\w/g) ?? []).length > 1) return null
  if (!isQuoted(source, node) || /[`\\]|\$\{|&\w+;/.test(text) || text.indexOf(url) !== text.lastIndexOf(url))
    return null
  const joined = `\`${text.slice(0, inside)}${inTemplate(write)}${text.slice(inside + url.length)}\``
  return {
    start: node.start,
    end: node.end,
    text: node.parent?.type === 'JSXAttribute' ? `{${joined}}` : joined,
  }
}

function isQuoted(source: string, { start, end }: { start: number; end: number }): boolean {
  return /["'`]/.test(source.charAt(start)) && source.charAt(start) === source.charAt(end - 1)
}

function isInScript(source: string, at: number): boolean {
  const before = source.slice(0, at)
  const isFence = source.startsWith('---') && source.indexOf('\n---', 3) > at
  return isFence || before.lastIndexOf('<script') > before.lastIndexOf('</script')
}

/** An expression inside a template: what it joins by itself, or a hole with it. */
function inTemplate(expression: string): string {
  return /^`.*`$/s.test(expression) ? expression.slice(1, -1) : `\${${expression}}`
}

/** The literal or object that begins at a place; without a column, the first literal or the object of the line. */
function nodeAtPlace(tree: Tree, source: string, line: number, column: number | null): SyntaxNode | null {
  const begins = startOfLine(source, line)
  const end = source.indexOf('\n', begins)
  const wanted = column === null ? null : begins + column - 1
  let found: SyntaxNode | null = null
  walkTree(tree.root as unknown as SyntaxNode, (node) => {
    // The place of a member is that of its name.
    const member = node.type === 'Property' && node.start === wanted ? withoutTypes(node.value) : null
    if (member && isValue(member)) found ??= member
    const isThere =
      wanted === null ? node.start >= begins && (end < 0 || node.start < end) : node.start === wanted
    if (isValue(node) && isThere) found ??= node
  })
  return found
}

function isValue({ type }: SyntaxNode): boolean {
  return /^(?:Literal|TemplateLiteral|ObjectExpression)$/.test(type)
}

/** The object that a configuration exports, through calls, functions and names. */
function exportedObject(tree: Tree): SyntaxNode | null {
  for (const statement of (tree.root as unknown as SyntaxNode & { type: 'Program' }).body) {
    if (statement.type === 'ExportDefaultDeclaration') return objectOf(statement.declaration, tree, 0)
    const assigned = statement.type === 'ExpressionStatement' ? statement.expression : null
    if (assigned?.type !== 'AssignmentExpression' || assigned.left.type !== 'MemberExpression') continue
    const { object, property } = assigned.left
    if (object.type === 'Identifier' && object.name === 'module' && property.type === 'Identifier')
      return objectOf(assigned.right, tree, 0)
  }
  return null
}

/** Deeper than configuration is wrapped. */
const deepest = 8

function objectOf(typed: SyntaxNode, tree: Tree, depth: number): SyntaxNode | null {
  const node = withoutTypes(typed)
  if (depth > deepest) return null
  const next = (each: SyntaxNode | null | undefined): SyntaxNode | null =>
    each ? objectOf(each, tree, depth + 1) : null
  switch (node.type) {
    case 'ObjectExpression':
      return node
    case 'CallExpression':
      return next(node.arguments[0] as SyntaxNode | undefined)
    case 'ArrowFunctionExpression':
    case 'FunctionExpression':
    case 'FunctionDeclaration':
      return node.body.type === 'BlockStatement' ? next(returned(node.body)) : next(node.body)
    case 'Identifier': {
      const holder = bindingOf(tree, node)?.declared[0]?.parent
      return holder?.type === 'VariableDeclarator' ? next(holder.init) : null
    }
    default:
      return null
  }
}

/** What a function returns, when it returns at one place of its own. */
function returned(body: SyntaxNode & { type: 'BlockStatement' }): SyntaxNode | null {
  const found = body.body.filter((statement) => statement.type === 'ReturnStatement')
  const [only] = found
  return found.length === 1 && only?.type === 'ReturnStatement' ? (only.argument ?? null) : null
}

function changeInObject(
  source: string,
  object: SyntaxNode & { type: 'ObjectExpression' },
  setting: Setting,
  depth = 0,
): Change | null {
  const name = setting.path[depth]
  const member = object.properties.find((each) => each.type === 'Property' && keyName(each) === name)
  if (member?.type !== 'Property') return insertion(source, object, writtenBelow(setting, depth))
  const value = withoutTypes(member.value)
  if (depth === setting.path.length - 1) return { start: value.start, end: value.end, text: setting.value }
  return value.type === 'ObjectExpression' ? changeInObject(source, value, setting, depth + 1) : null
}

/** A new member: the first of its object, before the comments of the next, unless a spread would replace it. */
function insertion(source: string, object: SyntaxNode & { type: 'ObjectExpression' }, text: string): Change {
  const { properties } = object
  const [first] = properties
  const start = object.start + 1
  if (!first) return { start, end: object.end - 1, text: ` ${text} ` }
  const last = properties.at(-1) ?? first
  const isLines = source.slice(start, first.start).includes('\n')
  const indent = source.slice(source.lastIndexOf('\n', first.start - 1) + 1, first.start)
  if (!properties.some(({ type }) => type === 'SpreadElement'))
    return isLines
      ? { start, end: start, text: `\n${indent}${text},` }
      : { start: first.start, end: first.start, text: `${text}, ` }
  const comma = /^\s*,/.exec(source.slice(last.end))?.[0].length ?? 0
  const at = last.end + comma
  const between = isLines ? `\n${indent}` : ' '
  return {
    start: at,
    end: at,
    text: `${comma > 0 ? '' : ','}${between}${text}${comma > 0 && isLines ? ',' : ''}`,
  }
}

/** The same with the quotes that the file uses. */
function inQuotesOf(source: string, write: string): string {
  const isDouble = source.split('"').length > source.split("'").length
  return isDouble ? write.replace(/'([^'"]*)'/g, '"$1"') : write
}
