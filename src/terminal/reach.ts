import type { Report } from '../core/model/report.ts'
import { counted } from '../core/model/text.ts'
import { findingLines } from './report.ts'
import { cut, type Style } from './style.ts'

type Reach = Report['reach'][number]

/** What the services said, a line each, and then the findings with their fixes. */
export function renderReach(report: Report, style: Style): string {
  const { colors, width } = style
  const held = report.verdict === 'held'
  const badge = held ? colors.bold(colors.red('HELD ')) : colors.bold(colors.green('CLEAR'))
  const lines = [`${badge}  ${colors.bold(`requests on behalf of ${report.sites[0]?.address ?? ''}`)}`]
  const allowing = report.reach.filter(({ outcome }) => outcome === 'allows').length
  lines.push(
    `       ${report.folder.path}: ${counted(report.reach.length, 'endpoint')}, ${allowing} of them allow this site`,
  )
  if (report.reach.length === 0) {
    lines.push('', '  The build calls no service of another origin, as far as its code shows.')
  } else lines.push('')
  const longest = Math.min(52, Math.max(0, ...report.reach.map(({ url }) => url.length)))
  for (const each of report.reach) lines.push(line(each, longest, width, style))
  for (const finding of report.findings) lines.push('', ...findingLines(finding, report, style))
  return `${lines.join('\n')}\n`
}

function line(
  { url, requested, outcome, status, reason, milliseconds }: Reach,
  longest: number,
  width: number,
  { colors }: Style,
): string {
  const reported = outcome.padEnd(11)
  const color = outcome === 'allows' ? colors.green : outcome === 'refuses' ? colors.red : colors.yellow
  const answer = `${requested === '' ? '' : `${requested}, `}${status === null ? '' : `status ${status}, `}${requested === '' ? '' : `${milliseconds} ms: `}${reason}`
  return `  ${color(reported)}${cut(url, longest).padEnd(longest + 2)}${colors.dim(cut(answer, Math.max(20, width - longest - 15)))}`
}
