import { decodeHTMLAttribute } from 'entities'

/** One attribute, its character references resolved, and where its value is written. */
export interface Attribute {
  readonly value: string
  readonly offset: number
  readonly length: number
}

/** The attributes of one start tag. Looked up when requested: most tags of a page hold nothing of interest. */
export class Attributes {
  readonly #html: string
  readonly #spans: number[] = []

  constructor(html: string) {
    this.#html = html
  }

  /** Forgets the tag before. */
  clear(): void {
    this.#spans.length = 0
  }

  add(nameStart: number, nameEnd: number, valueStart: number, valueEnd: number): void {
    this.#spans.push(nameStart, nameEnd, valueStart, valueEnd)
  }

  /** The first attribute of a name (HTML standard, 13.2.5.33: later ones are dropped). */
  get(name: string): Attribute | null {
    const html = this.#html
    const spans = this.#spans
    for (let i = 0; i < spans.length; i += 4) {
      const start = spans[i] ?? 0
      const end = spans[i + 1] ?? 0
      if (end - start === name.length && isNamed(html, start, name)) return this.#at(i)
    }
    return null
  }

  /** Those whose names begin with a text, each with the rest of its name. */
  *beginning(prefix: string): Generator<readonly [string, Attribute]> {
    for (let i = 0; i < this.#spans.length; i += 4) {
      const start = this.#spans[i] ?? 0
      const end = this.#spans[i + 1] ?? 0
      if (end - start <= prefix.length || !isNamed(this.#html, start, prefix)) continue
      yield [this.#html.slice(start + prefix.length, end), this.#at(i)]
    }
  }

  #at(i: number): Attribute {
    const offset = this.#spans[i + 2] ?? 0
    const raw = this.#html.slice(offset, this.#spans[i + 3])
    return { value: raw.includes('&') ? decodeHTMLAttribute(raw) : raw, offset, length: raw.length }
  }
}

/** Called for every start tag, its name in lower case. */
export type OnTag = (name: string, attributes: Attributes) => void
/** Called for the text of `<script>` and `<style>`, after their tag. */
export type OnText = (name: string, start: number, end: number) => void

const SPACE = 1
const NAME_END = 2
const kinds = new Uint8Array(128)
for (const c of [9, 10, 12, 13, 32]) kinds[c] = SPACE
for (const c of [47, 62]) kinds[c] = NAME_END

/** Elements whose content is text to their end tag, or to the end of the file (HTML standard, 13.2.6.4.4 and 13.2.6.4.7). */
const rawText = new Set(['script', 'style', 'title', 'textarea', 'xmp', 'iframe', 'noembed', 'noframes'])

/**
 * Goes once over a document and reports start tags and the text of scripts and styles, as the tokenizer of the HTML
 * standard (13.2.5) does. Text between tags is skipped, not copied: that is most of a page. Never throws.
 * `<noscript>` is read as its visitors without scripts have it.
 */
export function scanHtml(html: string, onTag: OnTag, onText: OnText): void {
  const attributes = new Attributes(html)
  let foreign = 0
  let at = 0
  for (;;) {
    at = html.indexOf('<', at)
    if (at < 0) return
    const next = html.charCodeAt(at + 1)
    if (next === 33) at = declarationEnd(html, at, foreign > 0)
    else if (next === 63) at = after(html, '>', at + 2)
    else if (next === 47) {
      const opens = isLetter(html.charCodeAt(at + 2))
      if (opens && foreign > 0 && /^(?:svg|math)[\s/>]/i.test(html.slice(at + 2, at + 7))) foreign--
      at = opens ? tagEnd(html, nameEnd(html, at + 2), attributes) : after(html, '>', at + 2)
    } else if (isLetter(next)) {
      const end = nameEnd(html, at + 1)
      const name = lower(html, at + 1, end)
      attributes.clear()
      const start = tagEnd(html, end, attributes)
      // A tag that the end of the file cuts off is dropped, as browsers do.
      if (start < 0) return
      onTag(name, attributes)
      at = start
      const closed = foreign > 0 && html.charCodeAt(start - 2) === 47
      if (name === 'svg' || name === 'math') foreign += html.charCodeAt(start - 2) === 47 ? 0 : 1
      else if (rawText.has(name) && !closed && (foreign === 0 || name === 'script' || name === 'style')) {
        const stop = name === 'script' ? scriptEnd(html, start) : endTag(html, name, start)
        if (name === 'script' || name === 'style') onText(name, start, stop)
        at = stop
      } else if (name === 'plaintext') return
    } else at++
    if (at < 0) return
  }
}

/** Reads attributes from the end of a tag's name; returns what follows the tag, or -1 at the end of the file. */
function tagEnd(html: string, from: number, attributes: Attributes): number {
  const length = html.length
  let at = from
  for (;;) {
    while (at < length && (isSpace(html.charCodeAt(at)) || html.charCodeAt(at) === 47)) at++
    if (at >= length) return -1
    if (html.charCodeAt(at) === 62) return at + 1
    const name = at
    at++ // a name may begin with "="
    while (at < length && html.charCodeAt(at) !== 61 && !endsName(html.charCodeAt(at))) at++
    const nameStop = at
    while (at < length && isSpace(html.charCodeAt(at))) at++
    if (html.charCodeAt(at) !== 61) {
      attributes.add(name, nameStop, nameStop, nameStop)
      continue
    }
    at++
    while (at < length && isSpace(html.charCodeAt(at))) at++
    const quote = html.charCodeAt(at)
    if (quote === 34 || quote === 39) {
      const close = html.indexOf(quote === 34 ? '"' : "'", at + 1)
      if (close < 0) return -1
      attributes.add(name, nameStop, at + 1, close)
      at = close + 1
    } else {
      const start = at
      while (at < length && html.charCodeAt(at) !== 62 && !isSpace(html.charCodeAt(at))) at++
      attributes.add(name, nameStop, start, at)
    }
  }
}

/** Comments, doctypes, CDATA sections, and what is taken for a comment. */
function declarationEnd(html: string, at: number, foreign: boolean): number {
  if (foreign && html.startsWith('<![CDATA[', at)) return after(html, ']]>', at + 9)
  if (!html.startsWith('<!--', at)) return after(html, '>', at + 2)
  if (html.startsWith('>', at + 4)) return at + 5
  if (html.startsWith('->', at + 4)) return at + 6
  const end = /--!?>/g
  end.lastIndex = at + 4
  return end.exec(html) ? end.lastIndex : -1
}

/** Where a raw text element's end tag begins, or the end of the file. */
function endTag(html: string, name: string, from: number): number {
  const length = name.length
  for (let at = html.indexOf('</', from); at >= 0; at = html.indexOf('</', at + 2)) {
    if (isNamed(html, at + 2, name) && endsName(html.charCodeAt(at + 2 + length))) return at
  }
  return html.length
}

/** The same for scripts, which may hold `<!-- <script></script> -->` (HTML standard, 13.2.5.17 to 13.2.5.31). */
function scriptEnd(html: string, from: number): number {
  const first = endTag(html, 'script', from)
  const comment = html.indexOf('<!--', from)
  if (comment < 0 || comment > first) return first
  const marks = /<!--|-->|<\/?script(?=[\t\n\f\r />])/gi
  marks.lastIndex = comment
  let state: 'plain' | 'escaped' | 'doubly escaped' = 'plain'
  for (let mark = marks.exec(html); mark; mark = marks.exec(html)) {
    const text = mark[0].toLowerCase()
    if (text === '<!--') {
      if (state === 'plain') state = 'escaped'
      marks.lastIndex -= 2 // its dashes may also end it: <!-->
    } else if (text === '-->') state = 'plain'
    else if (text === '<script') state = state === 'plain' ? 'plain' : 'doubly escaped'
    else if (state === 'doubly escaped') state = 'escaped'
    else return mark.index
  }
  return html.length
}

function after(html: string, text: string, from: number): number {
  const at = html.indexOf(text, from)
  return at < 0 ? -1 : at + text.length
}

function nameEnd(html: string, from: number): number {
  let at = from
  while (at < html.length && !endsName(html.charCodeAt(at))) at++
  return at
}

/** The name in lower case; names that are so already are not copied twice. */
function lower(html: string, start: number, end: number): string {
  const name = html.slice(start, end)
  for (let i = start; i < end; i++) {
    const c = html.charCodeAt(i)
    if (c >= 65 && c <= 90) return name.toLowerCase()
  }
  return name
}

function isNamed(html: string, start: number, name: string): boolean {
  for (let i = 0; i < name.length; i++) {
    const c = html.charCodeAt(start + i)
    if ((c >= 65 && c <= 90 ? c | 32 : c) !== name.charCodeAt(i)) return false
  }
  return true
}

function isLetter(c: number): boolean {
  return (c | 32) >= 97 && (c | 32) <= 122
}

function isSpace(c: number): boolean {
  return kinds[c] === SPACE
}

function endsName(c: number): boolean {
  return c < 128 && kinds[c] !== 0
}
