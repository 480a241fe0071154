import type { Finding, Report } from '../core/model/report.ts'
import { counted } from '../core/model/text.ts'
import type { Between } from '../core/report/between.ts'
import { heading } from './heading.ts'
import { findingLines } from './report.ts'
import { cut, type Style } from './style.ts'

/** New causes that are shown in full. */
const mostCauses = 6
/** Causes of the others that get a line. */
const mostLines = 12

/** A check after an earlier one, for a person who works meanwhile: the verdict, what is new in full, what is solved and left in lines. */
export function renderBetween(report: Report, { solved, fresh, left }: Between, style: Style): string {
  const [first = ''] = heading(report, style)
  const counts = `${counted(solved.length, 'solved', 'solved')}, ${counted(fresh.length, 'new', 'new')}, ${counted(left.length, 'left', 'left')}`
  return `${[
    first,
    `       ${counts}`,
    ...fresh.slice(0, mostCauses).flatMap((finding) => ['', ...findingLines(finding, report, style)]),
    ...linesOf('New too', fresh.slice(mostCauses), style),
    ...linesOf('Solved', solved, style),
    ...linesOf('Left', left, style),
  ].join('\n')}\n`
}

function linesOf(head: string, findings: readonly Finding[], { colors, width }: Style): string[] {
  if (findings.length === 0) return []
  const lines = findings.slice(0, mostLines).map(({ severity, code, title, source }) => {
    const at = source ? `  ${source.file}:${source.line}` : ''
    const name = `    ${severity.padEnd(7)}  ${code}  `
    return name + cut(`${title}${at}`, Math.max(20, width - name.length))
  })
  const more = findings.length - lines.length
  return ['', `  ${colors.bold(head)}`, ...lines, ...(more > 0 ? [`    and ${more} more`] : [])]
}
