import type { Place } from '../../model/reading.ts'

/** A directive, or a section with what stands in it: `<Directory "/srv">`. */
export interface Directive {
  /** In small letters: httpd does not tell letters apart. */
  readonly name: string
  readonly args: readonly string[]
  readonly inside: readonly Directive[] | null
  readonly place: Place
}

export interface Broken {
  readonly what: string
  readonly place: Place
}

const mostLevels = 100

/** The directives of a configuration or an `.htaccess`, line by line, as httpd's grammar has them. */
export function directivesIn(file: string, text: string): { directives: Directive[]; broken: Broken[] } {
  const top: Directive[] = []
  const open: { name: string; list: Directive[] }[] = [{ name: '', list: top }]
  const broken: Broken[] = []
  for (const { written, line, column } of linesIn(text)) {
    const place = { file, line, column }
    const [, close] = /^<\/(\w+)\s*>/.exec(written) ?? []
    if (close !== undefined) {
      if (open.length > 1 && open.at(-1)?.name === close.toLowerCase()) open.pop()
      else broken.push({ what: `</${close}> closes nothing`, place })
      continue
    }
    const [, section] = /^<(\w+)/.exec(written) ?? []
    const rest = section === undefined ? '' : written.slice(section.length + 1).trim()
    const words =
      section === undefined
        ? argumentsIn(written)
        : [section, ...argumentsIn(rest.endsWith('>') ? rest.slice(0, -1) : rest)]
    const [name = '', ...args] = words
    const list: Directive[] | null = section === undefined ? null : []
    open.at(-1)?.list.push({ name: name.toLowerCase(), args, inside: list, place })
    if (list && open.push({ name: name.toLowerCase(), list }) > mostLevels) {
      broken.push({ what: 'sections are nested too deeply', place })
      break
    }
  }
  const left = open.at(-1)
  if (open.length > 1 && left) {
    const line = text.split('\n').length
    broken.push({ what: `<${left.name}> is not closed`, place: { file, line, column: 1 } })
  }
  return { directives: top, broken }
}

/** Lines without comments; one that ends with a backslash goes on in the next. */
function* linesIn(text: string): Generator<{ written: string; line: number; column: number }> {
  const lines = text.split(/\r?\n/)
  for (let at = 0; at < lines.length; at++) {
    const line = at + 1
    let written = lines[at] ?? ''
    const column = written.length - written.trimStart().length + 1
    while (written.endsWith('\\') && at + 1 < lines.length) written = written.slice(0, -1) + lines[++at]
    written = written.trim()
    if (written !== '' && !written.startsWith('#')) yield { written, line, column }
  }
}

/** Words, those in quotes with their blanks. */
function argumentsIn(text: string): string[] {
  const words = text.matchAll(/"((?:[^"\\]|\\[\s\S])*)"?|'((?:[^'\\]|\\[\s\S])*)'?|(\S+)/g)
  return [...words].map(
    ([, double, single, plain]) => plain ?? (double ?? single ?? '').replace(/\\(["'])/g, '$1'),
  )
}
