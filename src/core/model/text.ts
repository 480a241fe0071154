import { FolderError } from './errors.ts'
import { type Folder, largestText } from './folder.ts'

const utf8 = new TextDecoder('utf-8')

/**
 * Decodes built text as a browser does where the host names no encoding: a byte order mark decides and is dropped (Encoding
 * standard, 6.1 "decode"); else what a page or style sheet declares at its beginning; else UTF-8. Bad bytes are replaced.
 */
export function decode(bytes: Uint8Array): string {
  const [first, second] = bytes
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes)
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes)
  const text = utf8.decode(bytes)
  return mayDeclare.test(text) ? (declaredIn(text)?.decode(bytes) ?? text) : text
}

/** A page or a style sheet; what declares another encoding is written in letters that are the same in all of them. */
const mayDeclare = /^(?:@|\s{0,1000}<)/
/** As far as browsers look for a declaration; bytes, and as good as UTF-16 units. */
const declaredWithin = 1_024
const declaration = /^@charset "([\w:.-]+)";|<meta\s[^>]{0,400}?charset\s{0,9}=\s{0,9}["']?\s{0,9}([\w:.-]+)/i

/** The decoder of the encoding that a text declares (HTML standard, 13.2.3.2 "prescan"); null for UTF-8 and what is none. */
function declaredIn(text: string): typeof utf8 | null {
  const [, sheet, page] = declaration.exec(text.slice(0, declaredWithin)) ?? []
  const label = sheet ?? page
  // A declaration that could be read in one byte after the other is of no encoding of two.
  if (label === undefined || /^utf-?(?:8|16)/i.test(label)) return null
  try {
    return new TextDecoder(label)
  } catch {
    return null
  }
}

/** A text without halves of characters, which no URL and no file can hold; each is replaced. */
export function wellFormed(text: string): string {
  return text.replace(/\p{Surrogate}/gu, '\ufffd')
}

/**
 * The text of a file, or null when there is no such file.
 * @param most the largest file that is read; bytes
 * @throws {FolderError} when the file can't be read, or is larger
 */
export async function readText(folder: Folder, path: string, most = largestText): Promise<string | null> {
  const text = atOnce(folder, path, most)
  try {
    // What is no UTF-8 may declare what it is.
    return text === undefined || text?.includes('\ufffd') ? decode(await folder.read(path, most)) : text
  } catch (error) {
    return nullIfMissing(error)
  }
}

/**
 * The text of a file where it can be had without waiting, else null: waiting for thousands of small files costs as much
 * as to read them. What is marked as another encoding comes out broken, and is left to {@link decode}.
 * @throws {FolderError} when the file can't be read.
 */
export function textAtOnce(folder: Folder, path: string, most = largestText): string | null {
  return atOnce(folder, path, most) ?? null
}

/** Null when there is no such file, undefined when its text can't be had at once. */
function atOnce(folder: Folder, path: string, most: number): string | null | undefined {
  try {
    const text = folder.readUtf8?.(path, most)
    if (text === undefined || text.startsWith('\ufffd\ufffd')) return undefined
    return text.startsWith('\ufeff') ? text.slice(1) : text
  } catch (error) {
    return nullIfMissing(error)
  }
}

function nullIfMissing(error: unknown): null {
  if (error instanceof FolderError && error.reason === 'missing') return null
  throw error
}

/** Line and column, both counted from 1; columns in UTF-16 code units, as editors and source maps count. */
export interface Position {
  readonly line: number
  readonly column: number
}

/** Where an offset is. Linear in the text: meant for the few places that are shown. */
export function positionAt(text: string, offset: number): Position {
  let line = 1
  let start = 0
  for (let at = text.indexOf('\n'); at >= 0 && at < offset; at = text.indexOf('\n', start)) {
    line++
    start = at + 1
  }
  return { line, column: offset - start + 1 }
}

/** Finds positions in a text that is requested often: binary search over its line starts. */
export function positionsIn(text: string): (offset: number) => Position {
  const starts = [0]
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1)
  return (offset) => {
    let low = 0
    let high = starts.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((starts[middle] ?? 0) <= offset) low = middle
      else high = middle - 1
    }
    return { line: low + 1, column: offset - (starts[low] ?? 0) + 1 }
  }
}

/** Control characters and direction marks, which could rewrite a terminal line or disguise a name. */
const unprintable = /[\u0000-\u001f\u007f-\u009f\u061c\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufeff]/g

/** Text from a build, made safe to show on one line. */
export function printable(text: string): string {
  return text.replace(/\s+/g, ' ').replace(unprintable, '\ufffd')
}

/** A piece of text with the part that is meant: offsets in UTF-16 code units. */
export interface Excerpt {
  readonly text: string
  readonly highlight: { readonly start: number; readonly length: number }
}

/** About `width` characters around a span, on one line, with ellipses where the line goes on. */
export function excerptAround(text: string, offset: number, length: number, width = 80): Excerpt {
  const lineStart = text.lastIndexOf('\n', offset - 1) + 1
  const newline = text.indexOf('\n', offset)
  const lineEnd = newline < 0 ? text.length : newline
  const room = Math.max(0, width - length)
  let start = Math.max(lineStart, offset - Math.floor(room / 2))
  const end = Math.min(lineEnd, start + width)
  start = Math.max(lineStart, Math.min(start, end - width))
  const stop = Math.min(end, offset + length)
  const before = printable(text.slice(start, offset)).trimStart()
  const meant = printable(text.slice(offset, stop))
  const after = printable(text.slice(stop, end)).trimEnd()
  const head = text.slice(lineStart, start).trim() === '' ? '' : '…'
  const tail = text.slice(end, lineEnd).trim() === '' ? '' : '…'
  const shown = `${head}${before}${meant}${after}`.trimEnd()
  return {
    text: `${shown}${tail}`,
    highlight: {
      start: head.length + before.length,
      length: Math.max(0, Math.min(meant.length, shown.length - head.length - before.length)),
    },
  }
}

/** The text of {@link excerptAround}. */
export function excerptAt(text: string, offset: number, length: number, width = 80): string {
  return excerptAround(text, offset, length, width).text
}

/** The known word nearest to what was typed, or null when none is near. Damerau-Levenshtein distance, at most a third of the word. */
export function nearest(word: string, known: readonly string[]): string | null {
  let best: string | null = null
  let least = Math.max(2, Math.floor(word.length / 3)) + 1
  for (const candidate of known) {
    const distance = editDistance(word, candidate)
    if (distance < least) {
      least = distance
      best = candidate
    }
  }
  return best
}

function editDistance(a: string, b: string): number {
  let before: number[] = []
  let row = Array.from({ length: b.length + 1 }, (_, index) => index)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1]
      let cost = Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + (same ? 0 : 1))
      if (a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) cost = Math.min(cost, (before[j - 2] ?? 0) + 1)
      next.push(cost)
    }
    before = row
    row = next
  }
  return row[b.length] ?? 0
}

/** A text as a regular expression that fits it and nothing else. */
export function escapePattern(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
}

/** A whole number with commas between thousands. The system's own way loads tables of all languages first, for 20 ms. */
export function grouped(count: number): string {
  const digits = String(count)
  const parts: string[] = []
  for (let end = digits.length; end > 0; end -= 3) parts.unshift(digits.slice(Math.max(0, end - 3), end))
  return parts.join(',')
}

/** `1 file`, `2 files`. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${grouped(count)} ${count === 1 ? one : many}`
}

/** Bytes as people say them: 436 kB, 1.2 MB (SI units). */
export function bytesInWords(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`
  const kilo = bytes / 1000
  return kilo < 1000
    ? `${kilo < 10 ? kilo.toFixed(1) : Math.round(kilo)} kB`
    : `${(kilo / 1000).toFixed(1)} MB`
}

/** A list in groups, each in the order of the list. */
export function groupedBy<T>(list: Iterable<T>, keyOf: (each: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const each of list) {
    const key = keyOf(each)
    const known = groups.get(key)
    if (known) known.push(each)
    else groups.set(key, [each])
  }
  return groups
}

/** Percent-decoding that leaves alone what is not well encoded. */
export function safeDecode(path: string): string {
  if (!path.includes('%')) return path
  try {
    return decodeURIComponent(path)
  } catch {
    return path
  }
}

/** `A`, `A and B`, `A, B and C`. */
export function listed(names: readonly string[]): string {
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '')
}

/** How long something is, in the unit that a person would take. */
export function span(seconds: number): string {
  if (seconds < 120) return `${Math.round(seconds)} seconds`
  if (seconds < 7_200) return `${Math.round(seconds / 60)} minutes`
  return seconds < 172_800 ? `${Math.round(seconds / 3_600)} hours` : `${Math.round(seconds / 86_400)} days`
}

/** Where a line begins, counted from 1. */
export function startOfLine(source: string, line: number): number {
  let at = 0
  for (let passed = 1; passed < line; passed++) at = source.indexOf('\n', at) + 1
  return at
}
