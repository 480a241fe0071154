import { contentTypeOf, isForElement } from '../../model/content-type.ts'
import { isHashed } from '../../model/fingerprint.ts'
import { hole, namedOnly, type Reference, withoutQuery } from '../../model/reference.ts'
import { readCss } from '../css.ts'
import { readHtml } from '../html/document.ts'
import { readSrcset } from '../html/srcset.ts'
import { readPayload } from '../payload.ts'
import { codeBefore, type Literal } from './literal.ts'

/** The keys and attributes that hold an element's URL: `src:"…"`, `.href=`, `"poster",`. */
const elementUrl = /(?:^|[^\w$-])["'`]?(?:src|href|poster|xlinkHref|xlink:href)["'`]?\s*[:=,]$/
/**
 * `jsx(Gallery,{src:"/a.png"`: a property of a component, which does with it what it likes, and before which a router may put the base.
 * The elements that a text with components is drawn with are members: `jsx(e.img,{src:"/a.png"`.
 */
const ofComponent = /\(\s*(?:[\w$]+\.)*([\w$]+)\s*,\s*\{[^{}()]*["'`]?\b[\w:]+["'`]?:$/
const elementNames = /^(?:img|video|audio|source|iframe|embed|track|script|link|input|image|use)$/
/** `n.p+"static/media/chart.4f7d20aa.svg"`: webpack and its kin put the public path before what they emit. */
const afterPublicPath = /(?:^|[^\w$.])[\w$]+\.p\+$/
/** The end of a concatenation, or something compared with: `base + "/index.html"`, `endsWith("/index.txt")`. */
const partOrCompared =
  /\+$|[!=]==?$|(?:endsWith|startsWith|includes|indexOf|test|match|replace|replaceAll|split)\($/
const looksLikeFile = /^[^\s<>"'`{}|\\^]*\.[a-z][\da-z]{1,11}(?:[?#][^\s]*)?$/i
const tag = /<[a-z]/i
const urlAttribute = /\b(?:src|srcset|href|poster|data)\s*=/i

/** A directory from the top of the host, for a loader to put names behind. */
const directory = /^(?:\/[\w@~.-]*[\w-]){1,8}\/$/
/** Compared with, or the name of a member. */
const comparedBehind = /^\s*(?:[!=]==?|:)/
/** What a library for translations or maps puts something in the place of: `{{lng}}`, `{lng}`. */
const marker = /\{\{?\s{0,3}[\w.]{1,40}\s{0,3}\}\}?/g

/** `setDecoderPath("/draco/")`, `"/flags/" + code`: whatever the directory holds may be requested by it. */
function namedDirectory(code: string, { value, start, end }: Literal): Reference[] {
  const before = codeBefore(code, start - 1)
  if (partOrCompared.test(before) || comparedBehind.test(code.slice(end + 1, end + 6))) return []
  const named = { kind: 'named', against: 'document', raw: value + hole } as const
  const place = { offset: start, length: end - start }
  const sure = elementUrl.test(before) && !isOfComponent(codeBefore(code, start - 1, 256))
  return [{ ...named, ...place, ...(sure && { sure }) }]
}

/** `"/locales/{{lng}}/{{ns}}.json"` */
function markedName(code: string, { value, start, end }: Literal): Reference[] {
  const raw = value.replaceAll(marker, hole)
  const isFile = looksLikeFile.test(raw.replaceAll(hole, 'x')) && contentTypeOf(withoutQuery(raw)) !== null
  if (!isFile || !raw.startsWith('/') || partOrCompared.test(codeBefore(code, start - 1))) return []
  return [{ kind: 'named', raw, against: 'document', offset: start, length: end - start }]
}

/** A string that looks like a file. Whether it is one is decided when the folder's files are known. */
export function namedFile(code: string, literal: Literal): Reference[] {
  const { value, start, end } = literal
  if (directory.test(value)) return namedDirectory(code, literal)
  if (value.includes('{')) return markedName(code, literal)
  if (!looksLikeFile.test(value) || value.includes('://')) return []
  const path = withoutQuery(value)
  if (contentTypeOf(path) === null) return []
  const place = { raw: value, offset: start, length: end - start }
  const before = codeBefore(code, start - 1)
  if (afterPublicPath.test(before) && isHashed(path))
    return [{ kind: 'file', against: 'bundle-base', ...place }]
  const revision = /["'`]?url["'`]?:$/.test(before) ? revisionBeside(code, start, end) : null
  if (revision !== null) {
    const listed = { kind: 'file', against: 'file', later: true, ...place } as const
    return [revision === '' ? listed : { ...listed, integrity: `md5:${revision}` }]
  }
  if (before.endsWith('+')) return lastName(literal)
  if (partOrCompared.test(before)) return []
  const named = { kind: 'named', against: 'document', ...place } as const
  const sure = elementUrl.test(before) && !isOfComponent(codeBefore(code, start - 1, 256))
  return [sure ? { ...named, sure } : named]
}

function isOfComponent(before: string): boolean {
  const name = ofComponent.exec(before)?.[1]
  return name !== undefined && !elementNames.test(name)
}

/** An entry of such a list is shorter on each side of its URL; UTF-16 units. */
const widestEntry = 512

const revision = /["'`]?revision["'`]?:\s*(?:["'`]([\da-f]{32})["'`]|null|void 0|["'`][^"'`]*["'`])/

/**
 * A service worker's list of what it fetches when it is installed: `{url:"index.html",revision:"…"}`. A revision of 32
 * hex digits is the MD5 of the file; null says that the name carries the hash. Null here where it is no such list.
 */
function revisionBeside(code: string, start: number, end: number): string | null {
  const before = code.slice(Math.max(0, start - widestEntry), start)
  const after = code.slice(end, end + widestEntry)
  const [open, close] = [before.lastIndexOf('{'), after.indexOf('}')]
  if (open < 0 || close < 0) return null
  const match = revision.exec(code.slice(start - before.length + open, end + close))
  return match ? (match[1] ?? '') : null
}

/** Markup that a script writes into the page: what it requests counts only when it looks like one of our files. */
export function inMarkup(code: string, { value, start, end, last }: Literal): Reference[] {
  if (!tag.test(value) || !urlAttribute.test(value)) return []
  // A whole document is a text to show, to save or for a frame of its own: what it names counts where it names a file.
  if (/<(?:!doctype|html)\b/i.test(value))
    return namedOnly(sureFiles(readHtml(code.slice(start, end), start).references))
  // A hole ends the value it stands in, and with it the tag: what stands before it in that tag is whole.
  const text = last ? code.slice(start, end) : `${code.slice(start, end)}${hole}">`
  return sureFiles(readHtml(text, start).references)
}

const srcsetBefore = /["'`]?(?:image)?srcset["'`]?\s*[:=,]$/i

/** The files of a `srcset` that a script gives an element: `{srcSet:"/a.png 1x, /b.png 2x"}`. */
export function inSrcset(code: string, { start, end }: Literal): Reference[] {
  if (!srcsetBefore.test(codeBefore(code, start - 1))) return []
  return readSrcset(code.slice(start, end)).flatMap(({ url, offset }): Reference[] =>
    looksLikeFile.test(url) && !url.includes('://')
      ? [
          {
            kind: 'named',
            sure: true,
            raw: url,
            against: 'document',
            offset: start + offset,
            length: url.length,
          },
        ]
      : [],
  )
}

/** Styles that a script puts into the page. */
export function inStyles(code: string, { start, end }: Literal): Reference[] {
  return sureFiles(readCss(code.slice(start, end), start, 'document'))
}

function sureFiles(references: readonly Reference[]): Reference[] {
  return references.flatMap((found) =>
    found.kind !== 'page' &&
    !found.raw.includes('${') &&
    !found.raw.includes(hole) &&
    looksLikeFile.test(found.raw)
      ? [{ ...found, kind: 'named', sure: true } as const]
      : [],
  )
}

/** Data in a string, for a framework to read when the page runs. */
export function inPayload(code: string, { start, end }: Literal): Reference[] {
  return readPayload(code.slice(start, end), start)
}

/** `` `${base}hero.svg` ``, `base + "hero.svg"`: what stands before it is looked for only where the folder has no such file. */
export function lastName({ value, start, end }: Literal): Reference[] {
  return looksLikeFile.test(value) && !value.startsWith('.') && isForElement(withoutQuery(value))
    ? [{ kind: 'named', against: 'behind', raw: value, offset: start, length: end - start }]
    : []
}

/** Holes of a template with parts of a path between them. */
const someHoles = /^(?:\$\{[^{}`]{1,200}\}[\w@~./-]{0,80}){1,6}$/
const oneHole = /\$\{[^{}`]{1,200}\}/g
/** The end of one text, something short, and the beginning of another. */
const joined = /^["'`]\s?\+\s?[\w$.[\]()]{1,80}\s?\+\s?["'`]$/

/** What stands between two literals, with holes for what is not known; null where that may be anything. */
function unknownBetween(between: string): string | null {
  if (someHoles.test(between)) return between.replace(oneHole, hole)
  return joined.test(between) ? hole : null
}

/**
 * `` `/flags/${code}.svg` ``, `` `/locales/${language}/${page}.json` ``: whichever files fit are requested by it.
 * @param isParted whether anything that tells of a path stands between the first part and the last
 */
export function namePattern(code: string, first: Literal, last: Literal, isParted: boolean): Reference[] {
  const between = code.slice(first.end, last.start)
  const isOneHole = between.startsWith('${') && between.endsWith('}') && !between.includes('`') && !isParted
  const unknown = unknownBetween(between) ?? (isOneHole ? hole : null)
  if (unknown === null) return []
  // What is put behind something else does not start at the top.
  const before = codeBefore(code, first.start - 1)
  const isJoined = partOrCompared.test(before)
  const raw = (isJoined ? first.value.replace(/^\//, '') : first.value) + unknown + last.value
  if (!/^(?:\.{0,2}\/)?[\w@~-]/.test(raw) || contentTypeOf(last.value) === null || /\s/.test(raw)) return []
  const named = { kind: 'named', raw, against: 'document' } as const
  const sure = elementUrl.test(before) && !isOfComponent(codeBefore(code, first.start - 1, 256))
  return [{ ...named, offset: first.start, length: last.end - first.start, ...(sure && { sure }) }]
}

/** `"/flags/" + code + ".svg"` */
export function joinedPattern(code: string, first: Literal, last: Literal): Reference[] {
  const isPath =
    directory.test(first.value) && looksLikeFile.test(`x${last.value}`) && !last.value.startsWith('/')
  return isPath && joined.test(code.slice(first.end, last.start)) ? namePattern(code, first, last, true) : []
}

/** Markup that ends within the URL of an element: `<img src="/flags/`, or `" src="/flags/` where a hole is in its tag before. */
const openUrl =
  /(?:<(?:img|video|audio|source|iframe|embed|track|input|image|use)\b[^<>]{0,400}\s(?:src|poster|href|xlink:href)|^\\?["'][^<>]{0,400}\s(?:src|poster))\s{0,3}=\s{0,3}\\?["']?([\w@~./-]{1,200})$/i
/** A tag that is longer up to there is not looked at; UTF-16 units. */
const longestTag = 640
/** The rest of it: `.svg" alt="">`. */
const restOfUrl = /^([\w@~./-]{0,200}\.[a-z][\da-z]{1,11})\\?["'\s>]/i

/** Whether markup ends within the URL of an element, so that what comes next may end the name of a file. */
export function opensUrl({ value }: Literal): boolean {
  return value.includes('=') && openUrl.test(value.slice(-longestTag))
}

/** A part of a path between two holes. */
export function isPartOfPath({ value }: Literal): boolean {
  return partOfPath.test(value)
}

const partOfPath = /^[\w@~./-]{1,80}$/

/** `` `<img src="/flags/${code}.svg">` ``, `'<img src="/flags/' + code + '.svg">'` */
export function patternInMarkup(code: string, open: Literal, rest: Literal): Reference[] {
  const [begin, end] = [openUrl.exec(open.value.slice(-longestTag))?.[1], restOfUrl.exec(rest.value)?.[1]]
  const unknown = unknownBetween(code.slice(open.end, rest.start))
  if (begin === undefined || end === undefined || unknown === null || contentTypeOf(end) === null) return []
  const start = open.end - begin.length
  const length = rest.start + end.length - start
  return [
    { kind: 'named', sure: true, raw: begin + unknown + end, against: 'document', offset: start, length },
  ]
}
