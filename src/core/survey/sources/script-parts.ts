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
