import { contentTypeOf } from '../model/content-type.ts'
import type { Reference } from '../model/reference.ts'

/** A path that ends in a file's name, between quotes or what escapes make of them. */
const fileName =
  /(?<=["'`(=,\s]|\\[nrt]|^)((?:https?:(?:\\?\/|\\u002[Ff]){2})?(?:\.{0,2}(?:\\?\/|\\u002[Ff]))?[\w@~%()[\]$+-][\w@~%()[\].$+-]{0,255}(?:(?:\\?\/|\\u002[Ff])[\w@~%()[\].$+-]{1,255}){0,30}\.[A-Za-z][\dA-Za-z]{1,11})(?=[?#\\"'`),\s]|$)/g

/** What is no URL of a file though it ends like one: the text of a link in prose, versions, host names, code. */
const noFile = /\]\(|^[\d.]+$|^\w+\.(?:call|map|js\.org|exports|length)$/

/**
 * The names of files in a payload: data in a script's string, in a document or beside it, that a framework reads when
 * the page runs. They count where they name a file of the folder, or one that clearly was there.
 * @param at offset of the text in its file
 */
export function readPayload(text: string, at = 0): Reference[] {
  if (!text.includes('.')) return []
  const found: Reference[] = []
  for (const match of text.matchAll(fileName)) {
    const written = match[1] ?? ''
    const raw = written.includes('\\') ? written.replace(/\\u002[Ff]|\\\//g, '/') : written
    if (raw.includes('\\') || noFile.test(raw) || contentTypeOf(raw) === null) continue
    found.push({ kind: 'named', raw, against: 'document', offset: at + match.index, length: written.length })
  }
  return found
}
