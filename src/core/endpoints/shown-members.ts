/** A value as minifiers write it: a template, or an expression with calls that hold no others. */
const value = '(`[^`]{1,200}`|(?:[^(),;{}`]|\\([^(),;{}`]{0,60}\\)){1,120})'
/** Elements that show what such an attribute names. */
const element = '(?:img|source|video|audio|iframe|embed|image|track)'

/** `jsx("img",{alt:"",src:e.image})`, `h("img",{src:e.image},null,8,p)`: the properties, one by one. */
const made = new RegExp(`["'\`]${element}["'\`],\\s?\\{((?:[^{}]|\\$\\{[^{}]{0,100}\\}){1,600})`, 'g')
const property = new RegExp(`(?:^|[,\\s])["']?(?:src|poster)["']?:\\s?${value}(?=\\s?[,}]|\\s?$)`, 'g')
const given: readonly RegExp[] = [
  // `set(node,"src",Q(t).image)`, `node.setAttribute("src",e.image)`
  new RegExp(`[,(]\\s?["'\`](?:src|poster)["'\`],\\s?${value}[,)]`, 'g'),
  // `image.src=e.image`
  new RegExp(`\\w\\.src\\s?=\\s?(?!=)${value}`, 'g'),
  // `'<img src="'+e.image+'">'`
  new RegExp(`<${element}\\b[^<>]{0,200}?\\s(?:src|poster)=\\\\?["']?["'\`]\\+([^+;,]{1,120})\\+`, 'g'),
]
/** `<img alt="" src="${e.image}">` */
const inMarkup = new RegExp(
  `<${element}\\b[^<>]{0,200}?\\s(?:src|poster)=\\\\?["']?((?:\\$\\{[^{}]{1,100}\\}|[^\\s"'\`<>{}]){1,60})`,
  'g',
)

/** A member as it is: nothing is put before it. */
const member =
  /^\s*[\w$]{1,60}(?:\([\w$]{0,60}\))?(?:\??\.[\w$]{1,60}|\[[\w$]{1,60}\]){0,9}\??\.([\w$]{1,60})\s*$/
const isPutTogether = /[+(]/
const anyMember = /\.([\w$]+)/g
const hole = /\$\{([^{}]{1,100})\}/g
const oneHole = /^\$\{([^{}]{1,100})\}$/
/** `{...e,image:"/base/"+e.image}`: each entry of a list gets another under the same name. */
const rewritten =
  /\{\.\.\.([\w$]{1,60}),[^{}]{0,200}?(?<![\w$])([\w$]{1,60})\s?:\s?[^,;{}()]{1,60}\+\s?\1\.\2(?![\w$])/g
/** `"/base"+e.image`, `e.image.slice(1)`: a part of something, wherever that goes. */
const cut = /\.([\w$]{1,60})\.(?:slice|replace|replaceAll|substring|substr|split)\(/g
const added = /(?<!=\\?["']?["'`])\+\s?[\w$]{1,60}\.([\w$]{1,60})/g

/**
 * What scripts do with members of what lists hold: `image` of `<img src={boat.image}>`. What stands under such a name in a list is
 * shown, however it came there.
 */
export class ShownMembers {
  readonly #shown = new Set<string>()
  readonly #joined = new Set<string>()
  readonly #rewritten = new Set<string>()
  readonly #parts = new Set<string>()

  /** Whether an element shows it as it is, or behind something else; null where scripts do both, neither, or more. */
  useOf(name: string): 'shown' | 'joined' | null {
    if (this.#rewritten.has(name)) return 'joined'
    if (!this.#shown.has(name)) return this.#joined.has(name) ? 'joined' : null
    return this.#joined.has(name) || this.#parts.has(name) ? null : 'shown'
  }

  /** Looks through one script. */
  add(code: string): void {
    for (const [, properties = ''] of code.matchAll(made))
      for (const [, each = ''] of properties.matchAll(property)) this.#note(each)
    for (const form of given) for (const [, each = ''] of code.matchAll(form)) this.#note(each)
    for (const [, each = ''] of code.matchAll(inMarkup)) this.#note(`\`${each}\``)
    for (const [, , name = ''] of code.matchAll(rewritten)) this.#rewritten.add(name)
    for (const form of [cut, added]) for (const [, name = ''] of code.matchAll(form)) this.#parts.add(name)
  }

  #note(given: string): void {
    const template = given.startsWith('`') ? given.slice(1, -1) : null
    const whole = template === null ? given : (oneHole.exec(template)?.[1] ?? '')
    const name = member.exec(whole)?.[1]
    if (name !== undefined) this.#shown.add(name)
    const parts = template === null ? [given] : Array.from(template.matchAll(hole), ([, part = '']) => part)
    if (name === undefined && (template !== null || isPutTogether.test(given)))
      for (const part of parts) for (const [, each = ''] of part.matchAll(anyMember)) this.#joined.add(each)
  }
}

const nameOfValue = /["']?([\w$]{1,80})["']?\s{0,3}:\s{0,3}["'`]$/

/** The name under which a text stands in an object or in JSON: `image` of `image:"/a.png"`. */
export function nameBefore(text: string, offset: number): string | null {
  return nameOfValue.exec(text.slice(Math.max(0, offset - 100), offset))?.[1] ?? null
}
