import { extensionOf } from '../../model/folder.ts'

/**
 * The script of a source file, at the offsets it has in the file: all of it, or what stands in `<script>` elements
 * and between an Astro file's fences. The rest is blanked, line breaks kept.
 */
export function scriptOf(path: string, text: string): string {
  const extension = extensionOf(path)
  if (extension === 'css' || extension === 'scss') return ''
  if (['html', 'vue', 'svelte', 'md', 'mdx'].includes(extension)) return keep(text, scriptElement)
  if (extension === 'astro') return keep(text, /()(^---$[\s\S]*?^---$|<script\b[^>]*>[\s\S]*?<\/script>)/gm)
  return text
}

/**
 * The expressions that the markup of a Svelte or Astro file holds in braces, each a script by itself at the lines and
 * columns it has in the file.
 */
export function* markupExpressions(path: string, text: string): Generator<string> {
  if (!['svelte', 'astro'].includes(extensionOf(path))) return
  const markup = text.replace(noMarkup, blank)
  for (let start = markup.indexOf('{'); start >= 0; start = markup.indexOf('{', start)) {
    const end = closingBrace(markup, start)
    const inner = markup.slice(start + 1, end).replace(/^[#@:](?:else )?\w+/, blank)
    yield `${blank(text.slice(0, start))}(${inner})`
    start = end
  }
}

const noMarkup = /^---$[\s\S]*?^---$|<(script|style)\b[^>]*>[\s\S]*?<\/\1>|<!--[\s\S]*?-->/gm

function closingBrace(text: string, start: number): number {
  let depth = 0
  for (let at = start; at < text.length; at++) {
    if (text[at] === '{') depth++
    else if (text[at] === '}' && --depth === 0) return at
  }
  return text.length
}

const scriptElement = /(<script\b[^>]*>)([\s\S]*?)<\/script>/gi

function keep(text: string, pattern: RegExp): string {
  let out = ''
  let end = 0
  for (const match of text.matchAll(pattern)) {
    const start = match.index + (match[1] ?? '').length
    const kept = (match[2] ?? '').replace(/^---|---$|<\/?script[^>]*>/g, blank)
    out += blank(text.slice(end, start)) + kept
    end = start + kept.length
  }
  return out + blank(text.slice(end))
}

function blank(text: string): string {
  return text.replace(/[^\n]/g, ' ')
}

/** The name a file of this path is parsed under, so that its syntax is chosen rightly. */
export function scriptName(path: string): string {
  return /\.(?:vue|svelte|astro|html|mdx?)$/.test(path) ? `${path}.ts` : path
}

/** A line that may begin a statement at the top of a module, as people and formatters write them. */
const statementStart = /^(?=[A-Za-z_$@])/m

/** Blanks the top-level statements that are not wanted, line breaks kept. A guess: what it leaves may be no sound module. */
export function keepStatements(script: string, wanted: (statement: string) => boolean): string {
  return (
    script
      .split(statementStart)
      // Pieces begin with a line, so its breaks alone keep all places.
      .map((piece) => (wanted(piece) ? piece : '\n'.repeat(piece.split('\n').length - 1)))
      .join('')
  )
}
