import type { Finding, Report } from '../../model/report.ts'
import { printable } from '../../model/text.ts'
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
export function linesOf({ findings, folder }: Report): string {
  const lines = findings.filter(({ waived }) => !waived).flatMap((finding) => linesFor(finding, folder.path))
  return lines.map((line) => `${line}\n`).join('')
}

function linesFor(finding: Finding, folder: string): string[] {
  const { code, severity, title, cause, source, places } = finding
  const said = `${words[severity]}: ${printable(`${title}. ${cause}`)} [${code}]`
  const inBuild = places.slice(0, mostPlaces).map((place) => ({ ...place, file: joined(folder, place.file) }))
  const shown = source ? [source] : inBuild
  const at = shown.map(({ file, line, column }) => `${nameOf(file)}:${line ?? 1}:${column ?? 1}`)
  return [...new Set(at.length > 0 ? at : [`${nameOf(folder)}:1:1`])].map((place) => `${place}: ${said}`)
}

/** A colon or a line end would begin another part of the line. */
function nameOf(file: string): string {
  return printable(file).replace(/:/g, '\ufffd')
}

function joined(folder: string, file: string): string {
  return folder === '.' || folder === '' || file.startsWith(`${folder}/`) || file === folder
    ? file
    : `${folder.replace(/\/$/, '')}/${file}`
}

/** For editors, and for pipelines that mark lines. */
export const lines: ReportFormat = { name: 'lines', extension: 'txt', render: linesOf }
