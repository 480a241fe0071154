import { contentTypeOf, isKnownExtension } from '../model/content-type.ts'
import type { Reference } from '../model/reference.ts'

/** A path that ends in a file's name, between quotes or what escapes make of them. */
const fileName =
  /(?<=["'`(=,\s]|\\[nrt]|^)((?:https?:(?:\\?\/|\\u002[Ff]){2})?(?:\.{0,2}(?:\\?\/|\\u002[Ff]))?[\w@~%()[\]$+-][\w@~%()[\].$+-]{0,255}(?:(?:\\?\/|\\u002[Ff])[\w@~%()[\].$+-]{1,255}){0,30}\.[A-Za-z][\dA-Za-z]{1,11})(?=[?#\\"'`),\s]|$)/g

/** What is no URL of a file though it ends like one: the text of a link in prose, versions, host names, code. */
const noFile = /\]\(|^[\d.]+$|^\w+\.(?:call|map|js\.org|exports|length)$/

/** What stands behind a name. */
const endsName = /[?#\\"'`),\s]/

/** Letters and digits of an extension. */
const mostOfExtension = 12

/** What a match of `fileName` is made of; between two other characters stands a whole match or none. */
const ofName = /[\w@~%()[\].$+:/\\-]/

/**
 * The names of files in a payload: data in a script's string, in a document or beside it, that a framework reads when
 * the page runs. They count where they name a file of the folder, or one that clearly was there.
 * @param at offset of the text in its file
 */
export function readPayload(text: string, at = 0): Reference[] {
  const found: Reference[] = []
  // Few characters of data are the point of a file's name: the pattern looks at the words with such a point alone.
  for (let point = text.indexOf('.', 1); point >= 0; point = text.indexOf('.', point + 1)) {
    if (!isExtensionAt(text, point)) continue
    let [from, to] = [point, point]
    while (from > 0 && ofName.test(text[from - 1] ?? '')) from--
    while (to < text.length && ofName.test(text[to] ?? '')) to++
    from = Math.max(0, from - 2)
    for (const name of namesIn(text.slice(from, to + 1), at + from)) found.push(name)
    point = to
  }
  return found
}

/** Whether a point stands before an extension that files have on the web, and nothing more of a name behind that. */
function isExtensionAt(text: string, point: number): boolean {
  let end = point + 1
  if (!isLetter(text.charCodeAt(end))) return false
  while (end - point <= mostOfExtension && isLetterOrDigit(text.charCodeAt(end))) end++
  const next = text[end]
  return (next === undefined || endsName.test(next)) && isKnownExtension(text.slice(point + 1, end))
}

/** The names in a stretch of text that starts at this offset of its file. */
function* namesIn(stretch: string, at: number): Iterable<Reference> {
  for (const match of stretch.matchAll(fileName)) {
    const written = match[1] ?? ''
    const raw = written.includes('\\') ? written.replace(/\\u002[Ff]|\\\//g, '/') : written
    if (raw.includes('\\') || noFile.test(raw) || contentTypeOf(raw) === null) continue
    yield { kind: 'named', raw, against: 'document', offset: at + match.index, length: written.length }
  }
}

function isLetter(code: number): boolean {
  return (code >= 97 && code <= 122) || (code >= 65 && code <= 90)
}

function isLetterOrDigit(code: number): boolean {
  return isLetter(code) || (code >= 48 && code <= 57)
}
