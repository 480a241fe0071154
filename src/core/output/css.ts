import type { Reference, ReferenceKind } from '../model/reference.ts'
import { tokensOfCss } from './css-tokens.ts'

/** Fonts are kept apart from pictures because a page without them still reads. */
const fontFile = /\.(woff2?|ttf|otf|eot)(?:[?#]|$)/i

/** The forms that browsers of today read (CSS Fonts Level 4, 4.3.1); what is given another is passed over. */
const readFormats = /^(?:woff2?|truetype|opentype|collection)(?:-variations)?$/i
const oldFont = /\.eot(?:[?#]|$)/i
const formatAfter = /^\s*format\(\s*["']?([\w-]+)/i

/**
 * The URLs a style sheet makes a browser fetch: `url()`, `src()`, `@import` and the strings of `image-set()`.
 * @param at offset of the text in its file, for styles inside documents
 * @param against what relative URLs are resolved against
 */
export function readCss(css: string, at = 0, against: Reference['against'] = 'file'): Reference[] {
  const found: Reference[] = []
  const functions: string[] = []
  let importing = false
  let block = 0
  let isFace = false
  // Of the fonts that one declaration names, the first that a browser can read is taken.
  let chosen = false
  let faces: number[] = []
  const add = (kind: ReferenceKind, start: number, end: number): void => {
    const raw = unescapeCss(css.slice(start, end)).trim()
    if (raw === '' || raw.startsWith('#')) return
    const named = kind === 'image' && fontFile.test(raw) ? 'font' : kind
    const place = { kind: named, raw, against, offset: at + start, length: end - start } as const
    if (named !== 'font' && !isFace) {
      found.push(place)
      return
    }
    const format = formatAfter.exec(css.slice(end, end + 80).replace(/^["']?\s*\)/, ''))?.[1]
    const old = oldFont.test(raw) || (format !== undefined && !readFormats.test(format))
    if (!old && !chosen) faces.push(found.length)
    // Nothing requests the others while that one is there; they count where they name a file.
    found.push(old || chosen ? { ...place, kind: 'named' } : { ...place, kind: 'font' })
    chosen ||= !old
  }
  const endBlock = (end: number): void => {
    // A face for other letters than those of most pages is fetched when one of its letters is met.
    if (faces.length > 0 && isForOtherLetters(css.slice(block, end))) {
      for (const index of faces) found[index] = { ...(found[index] as Reference), later: true }
    }
    // A second `src` takes the place of the first.
    if (isFace)
      for (const index of faces.slice(0, -1)) found[index] = { ...(found[index] as Reference), kind: 'named' }
    faces = []
    isFace = false
  }
  tokensOfCss(css, (type, start, end) => {
    if (type === 'at-keyword') {
      const rule = css.slice(start, end).toLowerCase()
      importing = rule === '@import'
      isFace = rule === '@font-face'
    } else if (type === ';' || type === '{') {
      importing = false
      chosen = false
      if (type === '{') block = start
    } else if (type === '}') {
      endBlock(start)
      chosen = false
    } else if (type === 'function') functions.push(css.slice(start, end - 1).toLowerCase())
    else if (type === '(') functions.push('')
    else if (type === ')') functions.pop()
    else if (type === 'url') {
      const [from, to] = urlBounds(css, start, end)
      add(importing ? 'style' : 'image', from, to)
      importing = false
    } else if (type === 'string' || type === 'bad string') {
      const within = functions.at(-1) ?? ''
      const wanted = importing || within === 'url' || within === 'src' || within.endsWith('image-set')
      if (wanted) add(importing ? 'style' : 'image', start + 1, type === 'string' ? end - 1 : end)
      importing = false
    }
  })
  return found
}

const lettersOf = /unicode-range\s*:([^;}]*)/i

/** Whether a face is limited to letters other than A to z (CSS Fonts Level 4, 4.5 "unicode-range"). */
function isForOtherLetters(block: string): boolean {
  const letters = lettersOf.exec(block)?.[1]
  if (letters === undefined) return false
  const ranges = [...letters.matchAll(/u\+([\da-f?]+)(?:-([\da-f]+))?/gi)]
  return !ranges.some(([, from = '', to]) => {
    const first = Number.parseInt(from.replaceAll('?', '0'), 16)
    const last = Number.parseInt(to ?? from.replaceAll('?', 'f'), 16)
    return first <= 0x7a && last >= 0x41
  })
}

/** The bounds of the URL inside an unquoted `url(…)`. */
function urlBounds(css: string, start: number, end: number): [number, number] {
  let from = css.indexOf('(', start) + 1
  let to = css.charCodeAt(end - 1) === 41 ? end - 1 : end
  while (from < to && css.charCodeAt(from) <= 32) from++
  while (to > from && css.charCodeAt(to - 1) <= 32) to--
  return [from, to]
}

/** Resolves CSS escapes (CSS Syntax Level 3, 4.3.7): hex with an optional space after it, or any character. */
function unescapeCss(text: string): string {
  if (!text.includes('\\')) return text
  return text.replace(
    /\\(?:([\da-f]{1,6})\s?|(\r\n|[\s\S]))/gi,
    (_, hex: string | undefined, other: string) => {
      if (hex === undefined) return /[\r\n\f]/.test(other) ? '' : other
      const code = Number.parseInt(hex, 16)
      return code === 0 || code > 0x10ffff ? '\ufffd' : String.fromCodePoint(code)
    },
  )
}
