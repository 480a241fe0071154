import type { Edit } from '../../model/report.ts'
import type { SourceMatch } from '../../project/sources/sources.ts'
import { type CauseFix, type Evidence, rebuild } from '../check.ts'

/**
 * How URLs that leave the base path out are corrected: every line of the sources that writes one, with the expression of the framework
 * for the base path where it stands as a text of its own.
 */
export function correctByHand(urls: readonly string[], evidence: Evidence): CauseFix {
  const { sources, survey } = evidence
  const helper = survey.definition?.fixes.publicUrl
  const places = [...new Set(urls)].flatMap((url) => sources.findAll(url).map((at) => ({ url, at })))
  if (places.length === 0)
    return {
      steps: [
        `Put the base path before ${urls[0] ?? 'the URL'}: import the file, or use what the framework gives for it.`,
        rebuild(evidence),
      ],
    }
  const edits: Edit[] = []
  const steps = places.map(({ url, at }) => {
    const where = `In ${at.file}, line ${at.line},`
    const edit = helper ? editOf(url, at, helper.write(url.replace(/^\//, '')), evidence) : null
    if (!edit)
      return `${where} put the base path before ${url}${helper ? `, as in  ${helper.write(url.replace(/^\//, ''))}` : ''}.`
    // What must be imported first is for a person: where imports stand is their matter.
    if (helper?.from === undefined) edits.push(edit)
    return `${where} write  ${edit.write}  in place of ${edit.expects ?? url}${helper?.from === undefined ? '' : `, with  ${helper.from}`}.`
  })
  return { steps: [...steps, rebuild(evidence)], edits }
}

/** A text in quotes, or the value of an attribute in JSX. */
function editOf(url: string, at: SourceMatch, expression: string, { sources }: Evidence): Edit | null {
  const source = sources.texts.get(at.file) ?? ''
  const [start, end] = [at.offset - 1, at.offset + url.length + 1]
  const quote = source.charAt(start)
  if (!/["'`]/.test(quote) || source.charAt(end - 1) !== quote) return null
  const isMarkup = /<[A-Za-z][\w.]*(?:\s[^<>]*)?\s[\w-]+=$/.test(
    source.slice(Math.max(0, start - 400), start),
  )
  // In markup of other languages the same text means something else; in JSX an attribute takes an expression in braces.
  if (!/\.[cm]?[jt]sx?$/.test(at.file)) return null
  const text = isMarkup && /\.[jt]sx$/.test(at.file) ? `{${expression}}` : expression
  return {
    file: at.file,
    line: at.line,
    column: at.column,
    write: text,
    range: { start, end },
    expects: source.slice(start, end),
    text,
  }
}
