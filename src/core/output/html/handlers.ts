import type { InlineText } from './document.ts'
import type { Attributes } from './scan.ts'

/** Where an attribute's value is code: event handlers (HTML standard, 8.1.8.1), and the directives of libraries that read markup. */
const ofCode = ['on', '@', 'x-', 'v-on:', 'hx-on']

/** A name that begins with `on` and is no event's: `one-way`. */
const eventName = /^[a-z]*$/i

/** Code without a quoted path or address asks for nothing that can be told. */
const holdsAddress = /["'`](?:\.{0,2}\/|https?:|wss?:|localhost|127\.)/i

const anyOfCode = /\s(?:on[a-z]{3,24}|@[\w.:-]{1,40}|(?:v-on:|x-|hx-on)[\w.:-]{1,40})\s?=/i
/** A quoted text in the value of an attribute, which is itself in quotes of the other kind, or in none. */
const innerQuotes = ["'", '`', '&quot;', '&#', '&apos;', '("']

/** Whether a page may hold such attributes at all: most do not, and their tags need no look. */
export function mayHoldCode(html: string): boolean {
  return innerQuotes.some((quote) => html.includes(quote)) && anyOfCode.test(html)
}

/** The code in the attributes of a tag. */
export function* codeIn(attributes: Attributes, at: number): Generator<InlineText> {
  for (const prefix of ofCode) {
    for (const [rest, { value, offset, length }] of attributes.beginning(prefix)) {
      if (!holdsAddress.test(value) || (prefix === 'on' && !eventName.test(rest))) continue
      const exact = value.length === length
      yield { kind: 'handler', text: value, offset: at + offset, ...(exact ? {} : { within: length }) }
    }
  }
}
