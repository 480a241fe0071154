import { keyName, type SyntaxNode } from '../syntax/node.ts'
import { parseSource } from '../syntax/parse.ts'

/** A setting as a path of names and the code of its value: `app: { baseURL: '/b/' },` is `['app', 'baseURL']`, `'/b/'`. */
export interface Setting {
  readonly path: readonly string[]
  readonly value: string
}

/** Reads the text of one member of an object; null when it is none. */
export function settingOf(write: string): Setting | null {
  const code = `({${write.trim().replace(/,$/, '')}})`
  let node = expressionOf(code)
  const path: string[] = []
  while (node?.type === 'ObjectExpression' && node.properties.length === 1) {
    const property = node.properties[0] as SyntaxNode
    const name = keyName(property)
    if (name === null || property.type !== 'Property') return null
    path.push(name)
    node = property.value
  }
  return node && path.length > 0 ? { path, value: code.slice(node.start, node.end) } : null
}

function expressionOf(code: string): SyntaxNode | null {
  try {
    const [statement] = parseSource('setting.js', code, true).body
    return statement?.type === 'ExpressionStatement' ? statement.expression : null
  } catch {
    return null
  }
}

/** The text of a setting again, below the first names of its path: `baseURL: '/b/'` within `app`. */
export function writtenBelow({ path, value }: Setting, depth: number): string {
  const [last = '', ...outer] = path.slice(depth).reverse()
  return outer.reduce((inner, name) => `${name}: { ${inner} }`, `${last}: ${value}`)
}
