import { own } from '../../model/own.ts'
import { type Call, memberName, type SyntaxNode, textOf } from '../../syntax/node.ts'
import { bindingOf, type Tree } from '../../syntax/tree.ts'

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

/** Functions and classes of the browser that request what they are given, with the place of the URL among their arguments. */
const platform: Readonly<Record<string, readonly [Sink, number]>> = {
  fetch: ['fetch', 0],
  $fetch: ['fetch', 0],
  Request: ['fetch', 0],
  WebSocket: ['WebSocket', 0],
  EventSource: ['EventSource', 0],
  Worker: ['worker', 0],
  SharedWorker: ['worker', 0],
  importScripts: ['worker', 0],
  addModule: ['worker', 0],
  sendBeacon: ['beacon', 0],
  postMessage: ['message target', 1],
}

/** Methods by which clients ask. */
const clientMethod = /^(?:get|post|put|patch|delete|head|options|request|ajax|getJSON|json)$/
/** Methods and functions that make a client, or connect one, from its address alone. */
const connecting = /^(?:io|connect|createClient|createConnection|client)$/

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
    if (call.type === 'NewExpression' || asking.test(packaged)) return client
  }
  const isOwn = bindingOf(tree, callee) !== null
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
  return ofMethod(call, name, index)
}

/** What a function that a module imports from a package is called there: only sources, and what no bundler made, say so. */
function packagedName(tree: Tree, callee: SyntaxNode): string | null {
  const imported = callee.type === 'Identifier' ? tree.imported.get(callee.name) : undefined
  if (!imported || /^(?:[./~#]|@\/|\w+:)/.test(imported.from)) return null
  return imported.name === 'default' ? nameOfPackage(imported.from) : imported.name
}

function nameOfPackage(from: string): string {
  return from.slice(from.lastIndexOf('/') + 1)
}

const client: Argument = { is: 'sink', sink: 'client' }

function ofMethod(call: Call, name: string, index: number): Argument {
  const first = textOf(call.arguments[0])
  if (name === 'open' && index === 1 && (first === null || httpMethod.test(first)))
    return { is: 'sink', sink: 'XMLHttpRequest' }
  if (name === 'open' && index === 0) return { is: 'sink', sink: 'navigation' }
  if (name === 'setAttribute' && index === 1) {
    const sink = own(attribute, first ?? '')
    return sink ? { is: 'sink', sink } : { is: 'passed on' }
  }
  if (/^(?:assign|replace)$/.test(name) && isLocation(call.callee)) return { is: 'sink', sink: 'navigation' }
  return index === 0 && (clientMethod.test(name) || connecting.test(name)) ? client : { is: 'passed on' }
}

/** What a member of a text is good for: still the text, only a look at it, or a part that is no address any more. */
export function ofMember(name: string | null): 'kept' | 'compared' | 'part' {
  if (name !== null && keeping.test(name)) return 'kept'
  return name !== null && comparing.test(name) ? 'compared' : 'part'
}

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
export function ofSetting(call: Call, index: number, path: readonly string[]): Sink | 'reported' | null {
  const name = calledName(call)
  const key = path.at(-1) ?? ''
  if (name !== null && (errorName.test(name) || telling.test(name))) return 'reported'
  const tag = textOf(call.arguments[0])
  if (index === 1 && tag !== null && path.length === 1 && /^[a-z]+$/.test(tag)) return attribute[key] ?? null
  if (index === 1 && ((tag !== null && /^[\w-]*$/.test(tag)) || (name !== null && elementFactory.test(name))))
    return null
  if (baseKey.test(key)) return 'client'
  return addressKey.test(key) && makesClient(call, name, path) ? 'client' : null
}

/** Whether a call is one that connects, or makes an object that may: `new Link({ uri })`, `n.create({ api: { host } })`. */
function makesClient(call: Call, name: string | null, path: readonly string[]): boolean {
  if (call.type === 'NewExpression') return path.length === 1
  return (
    name !== null &&
    (connecting.test(name) || clientMethod.test(name) || /^(?:create|init|configure|setup)$/.test(name))
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
  return object.type === 'ThisExpression' ? null : (own(attribute, name) ?? null)
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
