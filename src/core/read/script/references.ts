import { contentTypeOf } from '../../model/content-type.ts'
import { isHashed } from '../../model/fingerprint.ts'
import type { Reference, ReferenceKind } from '../../model/reference.ts'
import { readHtml } from '../html/document.ts'
import { chunksOf, publicPathIn } from './chunk-runtime.ts'
import { codeAfter, codeBefore, type Literal, type Literals } from './literal.ts'

const importFrom = /(?:^|[^\w$.])(?:from|import)$/
const importCall = /(?:^|[^\w$.])import\($/
const newUrl = /(?:^|[^\w$.])new URL\($/
const newWorker = /(?:^|[^\w$.])new (?:Shared)?Worker\($/
const ofThisModule = /^,\s*(?:\w+\.)?import\.meta\.url|^,\s*\w{1,3}\.url\b/
const ofThePage = /^,\s*(?:window\.|self\.)?(?:document\.baseURI|location(?:\.href)?|document\.location)\b/
/** The keys and attributes that hold an element's URL: `src:"…"`, `.href=`, `"poster",`. */
const elementUrl = /(?:^|[^\w$-])["'`]?(?:src|href|poster|xlinkHref|xlink:href)["'`]?\s*[:=,]$/
/** `n.p+"static/media/chart.4f7d20aa.svg"`: webpack and its kin put the public path before what they emit. */
const afterPublicPath = /(?:^|[^\w$.])[\w$]+\.p\+$/
/** The end of a concatenation, or something compared with: `base + "/index.html"`, `endsWith("/index.txt")`. */
const partOrCompared =
  /\+$|[!=]==?$|(?:endsWith|startsWith|includes|indexOf|test|match|replace|replaceAll|split)\($/
const looksLikeFile = /^[^\s<>"'`{}|\\^]*\.[a-z][\da-z]{1,11}(?:[?#][^\s]*)?$/i
const markup = /<[a-z][\w-]*\s[^>]*\b(?:src|href|poster|data)\s*=/i

/** What a script asks for, seen in its literals. */
export function referencesOf(code: string, literals: Literals): Reference[] {
  const found: Reference[] = []
  let list: PreloadList | null = null
  for (const literal of literals.telling) {
    const { value, start, end } = literal
    list = continueList(code, literal, list)
    if (list) {
      found.push(reference('preload', value, 'bundle-base', literal))
      continue
    }
    const whole = literal.first && literal.last
    if (!whole || value.length > 2_048) continue
    if (value.includes('<') && markup.test(value)) {
      found.push(...markupReferences(code.slice(start, end), start))
      continue
    }
    const kind = moduleReference(code, literal)
    if (kind) found.push(reference(kind.kind, value, kind.against, literal))
    else if (looksLikeFile.test(value)) found.push(...namedReference(code, literal))
  }
  return [...found, ...chunksOf(code)]
}

/** Imports, workers and `new URL(…, import.meta.url)`: the syntax alone says what they are. */
function moduleReference(
  code: string,
  { value, start, end }: Literal,
): { kind: ReferenceKind; against: Reference['against'] } | null {
  const before = codeBefore(code, start - 1)
  // A bare name is for an import map or a bundler, not for a URL.
  const isUrl = /^(?:\.{0,2}\/|https?:)/.test(value)
  if (isUrl && importFrom.test(before)) return { kind: 'import', against: 'file' }
  if (isUrl && importCall.test(before)) return { kind: 'lazy-import', against: 'file' }
  if (newUrl.test(before) && ofThisModule.test(codeAfter(code, end + 1)))
    return { kind: 'file', against: 'file' }
  if (newUrl.test(before) && ofThePage.test(codeAfter(code, end + 1)))
    return { kind: 'file', against: 'page' }
  if (newWorker.test(before) && !value.startsWith('data:')) return { kind: 'script', against: 'document' }
  return null
}

function namedReference(code: string, literal: Literal): Reference[] {
  const path = literal.value.replace(/[?#].*$/, '')
  if (literal.value.includes('://') || contentTypeOf(path) === null) return []
  const before = codeBefore(code, literal.start - 1)
  if (afterPublicPath.test(before) && isHashed(path))
    return [reference('file', literal.value, 'bundle-base', literal)]
  if (partOrCompared.test(before)) return []
  const sure = elementUrl.test(before)
  const named = reference('named', literal.value, 'document', literal)
  return [sure ? { ...named, sure: true } : named]
}

/** Markup that a script writes into the page: what it asks for counts only when it looks like one of our files. */
function markupReferences(markupText: string, at: number): Reference[] {
  return readHtml(markupText, at).references.flatMap((found) =>
    found.kind !== 'page' && !found.raw.includes('${') && looksLikeFile.test(found.raw)
      ? [{ ...found, kind: 'named', sure: true } as const]
      : [],
  )
}

/** The array of a preload list that is being read: where its bracket opened. */
interface PreloadList {
  readonly end: number
}

/**
 * Vite writes the files to preload before a lazy chunk as one array, `m.f=["assets/a.js","assets/b.css"]`; the
 * base path is put before each when the page runs. Checked against Vite 8.
 */
function continueList(code: string, literal: Literal, list: PreloadList | null): PreloadList | null {
  if (list) return literal.start < list.end ? list : null
  if (!/\.f\s*=\s*\[$/.test(codeBefore(code, literal.start - 1, 16))) return null
  if (!code.slice(Math.max(0, literal.start - 200), literal.start).includes('__vite__mapDeps')) return null
  const end = code.indexOf(']', literal.end)
  return { end: end < 0 ? code.length : end }
}

const baseHelper = /(?:return|=>)\s*\(?\s*$/

/** The base path that a bundler's own helper puts before chunk names: ``return`/crossings/`+e``. Checked against Vite 8. */
export function bundleBaseOf(code: string, literals: Literals): string | null {
  if (code.includes('.u=')) {
    const stated = publicPathIn(code)
    if (stated !== null) return stated
  }
  if (!code.includes('modulepreload')) return null
  for (const literal of literals.telling) {
    const { value, start, end, first, last } = literal
    if (!first || !last || !/^(?:\/|https?:\/\/)(?:.*\/)?$/.test(value)) continue
    if (
      baseHelper.test(codeBefore(code, start - 1, 12)) &&
      /^\+\s*\w+\s*[};)]/.test(codeAfter(code, end + 1))
    ) {
      return value
    }
  }
  return null
}

function reference(
  kind: ReferenceKind,
  raw: string,
  against: Reference['against'],
  { start, end }: Literal,
): Reference {
  return { kind, raw, against, offset: start, length: end - start }
}
