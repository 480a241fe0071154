import type { EndpointLiteral, OwnAddress, Span } from '../../model/facts.ts'
import type { PageValue } from '../../model/page-value.ts'
import type { Reference, ReferenceKind } from '../../model/reference.ts'
import { readCss } from '../css.ts'
import { embedding, linkKind, metaKind, urlAttributes } from './elements.ts'
import { codeIn, mayHoldCode } from './handlers.ts'
import { asksOf, connectedOrigin, mayAsk, mayNameNearby, policyOrigins, servicesFor } from './origins.ts'
import { type Attribute, type Attributes, scanHtml } from './scan.ts'
import { readSrcset } from './srcset.ts'

/** Inline code or data of a document, with where it is. */
export interface InlineText {
  readonly kind: 'script' | 'handler' | 'json' | 'importmap'
  readonly text: string
  readonly offset: number
  /** The length of what holds it, where it is written in another spelling, so that offsets inside it say nothing. */
  readonly within?: number
  /** A policy may let it through by itself. */
  readonly nonce?: true
}

/** What a document requests. */
export interface HtmlReading {
  readonly references: readonly Reference[]
  readonly inline: readonly InlineText[]
  readonly baseHref: string | null
  /** Its import map is in another file. */
  readonly mapElsewhere: boolean
  readonly values: readonly PageValue[]
  readonly ownAddresses: readonly OwnAddress[]
  /** Origins that the page connects to beforehand, those that its own policy names, and services that its attributes ask. */
  readonly origins: readonly EndpointLiteral[]
  readonly policies: readonly (Span & { readonly text: string })[]
}

/** What is noted of a reference beside its URL. */
type Beside = Pick<Reference, 'integrity' | 'later' | 'classic'>

function withIntegrity(attributes: Attributes): Beside {
  const integrity = attributes.get('integrity')?.value
  return integrity ? { integrity } : {}
}

function ofScript(attributes: Attributes): Beside {
  const type = attributes.get('type')?.value
  const isClassic = scriptKind(type) === 'script' && !/^\s*module\s*$/i.test(type ?? '')
  return { ...withIntegrity(attributes), ...(isClassic ? { classic: true as const } : {}) }
}

/** Whether it is requested only when a person comes near it (HTML standard, 2.5.7 "Lazy loading attributes"). */
function waits(tag: string, attributes: Attributes): boolean {
  return (tag === 'img' || tag === 'iframe') && attributes.get('loading')?.value.toLowerCase() === 'lazy'
}

/**
 * Reads one document, or a drawing: its elements with URLs are HTML's.
 * @param at its offset when it stands inside another file, as markup in a script does
 */
export function readHtml(html: string, at = 0): HtmlReading {
  const references: Reference[] = []
  const inline: InlineText[] = []
  const origins: EndpointLiteral[] = []
  const values: PageValue[] = []
  const ownAddresses: OwnAddress[] = []
  const policies: (Span & { readonly text: string })[] = []
  let hasNonce = false
  let isInBody = false
  let baseHref: string | null = null
  let mapElsewhere = false
  let textKind: InlineText['kind'] | 'style' | null = null

  const add = (kind: ReferenceKind, { value, offset, length }: Attribute, more: Beside = {}): void => {
    const raw = value.trim()
    if (raw === '' || raw.startsWith('#')) return
    const found = { kind, raw, against: 'document', offset: at + offset, length } as const
    references.push(more.integrity || more.later || more.classic ? { ...found, ...more } : found)
  }
  // A browser takes one of a set, and what stands beside it as `src` or `href` is counted for it.
  const addSet = (set: Attribute): void => {
    for (const { url, offset } of readSrcset(set.value)) {
      add('image', { value: url, offset: set.offset + offset, length: url.length }, { later: true })
    }
  }

  const isNearby = mayNameNearby(html)
  const [asks, hasCode] = [mayAsk(html), mayHoldCode(html)]
  scanHtml(
    html,
    (tag, attributes) => {
      if (isNearby) origins.push(...servicesFor(tag, attributes, at))
      if (asks) origins.push(...asksOf(attributes, at))
      if (hasCode) inline.push(...codeIn(attributes, at))
      const style = attributes.get('style')
      if (style?.value.includes('(')) references.push(...readCss(style.value, at + style.offset, 'document'))
      const urls = urlAttributes.get(tag)
      if (urls) {
        const more =
          tag === 'script' ? ofScript(attributes) : waits(tag, attributes) ? { later: true as const } : {}
        const isForOld = tag === 'script' && attributes.get('nomodule') !== null
        for (const [name, kind] of urls) {
          const attribute = attributes.get(name)
          if (attribute) add(isForOld ? 'old-script' : kind, attribute, more)
        }
      }
      if (tag === 'script') {
        textKind = scriptKind(attributes.get('type')?.value)
        hasNonce = attributes.get('nonce') !== null
        mapElsewhere ||= textKind === 'importmap' && attributes.get('src') !== null
      } else if (tag === 'style') textKind = 'style'
      else if (tag === 'body') isInBody = true
      else if (tag === 'base') {
        const href = attributes.get('href')
        if (href && baseHref === null) {
          baseHref = href.value.trim()
          add('base', href)
        }
      } else if (tag === 'img' || tag === 'source') {
        const set = attributes.get('srcset')
        if (set) addSet(set)
      } else if (tag === 'link') {
        const rel = attributes.get('rel')?.value ?? ''
        const kind = linkKind(rel)
        const href = attributes.get('href')
        if (href && /^canonical$/i.test(rel.trim())) ownAddresses.push(addressIn(href, at))
        if (kind && href) add(kind, href, withIntegrity(attributes))
        else if (href) origins.push(...connectedOrigin(rel, href, at))
        const set = attributes.get('imagesrcset')
        if (set) addSet(set)
      } else if (tag === 'input') {
        const source = attributes.get('src')
        if (source && attributes.get('type')?.value.toLowerCase() === 'image') add('image', source)
      } else if (tag === 'meta') {
        const found = metaKind(attributes)
        const content = attributes.get('content')
        const settings = settingsIn(content, at)
        const name = attributes.get('name')?.value
        if (content && /^og:url$/i.test(attributes.get('property')?.value ?? ''))
          ownAddresses.push(addressIn(content, at))
        // What is named like a path may be one; descriptions and the like are none.
        if (name && content && /^(?:\.{0,2}\/|https?:)\S*$/.test(content.value))
          values.push([`meta:${name}`, content.value])
        if (found) add(found.kind, found.url)
        else if (settings) inline.push(settings)
        else {
          origins.push(...policyOrigins(attributes, at))
          // In the body a policy is passed over (HTML standard, 4.2.5.3 "Pragma directives").
          if (
            !isInBody &&
            content &&
            /^\s*content-security-policy\s*$/i.test(attributes.get('http-equiv')?.value ?? '')
          )
            policies.push({ text: content.value, offset: at + content.offset, length: content.length })
        }
      } else if (embedding.has(tag)) {
        const markup = attributes.get('srcdoc')
        // Character references would shift offsets: the whole attribute is shown then.
        if (markup) {
          const inside = readHtml(markup.value)
          for (const each of inside.references)
            references.push(placed(withBase(each, inside.baseHref), markup, at))
        }
      }
    },
    (tag, start, end) => {
      const text = html.slice(start, end)
      if (tag === 'style') references.push(...readCss(text, at + start, 'document'))
      else if (textKind !== null && textKind !== 'style') {
        if (text.trim() !== '')
          inline.push({
            kind: textKind,
            text,
            offset: at + start,
            ...(hasNonce ? { nonce: true as const } : {}),
          })
      }
      textKind = null
    },
  )
  return { references, inline, baseHref, mapElsewhere, values, ownAddresses, origins, policies }
}

/** Settings that a page carries to its scripts in an attribute: an object as JSON, percent-encoded. Offsets are of the attribute. */
function settingsIn(content: Attribute | null, at: number): InlineText | null {
  if (!content?.value.startsWith('%7B%22')) return null
  try {
    const text = decodeURIComponent(content.value)
    return { kind: 'json', text, offset: at + content.offset, within: content.length }
  } catch {
    return null
  }
}

function addressIn({ value, offset, length }: Attribute, at: number): OwnAddress {
  return { url: value.trim(), offset: at + offset, length }
}

function placed(reference: Reference, { value, offset, length }: Attribute, at: number): Reference {
  const exact = value.length === length
  return {
    ...reference,
    offset: at + offset + (exact ? reference.offset : 0),
    length: exact ? reference.length : length,
  }
}

/** A document in an attribute starts from the page that holds it, unless it has a base of its own. */
function withBase(reference: Reference, base: string | null): Reference {
  const { raw, kind } = reference
  if (base === null || kind === 'base' || /^(?:[a-z][a-z+.-]*:|\/\/)/i.test(raw)) return reference
  if (/^(?:https?:)?\/\//i.test(base)) return { ...reference, raw: joinedTo(base, raw) }
  // Of another scheme nothing starts.
  if (/^[a-z][a-z+.-]*:/i.test(base) || raw.startsWith('/')) return reference
  const directory = base.split(/[?#]/, 1)[0] ?? ''
  return { ...reference, raw: directory.slice(0, directory.lastIndexOf('/') + 1) + raw }
}

function joinedTo(base: string, raw: string): string {
  const whole = base.startsWith('//') ? `https:${base}` : base
  if (!URL.canParse(raw, whole)) return raw
  const url = new URL(raw, whole)
  return base.startsWith('//') ? url.href.slice('https:'.length) : url.href
}

function scriptKind(type: string | undefined): InlineText['kind'] | null {
  const kind = (type ?? '').trim().toLowerCase()
  if (kind === '' || kind === 'module' || /^(text|application)\/(x-)?(java|ecma)script\b/.test(kind))
    return 'script'
  if (/^(?:systemjs-)?importmap(?:-shim)?$/.test(kind)) return 'importmap'
  return /\bjson$/.test(kind) ? 'json' : null
}
