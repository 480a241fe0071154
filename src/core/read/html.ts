import { Parser } from 'htmlparser2'
import type { Reference, ReferenceKind } from '../model/reference.ts'
import { readCss } from './css.ts'
import { readSrcset } from './srcset.ts'

/** Inline code of a document, with where it lies. */
export interface InlineText {
  readonly kind: 'script' | 'json' | 'importmap'
  readonly text: string
  readonly offset: number
}

/** What a document asks for. */
export interface HtmlReading {
  readonly references: readonly Reference[]
  readonly inline: readonly InlineText[]
  readonly baseHref: string | null
}

interface Attribute {
  readonly name: string
  readonly value: string
  readonly offset: number
  readonly length: number
}

/** Elements whose attribute is a URL, and what a browser does with it. */
const urlAttributes: Readonly<Record<string, Readonly<Record<string, ReferenceKind>>>> = {
  script: { src: 'script' },
  img: { src: 'image' },
  image: { href: 'image', 'xlink:href': 'image' },
  use: { href: 'image', 'xlink:href': 'image' },
  source: { src: 'media' },
  video: { src: 'media', poster: 'image' },
  audio: { src: 'media' },
  track: { src: 'media' },
  embed: { src: 'frame' },
  object: { data: 'frame' },
  iframe: { src: 'frame' },
  frame: { src: 'frame' },
  body: { background: 'image' },
  a: { href: 'page' },
  area: { href: 'page' },
}

const srcsetAttributes: Readonly<Record<string, string>> = {
  img: 'srcset',
  source: 'srcset',
  link: 'imagesrcset',
}

const socialImage = /^(og:(image|video|audio)|twitter:image)(:(url|src|secure_url))?$/

/** What a browser does for each link type that makes it fetch (HTML standard, 4.6.7 "Link types"). */
function linkKind(rel: string): ReferenceKind | null {
  const types = rel.toLowerCase().split(/\s+/)
  if (types.includes('stylesheet')) return 'style'
  if (types.includes('manifest')) return 'manifest'
  if (types.includes('modulepreload') || types.includes('preload')) return 'preload'
  if (types.some((type) => type.endsWith('icon') || type === 'apple-touch-startup-image')) return 'icon'
  if (types.includes('prefetch') || types.includes('prerender')) return 'hint'
  return null
}

/** Reads one document. `at` is its offset when it stands inside another file, as markup in a script does. */
export function readHtml(html: string, at = 0): HtmlReading {
  const references: Reference[] = []
  const inline: InlineText[] = []
  let baseHref: string | null = null
  let attributes: Attribute[] = []
  let textKind: InlineText['kind'] | 'style' | null = null
  let textStart = -1
  let textEnd = -1

  const add = (kind: ReferenceKind, attribute: Attribute): void => {
    const raw = attribute.value.trim()
    if (raw === '' || raw.startsWith('#')) return
    references.push({
      kind,
      raw,
      against: 'document',
      offset: at + attribute.offset,
      length: attribute.length,
    })
  }

  const parser = new Parser({
    onattribute(name, value) {
      attributes.push(bounds(html, name, value, parser.startIndex, parser.endIndex))
    },
    onopentag(tag) {
      const own = attributes
      attributes = []
      const get = (name: string): Attribute | undefined => own.find((attribute) => attribute.name === name)
      textStart = -1
      textKind = tag === 'style' ? 'style' : tag === 'script' ? scriptKind(get('type')?.value) : null
      if (tag === 'base') baseHref ??= get('href')?.value ?? null
      for (const [name, kind] of Object.entries(urlAttributes[tag] ?? {})) {
        const attribute = get(name)
        if (attribute) add(kind, attribute)
      }
      const href = get('href')
      if (tag === 'link' && href) {
        const kind = linkKind(get('rel')?.value ?? '')
        if (kind) add(kind, href)
      }
      const source = get('src')
      if (tag === 'input' && source && get('type')?.value.toLowerCase() === 'image') add('image', source)
      const content = get('content')
      const property = get('property')?.value ?? get('name')?.value
      if (tag === 'meta' && content && socialImage.test(property ?? '')) add('hint', content)
      const set = get(srcsetAttributes[tag] ?? '')
      if (set) {
        for (const candidate of readSrcset(set.value)) {
          const offset = set.offset + candidate.offset
          add('image', { name: set.name, value: candidate.url, offset, length: candidate.url.length })
        }
      }
      const style = get('style')
      if (style?.value.includes('(')) references.push(...readCss(style.value, at + style.offset, 'document'))
    },
    ontext() {
      if (textKind === null) return
      if (textStart < 0) textStart = parser.startIndex
      textEnd = parser.endIndex + 1
    },
    onclosetag(tag) {
      if ((tag !== 'script' && tag !== 'style') || textKind === null || textStart < 0) return
      const text = html.slice(textStart, textEnd)
      if (textKind === 'style') references.push(...readCss(text, at + textStart, 'document'))
      else inline.push({ kind: textKind, text, offset: at + textStart })
      textKind = null
    },
  })
  parser.write(html)
  parser.end()
  return { references, inline, baseHref }
}

function scriptKind(type: string | undefined): InlineText['kind'] | null {
  const kind = (type ?? '').trim().toLowerCase()
  if (kind === '' || kind === 'module' || /^(text|application)\/(x-)?(java|ecma)script$/.test(kind))
    return 'script'
  if (kind === 'importmap') return 'importmap'
  return /\bjson$/.test(kind) ? 'json' : null
}

/** Where an attribute's value lies between the start of its name and the end of the attribute. */
function bounds(html: string, name: string, value: string, start: number, end: number): Attribute {
  let offset = start + name.length
  while (offset < end && html.charCodeAt(offset) !== 61) offset++
  offset++
  while (offset < end && html.charCodeAt(offset) <= 32) offset++
  const quote = html.charCodeAt(offset)
  if (quote !== 34 && quote !== 39) return { name, value, offset, length: Math.max(0, end - offset) }
  const close = html.indexOf(html.charAt(offset), offset + 1)
  return { name, value, offset: offset + 1, length: Math.max(0, (close < 0 ? end : close) - offset - 1) }
}
