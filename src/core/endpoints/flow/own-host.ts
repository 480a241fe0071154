import { isFunction, type SyntaxNode } from '../../syntax/node.ts'

/** The code of a node, as far as it matters for a look. */
export function beginningOf(code: string, node: SyntaxNode): string {
  return code.slice(node.start, Math.min(node.end, node.start + 400))
}

/** Whether a place is only reached where the page's own host is a developer's. */
export function isGuarded(code: string, at: SyntaxNode): boolean {
  for (let node = at; node.parent; node = node.parent) {
    const { parent } = node
    const test =
      parent.type === 'IfStatement' || parent.type === 'ConditionalExpression'
        ? parent.test
        : parent.type === 'LogicalExpression' && parent.operator === '&&'
          ? parent.left
          : null
    if (test && test !== node && asksForDevelopment(code, test)) return true
  }
  return false
}

/** A flag that a running program asks for: `this.devMode`, `isDev`, `__DEV__`. A build's own constant has been folded away. */
const developmentFlag = /\b_*(?:is)?dev(?:_?mode|elopment|_?env)?_*\b/i

/** Whether a test asks for development: by a flag, or by the page's own host. */
export function asksForDevelopment(code: string, test: SyntaxNode): boolean {
  return asksForOwnHost(code, test) || developmentFlag.test(beginningOf(code, test))
}

/** Whether a test asks if the page's own host is a developer's. */
export function asksForOwnHost(code: string, test: SyntaxNode): boolean {
  const text = beginningOf(code, test)
  return (
    /\bhost(?:name)?\b|\borigin\b|\blocation\b/.test(text) &&
    /localhost|127\\?\.|\.test\(|\.match\(/.test(text)
  )
}

const ownAddress =
  /\blocation\b|\bbaseURI\b|import\.meta\.url|currentScript|\b(?:window|self|globalThis)\??\.origin\b|\bdocument\??\.URL\b/

/** Whether code names the page's own address, or its script's. */
export function namesOwnAddress(code: string, node: SyntaxNode): boolean {
  return ownAddress.test(beginningOf(code, node))
}

/**
 * Whether a value stands where the page's own address is not to be had: `typeof window<"u"?window.origin:"http://localhost"`,
 * also as statements that assign the one or the other.
 */
export function isAfterOwnAddress(code: string, at: SyntaxNode): boolean {
  for (let node = at; node.parent && !isFunction(node); node = node.parent) {
    const { parent } = node
    if (parent.type !== 'ConditionalExpression' && parent.type !== 'IfStatement') continue
    const other = parent.consequent === node ? parent.alternate : parent.consequent
    if (parent.test !== node && other && namesOwnAddress(code, other)) return true
  }
  return false
}
