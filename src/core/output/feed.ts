import { decodeHTMLAttribute } from 'entities'
import type { Reference } from '../model/reference.ts'

/** Elements of sitemaps (sitemaps.org 0.9), RSS 2.0 and Atom (RFC 4287) whose text is the URL of a page or a file. */
const inText = /^(?:loc|link|guid|(?:image|video):\w*loc)$/
/** Those with an attribute that is one. */
const inAttribute = /^(?:\w+:)?(?:link|enclosure|content|thumbnail)$/
const files = /(?:^|:)(?:enclosure|content|thumbnail)$|^(?:image|video):/

const opening = /<([\w:]{1,40})(?=[\s>])/g
const attribute = /\s(?:href|url)\s*=\s*["']([^"']+)["']/
const text = /^\s*(?:<!\[CDATA\[\s*)?([^<\s\]]+)/

/** Longer tags and texts are no URLs; characters. */
const longest = 4_096

/** The pages that a sitemap or feed leads to, and the files it mentions. Readers of feeds request those, no visitor does. */
export function readFeed(xml: string): Reference[] {
  const found: Reference[] = []
  for (const { 0: whole, 1: name = '', index } of xml.matchAll(opening)) {
    const isText = inText.test(name)
    if (!isText && !inAttribute.test(name)) continue
    const end = xml.indexOf('>', index)
    // A file that ends within a tag has no more of them.
    if (end < 0) break
    const written = writtenIn(xml, { name, isText, start: index + whole.length, end })
    if (written === null || !/^(?:https?:\/\/|\/)/.test(written.raw)) continue
    const { raw, offset } = written
    const kind = files.test(name) ? 'hint' : 'page'
    found.push({ kind, raw: decodeHTMLAttribute(raw), against: 'file', offset, length: raw.length })
  }
  return found
}

interface Element {
  readonly name: string
  readonly isText: boolean
  /** The bounds of its attributes. */
  readonly start: number
  readonly end: number
}

/** The URL of an element as it is written: its text, else its attribute. */
function writtenIn(
  xml: string,
  { name, isText, start, end }: Element,
): { readonly raw: string; readonly offset: number } | null {
  const inside = isText ? text.exec(xml.slice(end + 1, end + 1 + longest)) : null
  if (inside?.[1] !== undefined)
    return { raw: inside[1], offset: end + 1 + inside[0].length - inside[1].length }
  const given = inAttribute.test(name)
    ? attribute.exec(xml.slice(start, Math.min(end, start + longest)))
    : null
  if (given?.[1] === undefined) return null
  return { raw: given[1], offset: start + given.index + given[0].length - 1 - given[1].length }
}
