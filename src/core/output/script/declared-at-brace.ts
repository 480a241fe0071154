/** What is looked at before a brace, and behind it; UTF-16 units. */
const longest = 240

/** `(a,b)=>`, `function(a,...b)`, `name(a)`: without an arrow the word tells a function from a loop, and from a class behind `extends f(a)`. */
const parameters = /(?:(?<![.\w$]|\bextends\s|\bnew\s)([\w$]{1,80}) ?)?\(([\w$,. ]{0,200})\) ?(=> ?)?$/
const oneParameter = /(?:^|[^\w$.])([\w$]{1,80}) ?=> ?$/
const statements: ReadonlySet<string> = new Set(['if', 'while', 'for', 'await', 'switch', 'with'])
/** `{const a=`, `{let a,b;`: what begins with it stays within the braces; of `var` only where they are a function's. */
const first = /^\{\s?(const|let|var)\s([\w$]{1,80}(?:,[\w$]{1,80}){0,20})[=;]/

/**
 * Names that mean something of their own between braces, as far as the characters beside tell without a parse: simple parameters, and
 * what is declared first. There may be more.
 * @param brace where the braces begin
 */
export function declaredAtBrace(code: string, brace: number): ReadonlySet<string> {
  const before = code.slice(Math.max(0, brace - longest), brace)
  const [, word = '', list, arrow] = parameters.exec(before) ?? []
  const isFunction = list !== undefined && (arrow !== undefined || (word !== '' && !statements.has(word)))
  const given = isFunction ? list : (oneParameter.exec(before)?.[1] ?? null)
  const [, keyword, declared = ''] = first.exec(code.slice(brace, brace + longest)) ?? []
  const isOwn = keyword !== 'var' || (given !== null && word !== 'catch')
  return new Set(`${given ?? ''},${isOwn ? declared : ''}`.split(/[^\w$]+/).filter((name) => name !== ''))
}
