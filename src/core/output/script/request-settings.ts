import type { ObjectExpression } from 'acorn'
import type { RequestSettings } from '../../model/facts.ts'
import { keyName, propertyOf, textOf } from '../../syntax/node.ts'
import { expressionAt } from '../../syntax/parse.ts'

/** How far the settings of a call may reach; a larger object is no longer written in the call. */
const longest = 2_000

/** The settings that follow a URL in a call: `fetch("…", { method: "POST", … })`; null when there are none to see. */
export function requestSettings(code: string, afterUrl: number): RequestSettings | null {
  const comma = /^["'`]\s*,\s*(?=\{)/.exec(code.slice(afterUrl, afterUrl + 16))
  const found = comma && expressionAt(code, afterUrl + comma[0].length, longest)
  if (found?.type !== 'ObjectExpression') return null
  const headers = propertyOf(found, 'headers')
  return {
    method: textOf(propertyOf(found, 'method')) ?? 'GET',
    headers: headers?.type === 'ObjectExpression' ? headersOf(headers) : [],
    credentials: textOf(propertyOf(found, 'credentials')) === 'include',
  }
}

function headersOf(object: ObjectExpression): [string, string][] {
  return object.properties.flatMap((each): [string, string][] => {
    const name = keyName(each)
    // A value that only the running code knows is taken for a short one.
    return each.type === 'Property' && name !== null ? [[name, textOf(each.value) ?? 'x']] : []
  })
}
