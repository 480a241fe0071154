import { decodeHTMLAttribute } from 'entities'
import type { Reference } from '../model/reference.ts'

/** Elements of sitemaps (sitemaps.org 0.9), RSS 2.0 and Atom (RFC 4287) whose text, or attribute, is the URL of a page or a file. */
const element =
  /<(loc|link|guid|(?:image|video):\w*loc)\b[^>]*>\s*(?:<!\[CDATA\[)?\s*([^<\s\]]+)|<(?:\w+:)?(link|enclosure|content|thumbnail)\b[^>]*?\s(?:href|url)\s*=\s*["']([^"']+)["']/g

const files = new Set(['enclosure', 'content', 'thumbnail'])

/** The pages that a sitemap or feed leads to, and the files it mentions. Readers of feeds request those, no visitor does. */
export function readFeed(xml: string): Reference[] {
  const found: Reference[] = []
  for (const match of xml.matchAll(element)) {
    const [whole, tag, text, other, attribute] = match
    const written = text ?? attribute ?? ''
    if (!/^(?:https?:\/\/|\/)/.test(written)) continue
    const offset = match.index + whole.indexOf(written)
    const page = !(tag?.includes(':') || files.has(other ?? ''))
    const raw = decodeHTMLAttribute(written)
    found.push({ kind: page ? 'page' : 'hint', raw, against: 'file', offset, length: written.length })
  }
  return found
}
