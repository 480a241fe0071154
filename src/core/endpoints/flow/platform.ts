import { own } from '../../model/own.ts'
import { isCall, memberName, type SyntaxNode } from '../../syntax/node.ts'
import { bindingOf, type Tree } from '../../syntax/tree.ts'
import type { Sink } from './sinks.ts'

/** Functions and classes of the browser that request what they are given, with the place of the URL among their arguments. */
export const platform: Readonly<Record<string, readonly [Sink, number]>> = {
  fetch: ['fetch', 0],
  $fetch: ['fetch', 0],
  Request: ['fetch', 0],
  WebSocket: ['WebSocket', 0],
  EventSource: ['EventSource', 0],
  Audio: ['element', 0],
  Worker: ['worker', 0],
  SharedWorker: ['worker', 0],
  importScripts: ['worker', 0],
  addModule: ['worker', 0],
  sendBeacon: ['beacon', 0],
  postMessage: ['message target', 1],
}

/** Steps from a name to what it stands for. */
const mostSteps = 6

/**
 * The function of the browser that an expression is, or stands in with where nobody gives another one:
 * `(options.fetch ?? fetch)`, `const { fetch: f = globalThis.fetch } = options`. Null for all others.
 */
export function platformName(tree: Tree, node: SyntaxNode, steps = mostSteps): string | null {
  if (steps === 0) return null
  const of = (each: SyntaxNode | null | undefined): string | null =>
    each ? platformName(tree, each, steps - 1) : null
  switch (node.type) {
    case 'Identifier':
      return bindingOf(tree, node) ? of(standingIn(tree, node)) : known(node.name)
    case 'MemberExpression':
      return isGlobal(tree, node.object as SyntaxNode) ? known(memberName(node)) : null
    case 'LogicalExpression':
      return of(node.right) ?? of(node.left)
    case 'ConditionalExpression':
      return of(node.consequent) ?? of(node.alternate)
    case 'SequenceExpression':
      return of(node.expressions.at(-1))
    case 'CallExpression': {
      const { callee } = node
      return memberName(callee) === 'bind' && callee.type === 'MemberExpression' && isCall(node)
        ? of(callee.object as SyntaxNode)
        : null
    }
    default:
      return null
  }
}

/** What a name is declared with: its only value, or its default. */
function standingIn(tree: Tree, name: SyntaxNode): SyntaxNode | null {
  const declared = bindingOf(tree, name)?.declared ?? []
  const [first] = declared
  const holder = first?.parent
  if (!holder || declared.length !== 1) return null
  if (holder.type === 'VariableDeclarator' && holder.id === first) return holder.init ?? null
  return holder.type === 'AssignmentPattern' && holder.left === first ? holder.right : null
}

function known(name: string | null): string | null {
  return name !== null && own(platform, name) ? name : null
}

function isGlobal(tree: Tree, node: SyntaxNode): boolean {
  return (
    node.type === 'Identifier' &&
    /^(?:window|self|globalThis|global)$/.test(node.name) &&
    bindingOf(tree, node) === null
  )
}
