import { isLoopback } from './address.ts'
import { base64SpellingsOf, spellingsOf } from './spellings.ts'
import { escapePattern } from './text.ts'

/** A longer text is searched for one form after the other, which engines do faster; characters. */
const short = 2_000

/** Engines refuse much longer ones; characters. */
const longestPattern = 200_000

function patternsOf(forms: readonly string[]): RegExp[] {
  const patterns: string[][] = []
  let length = longestPattern
  for (const form of forms.map(escapePattern)) {
    if (length + form.length > longestPattern) {
      patterns.push([])
      length = 0
    }
    patterns.at(-1)?.push(form)
    length += form.length
  }
  return patterns.map((each) => new RegExp(each.join('|'), 'g'))
}

/** Puts the names of variables in place of their values, in whatever form these are written. One rule for all output. */
export class Mask {
  /** Every form of every value with what is shown in its place, the longest first. */
  readonly #forms: readonly (readonly [form: string, shown: string])[]
  readonly #shown: ReadonlyMap<string, string>
  /** Those that a short text can hold, each pattern as long as engines take it. */
  readonly #patterns: readonly RegExp[]

  /**
   * @param values by name; a value may be given twice, the first name is shown
   * @param open texts that are shown in any case, as the site's address: what stands in them gives nothing away
   */
  constructor(values: Iterable<readonly [name: string, value: string]>, open: readonly string[] = []) {
    const shown = new Map<string, string>()
    for (const [name, value] of values) {
      if (open.some((text) => text.includes(value.replace(/\/$/, '')))) continue
      const instead = replacementOf(name, value)
      if (instead === value) continue
      for (const form of [...spellingsOf(value), ...base64SpellingsOf(value)])
        if (!shown.has(form)) shown.set(form, instead)
    }
    this.#shown = shown
    this.#forms = [...shown].sort(([a], [b]) => b.length - a.length)
    this.#patterns = patternsOf(this.#forms.map(([form]) => form).filter(({ length }) => length <= short))
  }

  /** A text with every value in it replaced by the name of its variable. */
  named(text: string): string {
    if (this.#forms.length === 0) return text
    let named = text
    if (text.length <= short) {
      for (const pattern of this.#patterns)
        named = named.replace(pattern, (form) => this.#shown.get(form) ?? form)
      return named
    }
    for (const [form, shown] of this.#forms)
      if (named.includes(form)) named = named.replaceAll(form, () => shown)
    return named
  }

  /** A text with every value in it covered, at its old length so that offsets hold. */
  cover(text: string): string {
    let covered = text
    for (const [form] of this.#forms)
      if (covered.includes(form)) covered = covered.replaceAll(form, '•'.repeat(form.length))
    return covered
  }

  /** The longest form; characters. */
  get longest(): number {
    return this.#forms[0]?.[0].length ?? 0
  }

  /** Data with {@link named} applied to every text in it, names of members included. */
  deep<T>(data: T): T {
    return this.#forms.length === 0 ? data : (this.#deep(data) as T)
  }

  #deep(data: unknown): unknown {
    if (typeof data === 'string') return this.named(data)
    if (Array.isArray(data)) return data.map((each) => this.#deep(each))
    if (typeof data !== 'object' || data === null) return data
    return Object.fromEntries(
      Object.entries(data).map(([key, value]) => [this.named(key), this.#deep(value)]),
    )
  }
}

/**
 * What is shown for a value. Of an address on the visitor's own machine the origin is shown, since that is what is wrong with
 * it; and nothing else of it.
 */
function replacementOf(name: string, value: string): string {
  if (!/^(?:https?|wss?):\/\//i.test(value) || !URL.canParse(value)) return `\${${name}}`
  const { hostname, host, protocol, pathname, search, hash, username } = new URL(value)
  if (!isLoopback(hostname)) return `\${${name}}`
  const isBare = pathname === '/' && search + hash + username === ''
  return isBare ? value : `${protocol}//${host}/\${${name}}`
}
