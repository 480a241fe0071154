import type { ReferenceKind } from '../../model/reference.ts'
import type { Attribute, Attributes } from './scan.ts'

const image: ReferenceKind = 'image'
const drawing = [
  ['href', image],
  ['xlink:href', image],
] as const

/**
 * Elements with an attribute that is a URL, and what a browser does with it: the index of attributes of the HTML
 * standard, what browsers still heed of older HTML, and SVG 2. `cite`, `longdesc` and the like make no request.
 */
export const urlAttributes: ReadonlyMap<string, readonly (readonly [string, ReferenceKind])[]> = new Map<
  string,
  readonly (readonly [string, ReferenceKind])[]
>([
  [
    'script',
    [
      ['src', 'script'],
      // For a loader in the page: modules for browsers without modules, scripts that wait for consent.
      ['data-src', 'script'],
      ['href', 'script'],
      ['xlink:href', 'script'],
    ],
  ],
  ['img', [['src', image]]],
  ['source', [['src', 'media']]],
  [
    'video',
    [
      ['src', 'media'],
      ['poster', image],
    ],
  ],
  ['audio', [['src', 'media']]],
  ['track', [['src', 'media']]],
  ['embed', [['src', 'frame']]],
  ['object', [['data', 'frame']]],
  ['iframe', [['src', 'frame']]],
  ['frame', [['src', 'frame']]],
  ['body', [['background', image]]],
  ['table', [['background', image]]],
  ['td', [['background', image]]],
  ['th', [['background', image]]],
  ['a', [['href', 'page']]],
  ['area', [['href', 'page']]],
  ['form', [['action', 'form']]],
  ['button', [['formaction', 'form']]],
  ['input', [['formaction', 'form']]],
  ['image', drawing],
  ['use', drawing],
  ['feimage', drawing],
  ['lineargradient', drawing],
  ['radialgradient', drawing],
  ['pattern', drawing],
  ['textpath', drawing],
  ['mpath', drawing],
])

/** Elements that hold a document in an attribute. */
export const embedding: ReadonlySet<string> = new Set(['iframe'])

/** What a browser does for each link type that makes it fetch (HTML standard, 4.6.7 "Link types"). */
export function linkKind(rel: string): ReferenceKind | null {
  const types = rel.toLowerCase().split(/[\t\n\f\r ]+/)
  if (types.includes('stylesheet')) return 'style'
  if (types.includes('manifest')) return 'manifest'
  if (types.includes('modulepreload') || types.includes('preload')) return 'preload'
  if (types.some((type) => /icon/.test(type) || type === 'apple-touch-startup-image')) return 'icon'
  if (types.includes('prefetch') || types.includes('prerender')) return 'hint'
  if (types.includes('next') || types.includes('prev') || types.includes('alternate')) return 'page'
  return null
}

const socialImage = /^(?:og:(?:image|video|audio)|twitter:image)(?::(?:url|src|secure_url))?$/
const tileImage = /^msapplication-(?:tileimage|config|(?:square|wide)\d+x\d+logo)$/

/** A page that a `<meta>` leads to, or a picture that others fetch because of it. */
export function metaKind(attributes: Attributes): { kind: ReferenceKind; url: Attribute } | null {
  const content = attributes.get('content')
  if (!content) return null
  if (attributes.get('http-equiv')?.value.toLowerCase() === 'refresh') return refresh(content)
  const name = (attributes.get('property') ?? attributes.get('name'))?.value.toLowerCase() ?? ''
  return socialImage.test(name) || tileImage.test(name) ? { kind: 'hint', url: content } : null
}

/** `5; url='/next'` (HTML standard, 4.2.5.3 "shared declarative refresh steps"). */
function refresh({ value, offset }: Attribute): { kind: ReferenceKind; url: Attribute } | null {
  const match = /^\s*[\d.]+(?:\s*[;,]\s*|\s+)(?:url\s*=\s*)?(["']?)(\S.*)$/is.exec(value)
  const rest = match?.[2]
  if (!match || rest === undefined) return null
  const quote = match[1] ?? ''
  const close = quote === '' ? -1 : rest.indexOf(quote)
  const url = close < 0 ? rest : rest.slice(0, close)
  return {
    kind: 'page',
    url: { value: url, offset: offset + value.length - rest.length, length: url.length },
  }
}
