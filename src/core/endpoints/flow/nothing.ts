import type { SyntaxNode } from '../../syntax/node.ts'

/** Whether an argument is left out, or given as undefined. */
export function isUndefined(argument: SyntaxNode | undefined): boolean {
  if (argument === undefined) return true
  if (argument.type === 'UnaryExpression') return argument.operator === 'void'
  return argument.type === 'Identifier' && argument.name === 'undefined'
}

/** What a visitor's browser keeps before the first visit, and what an address without a query says. */
const nothingYet =
  /^(?:(?:window|self|globalThis)\.)?(?:local|session)Storage(?:\.getItem\(|\.(?!getItem)\w+$|\[)|^new URLSearchParams\([^()]{0,80}\)\.get\(["'`][^"'`]{0,80}["'`]\)$/

/** A left side that a production build never gives a value, or a visitor who comes for the first time. */
export function isNothing(text: string): boolean {
  const entry = /^[\w$.]{1,80}\[(.{1,120})\]$/s.exec(text)?.[1]
  if (entry !== undefined && isNothing(entry)) return true
  return (
    nothingYet.test(text) ||
    /^(?:void 0|undefined|null|""|''|``|!1|false|\(?\{\}\)?\.\w+|(?:import\.meta|process|\w+(?:\.\w+)*)\.env\??\.\w+)$/.test(
      text,
    )
  )
}
