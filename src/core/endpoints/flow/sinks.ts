import { own } from '../../model/own.ts'
import { type Call, isCall, memberName, type SyntaxNode, textOf } from '../../syntax/node.ts'
import { bindingOf, type Tree, usesOf } from '../../syntax/tree.ts'
import { platform, platformName } from './platform.ts'

/** What a URL is passed to. All but `message target` and `configuration` make the browser request it. */
export type Sink =
  | 'fetch'
  | 'XMLHttpRequest'
  | 'WebSocket'
  | 'EventSource'
  | 'beacon'
  | 'worker'
  | 'import'
  | 'client'
  | 'element'
  | 'form'
  | 'navigation'
  | 'URL'
  | 'message target'
  | 'configuration'

/** Methods by which clients ask. */
const clientMethod = /^(?:get|post|put|patch|delete|head|options|request|ajax|getJSON|json)$/
/** Methods and functions that make a client, or connect one, from its address alone. */
const connecting = /^(?:io|connect|createClient|createConnection|client)$/

/** Methods of what connects that are named for the address it gets: `builder.withUrl(url)`. */
export const givingAddress = /^(?:with|set)(?:Base|Api|Server|Service)?(?:Ur[li]|Endpoint|Host)$/

/** Functions of packages that ask, or make what does, of the address that they are given first. */
const asking =
  /^(?:io|connect|client|axios|ky|got|o?fetch|superagent|request|socket\.io-client|(?:connect|create|use|open|init)\w*(?:Client|Socket|Fetch|Fetcher|SWR|swr|Emulator|Connection|Link|Api))$/

const httpMethod = /^(?:GET|POST|PUT|PATCH|DELETE|HEAD|OPTIONS)$/i

/** Keys that give a client its address. */
const addressKey =
  /^(?:base_?ur[li]|ur[li]|ur[li]s|endpoints?|host(?:name)?|servers?|brokers?|authority|issuer|(?:\w+_?)?(?:api|server|base|root|socket|ws|graphql|auth|backend|service|data|http)_?(?:ur[li]|endpoint|host|root|base|origin|address)|\w+_(?:api|ur[li]|host|endpoint)|\w+Ur[li]|api)$/i

/** Attributes of elements that the browser loads or sends to. */
const attribute: Readonly<Record<string, Sink>> = {
  src: 'element',
  srcset: 'element',
  poster: 'element',
  data: 'element',
  action: 'form',
  formaction: 'form',
  formAction: 'form',
}

const shownAttribute = /^(?:src|srcset|poster)$/

/** What only tells, never asks. */
const telling = /^(?:log|warn|error|info|debug|trace|assert|invariant|warning|deprecate\w*)$/
const errorName = /(?:Error|Exception)$/

/** Methods that request from a text what it holds. */
const comparing =
  /^(?:startsWith|endsWith|includes|indexOf|lastIndexOf|match|matchAll|test|search|has|equals|localeCompare|split)$/
/** Methods of a text whose result is still that text, or holds it. */
const keeping =
  /^(?:\d+|at|join|concat|replace|replaceAll|trim|trimEnd|trimStart|toString|valueOf|toLowerCase|slice|substring|substr|padEnd|normalize|toJSON|href|origin)$/

/** What becomes of an argument. */
export type Argument =
  | { readonly is: 'sink'; readonly sink: Sink }
  | { readonly is: 'kept' | 'base' | 'reported' | 'compared' | 'passed on' }

/** The last name of what is called: `fetch` of `window.fetch`, of `(0, x.fetch)` too. */
export function calledName(call: Call): string | null {
  let callee: SyntaxNode = call.callee
  if (callee.type === 'SequenceExpression') callee = callee.expressions.at(-1) ?? callee
  return callee.type === 'Identifier' ? callee.name : memberName(callee)
}

/** What a call does with a URL it is given. */
export function ofArgument(tree: Tree, call: Call, index: number): Argument {
  const name = calledName(call)
  const callee = call.callee
  const packaged = packagedName(tree, callee)
  if (packaged !== null && index === 0) {
    if (call.type === 'NewExpression' || asking.test(packaged) || isAsked(tree, call)) return client
  }
  // `set(node, "src", url)`, however the function is called.
  if (index === 2 && shownAttribute.test(textOf(call.arguments[1]) ?? ''))
    return { is: 'sink', sink: 'element' }
  const isOwn = bindingOf(tree, callee) !== null
  const ofBrowser = own(platform, (isOwn || name === null ? platformName(tree, callee) : null) ?? '')
  if (ofBrowser?.[1] === index) return { is: 'sink', sink: ofBrowser[0] }
  if (name === null || isOwn) return { is: 'passed on' }
  const known = own(platform, name)
  if (known?.[1] === index) return { is: 'sink', sink: known[0] }
  if (name === 'URL') return { is: index === 0 ? 'kept' : 'base' }
  if (/^(?:String|encodeURI|decodeURI|Object|freeze|resolve)$/.test(name)) return { is: 'kept' }
  if (errorName.test(name) || (telling.test(name) && callee.type === 'MemberExpression'))
    return { is: 'reported' }
  if (callee.type !== 'MemberExpression') return connecting.test(name) ? client : { is: 'passed on' }
  if (name === 'concat' || name === 'replace')
    return { is: name === 'concat' || index === 1 ? 'kept' : 'compared' }
  if (comparing.test(name)) return { is: 'compared' }
  return ofMethod(tree, call, name, index)
}

/** Links of a chain of calls that are looked at. */
const longestChain = 8

/** Whether what a call makes is asked like a client: `make(url).options(…).get("/tides")`, by itself or by the name that keeps it. */
function isAsked(tree: Tree, call: Call): boolean {
  let made: SyntaxNode = call
  for (let links = 0; links < longestChain; links++) {
    const parent: SyntaxNode | undefined = made.parent
    if (parent?.type === 'VariableDeclarator' && parent.init === made) {
      const binding = bindingOf(tree, parent.id as SyntaxNode)
      return binding !== null && usesOf(tree, binding).some((use) => askedBy(use) !== null)
    }
    const next: SyntaxNode | null | undefined =
      parent?.type === 'MemberExpression' && parent.object === made ? parent.parent : null
    if (!next || !isCall(next) || next.callee !== parent) return false
    if (askedBy(made) !== null) return true
    made = next
  }
  return false
}

/** The method of a client that is called on a value. */
function askedBy({ parent }: SyntaxNode): string | null {
  const name = parent ? memberName(parent) : null
  const call = parent?.parent
  // What a store holds is got by no name.
  const isCalled = call && isCall(call) && call.callee === parent && call.arguments.length > 0
  return isCalled && name !== null && clientMethod.test(name) ? name : null
}

/** What a function that a module imports from a package is called there: only sources, and what no bundler made, say so. */
export function packagedName(tree: Tree, callee: SyntaxNode): string | null {
  const imported = callee.type === 'Identifier' ? tree.imported.get(callee.name) : undefined
  if (!imported || /^(?:[./~#]|@\/|\w+:)/.test(imported.from)) return null
  return imported.name === 'default' ? nameOfPackage(imported.from) : imported.name
}

function nameOfPackage(from: string): string {
  return from.slice(from.lastIndexOf('/') + 1)
}

const client: Argument = { is: 'sink', sink: 'client' }

function ofMethod(tree: Tree, call: Call, name: string, index: number): Argument {
  const first = textOf(call.arguments[0])
  if (name === 'open' && index === 1 && (first === null || httpMethod.test(first)))
    return { is: 'sink', sink: 'XMLHttpRequest' }
  if (name === 'open' && index === 0) return { is: 'sink', sink: 'navigation' }
  if (name === 'setAttribute' && index === 1) {
    const sink = own(attribute, first ?? '')
    return sink ? { is: 'sink', sink } : { is: 'passed on' }
  }
  if (/^(?:assign|replace)$/.test(name) && isLocation(call.callee)) return { is: 'sink', sink: 'navigation' }
  if (index !== 0 || (!clientMethod.test(name) && !connecting.test(name))) return { is: 'passed on' }
  return isKeeper(tree, call.callee) ? { is: 'compared' } : client
}

/** Methods and classes of what keeps values by their keys, and asks for none of them. */
const keeperMethod = /^(?:set|has|add|clear|entries)$/
const keeperClass = /^(?:Map|WeakMap|Set|WeakSet|URLSearchParams|Headers|FormData)$/

/** Whether a method is that of a name which keeps values: `let a = cache.get(url)`, beside `cache.set(url, …)`. */
function isKeeper(tree: Tree, callee: SyntaxNode): boolean {
  const binding = callee.type === 'MemberExpression' ? bindingOf(tree, callee.object as SyntaxNode) : null
  if (!binding) return false
  const [declared] = binding.declared
  const holder = declared?.parent
  const made = holder?.type === 'VariableDeclarator' ? holder.init : null
  if (made?.type === 'NewExpression' && keeperClass.test(calledName(made) ?? '')) return true
  return usesOf(tree, binding).some(({ parent }) => {
    const isCalled = parent?.parent && isCall(parent.parent) && parent.parent.callee === parent
    return isCalled && keeperMethod.test(memberName(parent) ?? '')
  })
}

/** What a member of a text is good for: still the text, only a look at it, or a part that is no address any more. */
export function ofMember(name: string | null): 'kept' | 'compared' | 'part' {
  if (name !== null && keeping.test(name)) return 'kept'
  return name !== null && comparing.test(name) ? 'compared' : 'part'
}

/** Functions of packages that make what carries requests; others may keep what they are given. */
const carrying = /(?:Client|Socket|Fetch|Fetcher|Connection|Link|Api|Transport|Request|Query|Rpc|Channel)$/i

/** Keys that nothing but a client's base is named by. */
const baseKey = /^(?:base_?ur[li]|prefixUrl)$/i

/** Whether a key names the base of a client, whoever takes it. */
export function isBaseKey(key: string): boolean {
  return baseKey.test(key)
}

/** What makes an element of a tag or a component: `jsx("img",{…})`, `createElement(Map,{…})`. */
const elementFactory =
  /^(?:jsxs?|jsxDEV|jsxsDEV|_?jsxs?|createElement|h|createVNode|createElementVNode|createBlock|createElementBlock)$/

/**
 * What it means to give a call an object that holds the URL under a key. A property that is named like an address proves
 * nothing by itself: whoever takes it may show it, or compare with it.
 */
export function ofSetting(
  tree: Tree,
  call: Call,
  index: number,
  path: readonly string[],
): Sink | 'reported' | null {
  const name = calledName(call)
  const key = path.at(-1) ?? ''
  if (name !== null && (errorName.test(name) || telling.test(name))) return 'reported'
  const tag = textOf(call.arguments[0])
  if (index === 1 && tag !== null && path.length === 1 && /^[a-z]+$/.test(tag)) return attribute[key] ?? null
  if (index === 1 && ((tag !== null && /^[\w-]*$/.test(tag)) || (name !== null && elementFactory.test(name))))
    return null
  if (baseKey.test(key)) return 'client'
  const packaged = index === 0 && path.length === 1 ? packagedName(tree, call.callee) : null
  const isPackaged = packaged !== null && carrying.test(packaged)
  return addressKey.test(key) && (isPackaged || makesClient(tree, call, name, path)) ? 'client' : null
}

/** Whether a call is one that connects, or makes an object that may: `new Link({ uri })`, `n.create({ api: { host } })`. */
function makesClient(tree: Tree, call: Call, name: string | null, path: readonly string[]): boolean {
  if (call.type === 'NewExpression') return path.length === 1
  return (
    name !== null &&
    (connecting.test(name) ||
      (clientMethod.test(name) && path.length === 1 && !isKeeper(tree, call.callee)) ||
      /^(?:create|init|configure|setup)$/.test(name))
  )
}

/** What it means to give an object this member. */
export function ofAssignment(target: SyntaxNode): Sink | null {
  if (target.type === 'Identifier') return target.name === 'location' ? 'navigation' : null
  const name = memberName(target)
  if (name === null || target.type !== 'MemberExpression') return null
  const object = target.object
  if (name === 'location' || (name === 'href' && isLocation(target))) return 'navigation'
  if (memberName(object) === 'defaults' && addressKey.test(name)) return 'client'
  // Much has data that is no element.
  return object.type === 'ThisExpression' || name === 'data' ? null : (own(attribute, name) ?? null)
}

/** Whether a key says that its value is the address of a service. */
export function isAddressKey(key: string): boolean {
  return addressKey.test(key)
}

function isLocation(member: SyntaxNode): boolean {
  if (member.type !== 'MemberExpression') return false
  const object = member.object
  return (object.type === 'Identifier' ? object.name : memberName(object)) === 'location'
}
