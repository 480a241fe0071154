import { escapePattern } from '../../model/text.ts'

/** How far before its use an empty environment is made, and for how many uses of a name that is looked up. */
const emptyWithin = 20_000
const mostLookups = 50
/** Names that stand for one another. */
const mostNames = 3

/** Tells `var r={};…r.NAME` and `{NAME:e}=r`: a builder's own empty environment, where the code sets no member of that name itself. */
export function emptyOwners(code: string, name: string): (at: number, end: number) => boolean {
  if (!/^[A-Z][A-Z\d]*_/.test(name)) return () => false
  let isSet: boolean | null = null
  let lookups = 0
  return (at, end) => {
    const owner = ownerBefore(code.slice(Math.max(0, at - 80), at)) ?? ownerBehind(code, at, end)
    if (owner === null || ++lookups > mostLookups) return false
    if (!isEmpty(owner, code.slice(Math.max(0, at - emptyWithin), end + 400))) return false
    isSet ??= setsMember(code, name)
    return !isSet
  }
}

/** `r.NAME`, `r["NAME"]` */
function ownerBefore(before: string): string | null {
  return /(?<![\w$.])([\w$]{1,60})(?:\??\.|\[["'`])$/.exec(before)?.[1] ?? null
}

/** `{NAME:e}=r`, `{NAME}=r`, with others beside it. */
function ownerBehind(code: string, at: number, end: number): string | null {
  if (!/[{,]\s*$/.test(code.slice(Math.max(0, at - 4), at))) return null
  const behind = code.slice(end, end + 400)
  return (
    /^\s*(?::\s*[\w$]+\s*)?(?:,[\w$:,\s]{0,300})?\}\s*=\s*([\w$]{1,60})\s*[,;)\n]/.exec(behind)?.[1] ?? null
  )
}

/** `r={}`, also by another name that was given the same: `s={},r=s`. */
function isEmpty(name: string, code: string): boolean {
  let owner = name
  for (let passed = 0; passed < mostNames; passed++) {
    const given = givenTo(owner, code)
    if (given === null) return false
    if (/^\{\s*\}$/.test(given)) return true
    owner = given
  }
  return false
}

function givenTo(name: string, code: string): string | null {
  return (
    new RegExp(`(?<![\\w$.])${escapePattern(name)}\\s*=\\s*(\\{\\s*\\}|[\\w$]{1,60})\\s*[;,\\n]`).exec(
      code,
    )?.[1] ?? null
  )
}

/** `NAME:` of an object, and no pattern; `.NAME=`. */
function setsMember(code: string, name: string): boolean {
  const written = new RegExp(
    `\\b${name}["'\`]?\\]?\\s*(?::\\s*(?![\\w$]+\\s*(?:,[\\w$:,\\s]{0,300})?\\}\\s*=)|=(?!=))`,
  )
  return written.test(code)
}

/** `u+"/v1"` where `u=void 0`: what a name that holds nothing is put before. */
export function isVoidName(code: string, at: number, before: string): boolean {
  const name = /(?<![\w$.])([\w$]{1,60})\s?\+$/.exec(before)?.[1]
  return name !== undefined && holdsNothing(name, code.slice(Math.max(0, at - emptyWithin), at))
}

/** Whether a name is given `undefined` and nothing else in the code before its use, or is declared and given nothing. */
export function holdsNothing(name: string, code: string): boolean {
  if (!/^[\w$]{1,60}$/.test(name)) return false
  const own = `(?<![\\w$.])${escapePattern(name)}`
  const given = [...code.matchAll(new RegExp(`${own}\\s*=(?!=)\\s*(void 0|undefined)?`, 'g'))]
  if (given.length === 0) return new RegExp(`\\b(?:let|var)\\s+${own}\\s*[;,]`).test(code)
  return given.length === 1 && given[0]?.[1] !== undefined
}
