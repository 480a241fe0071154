import { isFunction, memberName, type SyntaxNode } from '../../syntax/node.ts'
import { bindingOf, type Tree, usesOf } from '../../syntax/tree.ts'
import type { ForHost } from './outcome.ts'

/** The code of a node, as far as it matters for a look. */
export function beginningOf(code: string, node: SyntaxNode): string {
  return code.slice(node.start, Math.min(node.end, node.start + 400))
}

/** What a name was given where it was declared, when nothing else is ever given to it. */
export function initialOf(tree: Tree, node: SyntaxNode): SyntaxNode {
  const binding = node.type === 'Identifier' ? bindingOf(tree, node) : null
  const [declared] = binding?.declared ?? []
  const holder = declared?.parent
  if (binding?.declared.length !== 1 || holder?.type !== 'VariableDeclarator') return node
  const isGivenAgain = usesOf(tree, binding).some(
    (use) => use.parent?.type === 'AssignmentExpression' && use.parent.left === use,
  )
  return holder.init && holder.id === declared && !isGivenAgain ? holder.init : node
}

/** A test that a name was given, denied or not, is the test of whoever asks for the name. */
export function testOf(
  tree: Tree,
  test: SyntaxNode,
  otherwise: boolean,
): { readonly test: SyntaxNode; readonly otherwise: boolean } {
  const isDenied = test.type === 'UnaryExpression' && test.operator === '!'
  const name = isDenied ? (test.argument as SyntaxNode) : test
  const given = initialOf(tree, name)
  return given === name ? { test, otherwise } : { test: given, otherwise: isDenied !== otherwise }
}

/** Whether a place is only reached where the page's own host is a developer's. */
export function isGuarded(code: string, tree: Tree, at: SyntaxNode): boolean {
  for (let node = at; node.parent; node = node.parent) {
    const { parent } = node
    const test =
      parent.type === 'IfStatement' || parent.type === 'ConditionalExpression'
        ? parent.test
        : parent.type === 'LogicalExpression' && parent.operator === '&&'
          ? parent.left
          : null
    if (test && test !== node) {
      const asked = testOf(tree, test as SyntaxNode, isOtherwise(parent, node))
      if (asksForDevelopment(code, asked.test, asked.otherwise)) return true
    }
    if (parent.type === 'SwitchCase' && parent.test !== node && isCaseOfDevelopment(code, parent)) return true
  }
  return false
}

/** `switch (location.hostname) { case "localhost": … }`, `switch (mode) { case "development": … }`. */
function isCaseOfDevelopment(code: string, { test, parent }: SyntaxNode & { type: 'SwitchCase' }): boolean {
  const asked = parent?.type === 'SwitchStatement' ? beginningOf(code, parent.discriminant) : ''
  const text = test ? beginningOf(code, test) : ''
  return (
    /^["'`](?:dev|development|local)["'`]$/.test(text) ||
    (/\b(?:host(?:name)?|origin|location)\b/.test(asked) && /localhost|["'`/]127\.|0\.0\.0\.0/.test(text))
  )
}

/** A flag that a running program asks for: `this.devMode`, `isDev`, `__DEV__`. A build's own constant has been folded away. */
const developmentFlag = /\b_*(?:is)?dev(?:_?mode|elopment|_?env)?_*\b/i

/** The same for production, as sources ask before a build folds it away: `mode === "production"`, `import.meta.env.PROD`. */
const productionFlag = /["'`]production["'`]|\b_*(?:is)?prod(?:uction)?_*\b/i

/** The page's own port compared with one that is written out, as a development server has. */
const ownPort = /\blocation\.port\s*([!=]==?)\s*["'`]\d{2,5}["'`]/

/** A test for a page that has a host at all: one that is opened from a disk has none. */
const anyHost = /^\(?(!?)(?:(?:window|self|globalThis|document)\??\.)?location\??\.host(?:name)?\)?$/

/** A test for a page that is opened from a disk. */
const fromDisk =
  /\blocation\??\.protocol\s*([!=]==?)\s*["'`]file:["'`]|["'`]file:["'`]\s*([!=]==?)\s*[\w$.?]*\blocation\??\.protocol\b/

/** Whether a branch is for a page that was opened from a disk, and so for no page of a site. */
function isOffSite(text: string, otherwise: boolean): boolean {
  const host = anyHost.exec(text)?.[1]
  if (host !== undefined) return (host === '') === otherwise
  const [, first, second] = fromDisk.exec(text) ?? []
  const operator = first ?? second
  return operator !== undefined && operator.startsWith('!') === otherwise
}

/** Whether a node is what a choice comes to when its test fails. */
export function isOtherwise(parent: SyntaxNode, node: SyntaxNode): boolean {
  return 'alternate' in parent && parent.alternate === node
}

/**
 * Whether a branch is for development alone, by the page's own host or by a flag. A flag guards what it is set for:
 * `dev ? "https://…" : "http://localhost"` is for visitors on its other side.
 */
export function asksForDevelopment(code: string, test: SyntaxNode, otherwise: boolean): boolean {
  if (asksForOwnHost(code, test)) return true
  const text = beginningOf(code, test)
  if (isOffSite(text, otherwise)) return true
  const operator = ownPort.exec(text)?.[1]
  if (operator !== undefined) return operator.startsWith('!') === otherwise
  const isDenied = /^!|!==?/.test(text)
  if (productionFlag.test(text)) return isDenied !== otherwise
  return developmentFlag.test(text) && isDenied === otherwise
}

/** Whether a test asks if the page's own host is a developer's. */
export function asksForOwnHost(code: string, test: SyntaxNode): boolean {
  const text = beginningOf(code, test)
  // What is for a page that came by plain http is for no page of an https site.
  if (/\bprotocol\b/.test(text) && /["'`]https?:?["'`]/.test(text)) return true
  return (
    /\bhost(?:name)?\b|\borigin\b|\blocation\b/.test(text) &&
    /localhost|127\\?\.|\.test\(|\.match\(/.test(text)
  )
}

/** The page's own host beside a name: `location.hostname === "skerryline.example"`, `location.host.endsWith("…")`. */
const comparedHost =
  /\blocation\??\.(?:host(?:name)?|origin|href)\s{0,3}(?:([!=]==?)\s{0,3}|\??\.(?:endsWith|startsWith|includes)\()["'`](?:https?:\/\/)?([\w.:-]{3,253})["'`]/
const hostCompared =
  /["'`](?:https?:\/\/)?([\w.:-]{3,253})["'`]\s{0,3}([!=]==?)\s{0,3}(?:\w+\.)?location\??\.(?:host(?:name)?|origin)\b/

/** The host that a test asks for, and whether a branch is for its pages; null where the test is another, or of several. */
export function hostOfBranch(code: string, test: SyntaxNode, otherwise: boolean): ForHost | null {
  const text = beginningOf(code, test)
  if (/\|\||&&/.test(text)) return null
  const [, operator = '', name] = comparedHost.exec(text) ?? []
  const [, turned, second = ''] = hostCompared.exec(text) ?? []
  const found = name ?? turned
  if (found === undefined) return null
  const isDenied = text.startsWith('!') || (operator || second).startsWith('!')
  return { name: found, isFor: isDenied === otherwise }
}

const ownAddress =
  /\blocation\b|\bbaseURI\b|import\.meta\.url|currentScript|\b(?:window|self|globalThis)\??\.origin\b|\bdocument\??\.URL\b/

/** Whether code names the page's own address, or its script's. */
export function namesOwnAddress(code: string, node: SyntaxNode): boolean {
  return ownAddress.test(beginningOf(code, node))
}

/**
 * Whether a value stands where the page's own address is not to be had: `typeof window<"u"?window.origin:"http://localhost"`,
 * also as statements that assign the one or the other. A branch that only goes elsewhere, `location.assign(x)`, is no address.
 */
export function isAfterOwnAddress(code: string, at: SyntaxNode): boolean {
  for (let node = at; node.parent && !isFunction(node); node = node.parent) {
    const { parent } = node
    if (parent.type !== 'ConditionalExpression' && parent.type !== 'IfStatement') continue
    if (parent.test === node) continue
    const own = branchValue(node)
    const other = branchValue(parent.consequent === node ? parent.alternate : parent.consequent)
    if (own && other && other.type !== 'CallExpression' && namesOwnAddress(code, other)) return true
  }
  return false
}

/** What a branch gives: itself, or what it assigns to a name or a member of `this`, when that is all it does. */
function branchValue(branch: SyntaxNode | null | undefined): SyntaxNode | null {
  if (!branch) return null
  if (branch.type === 'BlockStatement') return branch.body.length === 1 ? branchValue(branch.body[0]) : null
  if (branch.type === 'ExpressionStatement')
    return branch.expression.type === 'AssignmentExpression' ? branchValue(branch.expression) : null
  if (branch.type !== 'AssignmentExpression') return branch.type.endsWith('Statement') ? null : branch
  return namesLocation(branch.left) ? null : branch.right
}

function namesLocation(target: SyntaxNode): boolean {
  if (target.type === 'Identifier') return target.name === 'location'
  return (
    target.type === 'MemberExpression' && (memberName(target) === 'location' || namesLocation(target.object))
  )
}
