import type { Finding, ProjectRow, Report } from '../../model/report.ts'
import { counted } from '../../model/text.ts'
import { fromRoot } from '../in-repository.ts'
import type { ReportFormat } from './format.ts'

/** What a comment on a change takes; characters. */
const longest = 60_000
/** Causes that stand open; the rest is folded away. */
const mostOpen = 3
const mostPlaces = 5
const mostProjects = 100

/** The report as Markdown that fits into a comment on a change, whatever the size of the build. */
export function markdownOf(report: Report): string {
  const { findings, sites, folder, host, projects } = fromRoot(report)
  const verdict = report.verdict === 'held' ? '**Held**' : '**Clear**'
  const head = [
    `## ${verdict}: ${headOf(sites, projects)}`,
    '',
    `${code(folder.path)}, ${counted(folder.files, 'file')}; host rules ${code(host.name)}; ${counted(of(findings, 'blocker'), 'blocker')}, ${counted(of(findings, 'caution'), 'caution')}, ${counted(of(findings, 'note'), 'note')}.`,
  ]
  if (!projects && sites.length > 1) head.push('', ...siteTable(sites))
  if (projects) head.push('', ...projectTable(projects))
  const standing = findings.filter(({ waived }) => !waived)
  const table =
    standing.length > 0
      ? ['', '| | what | where | code |', '| --- | --- | --- | --- |', ...standing.slice(0, 50).map(row)]
      : []
  const open = standing
    .slice(0, mostOpen)
    .map((finding) => `\n### ${text(finding.title)}\n\n${body(finding, sites.length)}`)
  const folded = [...standing.slice(mostOpen), ...findings.filter(({ waived }) => waived)].map(
    (finding) =>
      `\n<details><summary>${text(`${finding.waived ? 'waived' : finding.severity}: ${finding.title}`)}</summary>\n\n${body(finding, sites.length)}\n\n</details>`,
  )
  return fitted([...head, ...table].join('\n'), [...open, ...folded])
}

function headOf(sites: Report['sites'], projects: Report['projects']): string {
  if (projects) return counted(projects.length, 'project')
  const clear = sites.filter(({ verdict }) => verdict === 'clear').length
  return sites.length > 1 ? `${clear} of ${sites.length} addresses clear` : code(sites[0]?.address ?? '')
}

function siteTable(sites: Report['sites']): string[] {
  return [
    '| address | verdict | blockers | cautions |',
    '| --- | --- | ---: | ---: |',
    ...sites.map(
      ({ address, verdict, blockers, cautions }) =>
        `| ${code(address)} | ${verdict} | ${blockers} | ${cautions} |`,
    ),
  ]
}

function projectTable(projects: readonly ProjectRow[]): string[] {
  return [
    '| project | address | verdict | blockers | cautions |',
    '| --- | --- | --- | ---: | ---: |',
    ...projects
      .slice(0, mostProjects)
      .map(
        ({ directory, address, verdict, blockers, cautions, problem }) =>
          `| ${code(directory)} | ${code(address ?? '')} | ${text(verdict ?? problem ?? '').slice(0, 200)} | ${blockers} | ${cautions} |`,
      ),
    ...(projects.length > mostProjects
      ? ['', `And ${counted(projects.length - mostProjects, 'more project')}.`]
      : []),
  ]
}

/** As many parts as fit, and how many were left out. */
function fitted(head: string, parts: readonly string[]): string {
  let whole = head.slice(0, longest - 200)
  for (const [index, part] of parts.entries()) {
    if (whole.length + part.length > longest - 200) {
      return `${whole}\n\n${counted(parts.length - index, 'more cause')} left out here; the whole report has them.\n`
    }
    whole += `\n${part}`
  }
  return `${whole}\n`
}

function of(findings: readonly Finding[], severity: Finding['severity']): number {
  return findings.filter((finding) => finding.severity === severity && !finding.waived).length
}

function row({ severity, title, source, places, code: name }: Finding): string {
  const at = source ? `${source.file}:${source.line}` : (places[0]?.file ?? '')
  return `| ${severity} | ${text(title).slice(0, 200)} | ${at === '' ? '' : code(at)} | ${code(name)} |`
}

function body({ impact, cause, places, count, source, fix, waiver, sites }: Finding, of: number): string {
  const shown = places.slice(0, mostPlaces).map(({ file, line, column, request, status, excerpt }) => {
    const at = line === null ? file : `${file}:${line}:${column}`
    const requested = request
      ? ` requests ${code(request)}${status === null ? '' : `, answered ${status}`}`
      : ''
    return `- ${code(at)}${requested}${excerpt ? `: ${code(excerpt)}` : ''}`
  })
  const more = count - shown.length
  const [edit] = fix.edits
  return [
    `${text(impact)} ${text(cause)}`,
    ...(sites.length < of ? ['', `At ${sites.map(code).join(', ')}.`] : []),
    ...(waiver ? ['', `Waived${waiver.until ? ` until ${waiver.until}` : ''}: ${text(waiver.reason)}`] : []),
    '',
    ...(source
      ? [
          `- in the source: ${code(`${source.file}:${source.line}`)}${source.excerpt ? `: ${code(source.excerpt)}` : ''}`,
        ]
      : []),
    ...shown,
    ...(more > 0 ? [`- and ${counted(more, 'more place')}`] : []),
    '',
    ...fix.steps.map((step, index) => `${index + 1}. ${text(step)}`),
    ...(edit && edit.moveTo === undefined
      ? ['', `In ${code(edit.file)}: ${code((edit.lines?.after.trim() ?? edit.write).replaceAll('\n', ' '))}`]
      : []),
  ].join('\n')
}

/** Text as text: nothing in it is markup, a link or a mention. */
function text(plain: string): string {
  return (
    oneLine(plain)
      .replace(/[\\`*_{}[\]()#+!|~$]/g, '\\$&')
      .replaceAll('&', '&amp;')
      .replaceAll('<', '&lt;')
      .replaceAll('>', '&gt;')
      .replaceAll('@', '&#64;')
      // What looks like an address becomes a link by itself.
      .replace(/\b(https?|ftp|mailto|xmpp):/gi, '$1&#58;')
      .replace(/\bwww\./gi, (www) => `${www.slice(0, 3)}&#46;`)
  )
}

/** A text as code, whatever backticks it holds (CommonMark, 6.1). A bar would end the cell of a table. */
function code(plain: string): string {
  const line = oneLine(plain).slice(0, 300).replaceAll('|', '¦')
  const runs = [...line.matchAll(/`+/g)].map(([run]) => run.length)
  const fence = '`'.repeat(Math.max(0, ...runs) + 1)
  const pad = line.startsWith('`') || line.endsWith('`') ? ' ' : ''
  return line === '' ? '' : `${fence}${pad}${line}${pad}${fence}`
}

/** Control characters, and marks that turn the direction of what follows, are shown as what they are not: blanks. */
function oneLine(plain: string): string {
  return plain
    .replace(/[\u0000-\u001f\u007f-\u009f\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]+/g, ' ')
    .trim()
}

/** For a comment on a change. */
export const markdown: ReportFormat = { name: 'markdown', extension: 'md', render: markdownOf }
