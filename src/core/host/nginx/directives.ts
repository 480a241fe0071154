import type { Place } from '../../model/reading.ts'

/** One directive of a configuration: its name, its arguments, and the directives between its braces. */
export interface Directive {
  readonly name: string
  readonly args: readonly string[]
  readonly block: readonly Directive[] | null
  readonly place: Place
  /** As it is written, up to the `;` or the brace that opens its block. */
  readonly source: string
}

/** A configuration that does not follow the grammar, and where. */
export interface Broken {
  readonly what: string
  readonly place: Place
}

/** More levels than this no server's configuration has. */
const mostLevels = 100

/**
 * The directives of a file, as nginx's grammar has them: words, quotes, comments, `;` and braces. What stands before the place where the
 * grammar breaks is given all the same.
 */
export function directivesIn(file: string, text: string): { directives: Directive[]; broken: Broken | null } {
  const top: Directive[] = []
  const open: Directive[][] = [top]
  let words: Token[] = []
  const broken = (what: string, line: number) => ({
    directives: top,
    broken: { what, place: { file, line, column: 1 } },
  })
  for (const token of tokensIn(text)) {
    if (token.kind === 'word') {
      words.push(token)
      continue
    }
    const [name, ...args] = words
    words = []
    if (token.kind === 'close') {
      if (name) return broken(`"${name.text}" is not ended by ";"`, name.line)
      if (open.length === 1) return broken('a "}" closes nothing', token.line)
      open.pop()
      continue
    }
    if (!name) return broken(`"${token.text}" stands where a directive should`, token.line)
    const block: Directive[] | null = token.kind === 'open' ? [] : null
    const place = { file, line: name.line, column: name.column }
    const source = text.slice(name.at, token.at + 1)
    open.at(-1)?.push({ name: name.text, args: args.map(({ text: each }) => each), block, place, source })
    if (block && open.push(block) > mostLevels) return broken('blocks are nested too deeply', token.line)
  }
  const [left] = words
  if (left) return broken(`"${left.text}" is not ended by ";"`, left.line)
  if (open.length > 1) return broken('a "{" is not closed', text.split('\n').length)
  return { directives: top, broken: null }
}

interface Token {
  readonly kind: 'word' | 'end' | 'open' | 'close'
  readonly text: string
  readonly at: number
  readonly line: number
  readonly column: number
}

const kinds: Readonly<Record<string, Token['kind']>> = { ';': 'end', '{': 'open', '}': 'close' }

function* tokensIn(text: string): Generator<Token> {
  let line = 1
  let start = 0
  for (let at = 0; at < text.length; ) {
    const character = text.charAt(at)
    const here = { at, line, column: at - start + 1 }
    if (character === '\n') {
      line++
      at++
      start = at
    } else if (/\s/.test(character)) at++
    else if (character === '#') at = lineEnd(text, at)
    else if (kinds[character]) {
      yield { kind: kinds[character], text: character, ...here }
      at++
    } else {
      const end = wordEnd(text, at)
      const isQuoted = character === '"' || character === "'"
      const inside = isQuoted ? text.slice(at + 1, end - 1) : text.slice(at, end)
      yield { kind: 'word', text: unescaped(inside), ...here }
      for (let next = text.indexOf('\n', at); next >= 0 && next < end; next = text.indexOf('\n', next + 1)) {
        line++
        start = next + 1
      }
      at = end
    }
  }
}

function lineEnd(text: string, at: number): number {
  const end = text.indexOf('\n', at)
  return end < 0 ? text.length : end
}

/** Behind a word: the quote that closes it, or what ends one without quotes. A brace of a variable is part of it. */
function wordEnd(text: string, begin: number): number {
  const quote = /["']/.test(text.charAt(begin)) ? text.charAt(begin) : null
  for (let at = quote ? begin + 1 : begin; at < text.length; at++) {
    const character = text.charAt(at)
    if (character === '\\') at++
    else if (quote ? character === quote : /[\s;]/.test(character)) return quote ? at + 1 : at
    else if (!quote && character === '{' && text.charAt(at - 1) !== '$') return at
  }
  return text.length
}

function unescaped(word: string): string {
  return word.replace(/\\([\\"'trn])/g, (_, character: string) => {
    const blank = 'trn'.indexOf(character)
    return blank < 0 ? character : ('\t\r\n'[blank] ?? '')
  })
}
