import type { ProjectRow, Report } from '../core/model/report.ts'
import { counted } from '../core/model/text.ts'
import { type CheckedProject, rootedOf } from '../core/report/several-projects.ts'
import { changeInWords } from './heading.ts'
import { findingLines, restLines } from './report.ts'
import { cut, cutMiddle, type Style, wrap } from './style.ts'

/** Causes of one project that are shown in full. */
const mostCauses = 8

/** All projects of a repository for a person: one table, then what was found in each. */
export function renderProjects(report: Report, projects: readonly CheckedProject[], style: Style): string {
  const { colors, width } = style
  const rows = report.projects ?? []
  const held = rows.filter(({ verdict }) => verdict === 'held').length
  const unseen = rows.filter(({ verdict }) => verdict === null).length
  const badge =
    report.verdict === 'held' ? colors.bold(colors.red('HELD ')) : colors.bold(colors.green('CLEAR'))
  const seconds = Object.values(report.timings).reduce((sum, time) => sum + time, 0) / 1000
  const said = [
    `${counted(rows.length, 'project')}: ${held} held, ${rows.length - held - unseen} clear`,
    ...(unseen > 0 ? [`${unseen} could not be looked at`] : []),
  ]
  const lines = [
    `${badge}  ${colors.bold(said.join(', '))}`,
    `       ${cut(`${counted(report.folder.files, 'file')} in all; ${seconds.toFixed(2)} s`, width - 7)}`,
    ...(report.change ? [`       ${cut(changeInWords(report.change), width - 7)}`] : []),
    '',
    ...tableOf(rows, style),
  ]
  for (const project of projects) {
    const own = rootedOf(project)
    if (!own) continue
    const prints = new Set(own.findings.map(({ fingerprint }) => fingerprint))
    // A change in review has marked findings, put them in another order, and may have left some out.
    const findings = report.findings.filter(({ fingerprint }) => prints.has(fingerprint))
    lines.push(...findingsOf(project.entry.directory || '.', { ...own, findings }, style))
  }
  return `${lines.join('\n')}\n`
}

/** What makes a project, and what it writes, stand at the end of its row where there is room, else below it. */
function tableOf(rows: readonly ProjectRow[], { colors, width }: Style): string[] {
  const widest = (of: (row: ProjectRow) => string, most: number): number =>
    Math.min(most, Math.max(...rows.map((row) => of(row).length)))
  const made = ({ buildCommand, folder }: ProjectRow): string =>
    `${buildCommand ?? '?'}, into ${folder ?? '?'}`
  const first = Math.max(
    'project'.length,
    widest(({ directory }) => directory, 32),
  )
  const second = widest(({ address }) => address ?? '', 44)
  const before = first + second + 33
  const isBeside = before + widest(made, width) <= width
  const head = `  ${'project'.padEnd(first)}  verdict  blockers  cautions  ${'address'.padEnd(second)}${isBeside ? '  built by' : ''}`
  return [
    colors.bold(head.trimEnd()),
    ...rows.flatMap((row) => {
      const { directory, verdict, blockers, cautions, address, problem } = row
      const name = `  ${cutMiddle(directory, first).padEnd(first)}  ${verdictWord(verdict, colors)}`
      if (problem !== null)
        return wrap(problem, width - first - 13).map((line, index) =>
          index === 0 ? `${name}  ${line}` : `${' '.repeat(first + 13)}${line}`,
        )
      const counts = `${String(blockers).padStart(8)}  ${String(cautions).padStart(8)}`
      const line = `${name}  ${counts}  ${cutMiddle(address ?? '', second).padEnd(second)}`
      return isBeside
        ? [`${line}  ${colors.dim(made(row))}`]
        : [line.trimEnd(), `${' '.repeat(first + 4)}${colors.dim(cut(made(row), width - first - 4))}`]
    }),
  ]
}

function verdictWord(verdict: ProjectRow['verdict'], { red, green, yellow }: Style['colors']): string {
  const word = (verdict ?? 'unseen').padEnd(7)
  return verdict === 'held' ? red(word) : verdict === 'clear' ? green(word) : yellow(word)
}

function findingsOf(directory: string, report: Report, style: Style): string[] {
  const standing = report.findings.filter(({ waived }) => !waived)
  if (standing.length === 0) return []
  return [
    '',
    style.colors.bold(cut(directory, style.width)),
    ...standing.slice(0, mostCauses).flatMap((finding) => ['', ...findingLines(finding, report, style)]),
    ...restLines(standing.slice(mostCauses), style),
  ]
}
