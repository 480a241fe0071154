import type { Finding, Report } from '../../model/report.ts'
import { printable } from '../../model/text.ts'
import { fromRoot } from '../in-repository.ts'
import type { ReportFormat } from './format.ts'

/** Places of one cause that get a line of their own. */
const mostPlaces = 20

/** The words that editors and pipelines look for. */
const words: Readonly<Record<Finding['severity'], string>> = {
  blocker: 'error',
  caution: 'warning',
  note: 'note',
}

/**
 * One line for each place, in the form of error messages that editors and pipelines read (GNU Coding Standards, 4.4):
 * `file:line:column: severity: text [code]`. The place in the source where one is known, else those in the build. Waived findings are left out.
 */
export function linesOf(report: Report): string {
  const { findings, folder } = fromRoot(report)
  const lines = findings.filter(({ waived }) => !waived).flatMap((finding) => linesFor(finding, folder.path))
  return lines.map((line) => `${line}\n`).join('')
}

function linesFor({ code, severity, title, cause, source, places }: Finding, folder: string): string[] {
  const said = `${words[severity]}: ${printable(`${title}. ${cause}`)} [${code}]`
  const shown = source ? [source] : places.slice(0, mostPlaces)
  // What is said of a folder as a whole has words behind its name.
  const at = shown.map(
    ({ file, line, column }) =>
      `${nameOf(line === null ? file.replace(/ \([^()]*\)$/, '') : file)}:${line ?? 1}:${column ?? 1}`,
  )
  return [...new Set(at.length > 0 ? at : [`${nameOf(folder)}:1:1`])].map((place) => `${place}: ${said}`)
}

/** A colon or a line end would begin another part of the line. */
function nameOf(file: string): string {
  return printable(file).replace(/:/g, '\ufffd')
}

/** For editors, and for pipelines that mark lines. */
export const lines: ReportFormat = { name: 'lines', extension: 'txt', render: linesOf }
