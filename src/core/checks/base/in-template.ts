import type { Edit } from '../../model/report.ts'
import type { SourceMatch } from '../../project/sources/sources.ts'

/** The edits that put the base path before a URL, and the steps that say so. */
interface Corrected {
  readonly edits: readonly Edit[]
  readonly steps: readonly string[]
}

/**
 * How a URL in the template of a Vue component gets the base path. What the build puts in place of `import.meta.env` can't stand in a
 * template: a name of the component's script holds it. Null where the URL is not in a template.
 * @param text the whole file
 * @param read the expression that gives the base path, with a slash at its end
 */
export function correctInTemplate(
  text: string,
  { file, line, column, offset }: SourceMatch,
  url: string,
  read: string | null,
): Corrected | null {
  if (!file.endsWith('.vue') || !isInTemplate(text, offset)) return null
  const where = `In ${file}, line ${line},`
  const name = read === null ? null : nameIn(text, read)
  const written = name === null ? null : inTemplate(text, offset, url, name.name)
  if (name === null || written === null)
    return {
      edits: [],
      steps: [
        `${where} put the base path before ${url}, by a value of the component that holds ${read ?? 'it'}.`,
      ],
    }
  const { before, ...replaced } = written
  const edit: Edit = { file, line, column: column - before, ...replaced }
  const declared: Edit[] = name.declare === null ? [] : [{ file, ...name.declare }]
  return {
    edits: [...declared, edit],
    steps: [...declared, edit].map(
      ({ line: at, write, instead = '' }) =>
        `In ${file}, line ${at}, write  ${oneLine(write)}  in place of ${instead}.`,
    ),
  }
}

function oneLine(text: string): string {
  return text.replace(/\n+/g, ' ')
}

function isInTemplate(text: string, offset: number): boolean {
  const before = text.slice(0, offset)
  return ['script', 'style'].every((tag) => before.lastIndexOf(`<${tag}`) <= before.lastIndexOf(`</${tag}`))
}

interface InTemplate {
  readonly instead: string
  readonly write: string
  /** How far before the URL it begins. */
  readonly before: number
}

/** Looked at before a URL in a template; UTF-16 units. */
const longest = 2_000

/** The value of a bound attribute, or a text that is put in, as far as the URL. */
const isExpression = /(?:\s(?:[:@#]|v-)[\w:.@-]{0,60}\s?=\s?"[^"]{0,1000}|\{\{[^{}]{0,1000})$/

/** What a template says with the name in the place of the URL. */
function inTemplate(text: string, offset: number, url: string, name: string): InTemplate | null {
  const before = text.slice(Math.max(0, offset - longest), offset)
  const path = url.slice(1)
  if (/['"`\\$]/.test(path)) return null
  const [, quote = '', inside = ''] = /(?<!\\)(["'`])([^"'`\\]{0,60})$/.exec(before) ?? []
  if (isExpression.test(before)) return inText(quote, inside, url, name, text.charAt(offset + url.length))
  const [, attribute = '', key = ''] = /\s(([a-z][\w-]*)=)["']$/i.exec(before) ?? []
  if (attribute === '' || /^v-/.test(key) || text.charAt(offset + url.length) !== quote) return null
  return {
    instead: attribute + quote + url + quote,
    write: `:${attribute}"${name} + '${path}'"`,
    before: attribute.length + 1,
  }
}

/** As a whole, or behind the beginning of a longer text. */
function inText(quote: string, inside: string, url: string, name: string, next: string): InTemplate | null {
  const path = url.slice(1)
  if (inside === '' && next === quote)
    return { instead: quote + url + quote, write: `(${name} + ${quote}${path}${quote})`, before: 1 }
  if (quote === '' || quote === '`' || !/[\s(,]$/.test(inside)) return null
  const begun = quote + inside
  return { instead: begun + url, write: `${begun}${quote} + ${name} + ${quote}${path}`, before: begun.length }
}

interface Name {
  readonly name: string
  /** What declares it; null where the script does. */
  readonly declare: Pick<Edit, 'line' | 'column' | 'instead' | 'write'> | null
}

/** A name for the base path that the template knows: one that the script has, or another one. Null where nothing may be added to the script. */
function nameIn(text: string, read: string): Name | null {
  const setup = /<script\b[^<>]*\ssetup\b[^<>]*>/.exec(text)
  if (setup) {
    const inside = text.slice(setup.index, text.indexOf('</script', setup.index))
    const known = [...inside.matchAll(/\bconst\s+([A-Za-z_]\w*)\s*=\s*([^\n;]+)/g)].find(
      ([, , value]) => value?.trim() === read,
    )?.[1]
    if (known !== undefined) return { name: known, declare: null }
  }
  const name = ['baseUrl', 'siteBase', 'baseOfSite'].find((each) => !new RegExp(`\\b${each}\\b`).test(text))
  if (name === undefined) return null
  const statement = `const ${name} = ${read}`
  if (setup) {
    const isLine = /^\r?\n/.test(text.slice(setup.index + setup[0].length))
    return {
      name,
      declare: behind(text, setup.index, setup[0], `${setup[0]}\n${statement}${isLine ? '' : '\n'}`),
    }
  }
  // A script of another kind may stand beside one of this kind, in the same language, unless it has a function for that itself.
  const other = /<script\b([^<>]*)>/.exec(text)
  if (other && /\bsetup\b|\bsrc\s*=/.test(text.slice(other.index, text.indexOf('</script', other.index))))
    return null
  const first = other ?? /<(?:template|style)\b[^<>]*>/.exec(text)
  if (!first) return null
  const script = `<script setup${other?.[1] ?? ''}>\n${statement}\n</script>\n\n`
  return { name, declare: behind(text, first.index, first[0], script + first[0]) }
}

function behind(text: string, offset: number, instead: string, write: string): Name['declare'] {
  const before = text.slice(0, offset)
  const column = offset - before.lastIndexOf('\n')
  return { line: before.split('\n').length, column, instead, write }
}

/** The expression in a template literal that is nothing else: `base` of `` `${base}` ``. */
export function readOf(written: string): string | null {
  return /^`\$\{([^`]+)\}`$/.exec(written)?.[1] ?? null
}
