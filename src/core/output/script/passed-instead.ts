import { withoutHash } from '../../model/fingerprint.ts'
import { nameOf } from '../../model/folder.ts'
import { withoutQuery } from '../../model/reference.ts'

/** `typeof t>"u"&&(t=new URL(`, `void 0===t&&(t=new URL(`, `if(t===undefined){t=new URL(`: only where nothing was passed. */
const asDefault = /(?:^|[^\w$])([\w$]{1,80})\s{0,3}=\s{0,3}new URL\(\s{0,40}$/
const longestTest = 80
const functionHead = /function\*?\s{1,3}([\w$]+)\s{0,3}\([^()]{0,200}\)\s{0,3}\{/g
const longestBefore = 600
const emittedName = /["'`](?:[^"'`\s]{0,200}\/)?([\w.-]{1,200}\.[a-z]\w{0,11})["'`]/g

/**
 * Whether a URL is the default of a parameter that is always given: WebAssembly's glue code asks for the module beside it
 * only where it is called without one, and a bundler that emits the module under another name has the code pass that.
 * @param start of the literal, behind its quote
 */
export function isPassedInstead(code: string, start: number, value: string): boolean {
  const before = code.slice(Math.max(0, start - 1 - longestTest), start - 1)
  const match = asDefault.exec(before)
  const name = match?.[1]
  if (!match || name === undefined || !isTested(before.slice(0, match.index), name)) return false
  return isEmitted(code, value) || isAlwaysGiven(code, start)
}

/** `typeof t`, `void 0===t`, `t===undefined`, `t==null`. */
function isTested(before: string, name: string): boolean {
  const test = before.replace(/\s/g, '')
  return [`typeof${name}`, `void0===${name}`, `${name}===void0`, `${name}===undefined`, `${name}==null`].some(
    (form) => test.includes(form),
  )
}

/** Under a hashed name, or inside the code. */
function isEmitted(code: string, value: string): boolean {
  const wanted = nameOf(withoutQuery(value))
  if (wanted.endsWith('.wasm') && code.includes('data:application/wasm')) return true
  const [stem = '', extension = ''] = [
    wanted.slice(0, wanted.lastIndexOf('.')),
    wanted.slice(wanted.lastIndexOf('.')),
  ]
  for (const [, name = ''] of code.matchAll(emittedName)) {
    if (name === wanted || !name.startsWith(stem) || !name.endsWith(extension)) continue
    if (withoutHash(name) === `${stem}-*${extension}` || withoutHash(name) === `${stem}.*${extension}`)
      return true
  }
  return false
}

/** Whether all calls of the function around pass something, and there are some. */
function isAlwaysGiven(code: string, start: number): boolean {
  const heads = [...code.slice(Math.max(0, start - longestBefore), start).matchAll(functionHead)]
  const name = heads.at(-1)?.[1]
  if (name === undefined) return false
  let calls = 0
  for (let at = code.indexOf(`${name}(`); at >= 0; at = code.indexOf(`${name}(`, at + 1)) {
    if (
      /[\w$.]$/.test(code.slice(at - 1, at)) ||
      /function\*?\s{1,3}$/.test(code.slice(Math.max(0, at - 12), at))
    )
      continue
    if (/^\s{0,20}\)/.test(code.slice(at + name.length + 1, at + name.length + 22))) return false
    calls++
  }
  return calls > 0
}
