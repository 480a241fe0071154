import type { Expression, ObjectExpression, Property } from 'acorn'
import type { RequestSettings } from '../../model/facts.ts'
import { expressionAt } from './parse-piece.ts'

/** How far the settings of a call may reach; a larger object is no longer written in the call. */
const longest = 2_000

/** The settings that follow a URL in a call: `fetch("…", { method: "POST", … })`; null when there are none to see. */
export function requestSettings(code: string, afterUrl: number): RequestSettings | null {
  const comma = /^["'`]\s*,\s*(?=\{)/.exec(code.slice(afterUrl, afterUrl + 16))
  const found = comma && expressionAt(code, afterUrl + comma[0].length, longest)
  if (found?.type !== 'ObjectExpression') return null
  const headers = givenTo(found, 'headers')
  return {
    method: textOf(givenTo(found, 'method')) ?? 'GET',
    headers: headers?.type === 'ObjectExpression' ? headersOf(headers) : [],
    credentials: textOf(givenTo(found, 'credentials')) === 'include',
  }
}

function headersOf(object: ObjectExpression): [string, string][] {
  return object.properties.flatMap((each): [string, string][] => {
    const name = each.type === 'Property' ? keyOf(each) : null
    // A value that only the running code knows is taken for a short one.
    return each.type === 'Property' && name !== null ? [[name, textOf(each.value) ?? 'x']] : []
  })
}

function givenTo(object: ObjectExpression, key: string): Expression | null {
  const property = object.properties.find((each) => each.type === 'Property' && keyOf(each) === key)
  return property?.type === 'Property' ? property.value : null
}

function keyOf({ key, computed }: Property): string | null {
  if (key.type === 'Identifier' && !computed) return key.name
  return key.type === 'Literal' ? String(key.value) : null
}

function textOf(node: Expression | null): string | null {
  if (node?.type === 'Literal' && typeof node.value === 'string') return node.value
  const plain = node?.type === 'TemplateLiteral' && node.expressions.length === 0
  return plain ? (node.quasis[0]?.value.cooked ?? null) : null
}
