import type { Edit } from '../../model/report.ts'
import { type CauseFix, type Evidence, rebuild } from '../check.ts'

/**
 * How URLs that leave the base path out are corrected: every line of the sources that writes one, with the expression of the framework
 * for the base path where it stands as a text of its own.
 */
export function correctByHand(urls: readonly string[], evidence: Evidence): CauseFix {
  const { sources, survey } = evidence
  const helper = survey.definition?.fixes.publicUrl
  const places = [...new Set(urls)]
    .slice(0, mostUrls)
    .flatMap((url) => sources.findAll(url).map((at) => ({ url, at })))
    .slice(0, mostPlaces)
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
    if (!helper) return `${where} put the base path before ${url}.`
    const write = helper.write(url.replace(/^\//, ''))
    // What must be imported first is for a person: where imports stand is their matter.
    if (helper.from === undefined)
      edits.push({ file: at.file, line: at.line, column: at.column, instead: url, write })
    // In markup of other languages an expression is written in another way.
    if (!/\.[cm]?[jt]sx?$/.test(at.file))
      return `${where} put the base path before ${url}, in code  ${write}.`
    return `${where} write  ${write}  in place of ${url}${helper.from === undefined ? '' : `, with  ${helper.from}`}.`
  })
  const more = steps.length - mostSteps
  const shown =
    more > 1 ? [...steps.slice(0, mostSteps), `And in the same way at ${more} more places.`] : steps
  return { steps: [...shown, rebuild(evidence)], edits }
}

/** Looked for in the sources, changed, and listed one by one. More are a matter of a search, not of a list. */
const mostUrls = 200
const mostPlaces = 200
const mostSteps = 20
