import type { Comparison, Report } from '../core/model/report.ts'
import { bytesInWords, counted, grouped } from '../core/model/text.ts'
import { weightKindOf, weightKinds } from '../core/release/kinds.ts'
import { belowInWords } from '../core/release/purge.ts'
import { findingLines } from './report.ts'
import { cut, cutMiddle, type Style, wrap } from './style.ts'

const mostLines = 8

/** What a release changes, for a person: files by kind, routes, services, first visits, and what to purge. */
export function renderComparison(report: Report, earlier: string, style: Style): string {
  const { comparison, findings } = report
  if (!comparison) return ''
  const lines = [
    ...heading(report, comparison, earlier, style),
    ...(comparison.same ? [] : kindTable(comparison, style)),
    ...differenceLines('Routes', comparison.routes, style),
    ...differenceLines('Services', comparison.endpoints, style),
    ...differenceLines('Variables', comparison.variables, style),
    ...visitLines(comparison, style),
    ...purgeLines(comparison, style),
  ]
  // What is to be purged stands above, whole.
  const reported = findings.filter(
    ({ waived, title, code }) => !waived && !(code === 'delivery/purge' && /Caches/.test(title)),
  )
  for (const finding of reported) lines.push('', ...findingLines(finding, report, style))
  return `${lines.join('\n')}\n`
}

function heading(
  { verdict, sites, folder }: Report,
  { same, moved, counts, kept, bytes }: Comparison,
  earlier: string,
  { colors, width }: Style,
): string[] {
  const badge = verdict === 'held' ? colors.bold(colors.red('HELD ')) : colors.bold(colors.green('CLEAR'))
  const what = same ? 'the same as before' : moved ? `moves from ${moved.from} to ${moved.to}` : 'changed'
  const parts = [
    `${grouped(counts.added)} added`,
    `${grouped(counts.changed)} changed`,
    `${grouped(counts.renamed)} under a new hash`,
    `${grouped(counts.gone)} gone`,
    `${grouped(kept)} as they were`,
  ]
  return [
    `${badge}  ${colors.bold(`${sites[0]?.given ? sites[0].address : folder.path}: ${what}`)}`,
    `       ${cut(`${folder.path} against ${earlier}: ${bytesInWords(bytes.before)} before, ${bytesInWords(bytes.after)} now`, width - 7)}`,
    `       ${cut(same ? `${counted(kept, 'file')}, each as it was` : parts.join(', '), width - 7)}`,
  ]
}

/** Files by kind: how many of each sort, and how many bytes more or less. */
function kindTable({ changed, renamed, added, gone }: Comparison, { colors }: Style): string[] {
  const rows = weightKinds.flatMap((kind) => {
    const of = <T extends { readonly path: string }>(list: readonly T[]): T[] =>
      list.filter(({ path }) => weightKindOf(path) === kind)
    const [c, r, a, g] = [of(changed), of(renamed), of(added), of(gone)]
    if (c.length + r.length + a.length + g.length === 0) return []
    const bytes =
      [...c, ...r].reduce((sum, { before, after }) => sum + after - before, 0) +
      a.reduce((sum, each) => sum + each.bytes, 0) -
      g.reduce((sum, each) => sum + each.bytes, 0)
    const cell = (count: number): string => (count === 0 ? '–' : grouped(count)).padStart(10)
    return `    ${kind.padEnd(10)}${cell(a.length)}${cell(c.length)}${cell(r.length)}${cell(g.length)}${signed(bytes).padStart(12)}`
  })
  const head = `    ${'Files'.padEnd(10)}${'added'.padStart(10)}${'changed'.padStart(10)}${'new hash'.padStart(10)}${'gone'.padStart(10)}${'bytes'.padStart(12)}`
  return rows.length === 0 ? [] : ['', colors.bold(head), ...rows]
}

function differenceLines(
  title: string,
  { won, lost }: { readonly won: readonly string[]; readonly lost: readonly string[] },
  { colors, width }: Style,
): string[] {
  if (won.length + lost.length === 0) return []
  const all = [...won.map((each) => `+ ${each}`), ...lost.map((each) => `- ${each}`)]
  const more = all.length - mostLines
  return [
    '',
    `    ${colors.bold(title)}`,
    ...all.slice(0, mostLines).map((each) => `      ${cutMiddle(each, width - 6)}`),
    ...(more > 0 ? [colors.dim(`      and ${grouped(more)} more`)] : []),
  ]
}

function visitLines({ firstVisits }: Comparison, { colors }: Style): string[] {
  if (firstVisits.length === 0) return []
  const more = firstVisits.length - mostLines
  return [
    '',
    `    ${colors.bold('First visits')}`,
    ...firstVisits.slice(0, mostLines).map(({ route, before, after }) => {
      const sizes = `${bytesInWords(before)} → ${bytesInWords(after)}`
      return `      ${cutMiddle(route, 40).padEnd(42)}${sizes.padEnd(22)}${colors.dim(signed(after - before))}`
    }),
    ...(more > 0 ? [colors.dim(`      and ${grouped(more)} more`)] : []),
  ]
}

function purgeLines({ purge, purgeBelow, needNone, same }: Comparison, { colors, width }: Style): string[] {
  if (same) return []
  const none = needNone > 0 ? `; ${counted(needNone, 'new name')} with a hash need none` : ''
  const more = purge.length - mostLines
  const rest = more > 0 ? [`and ${grouped(more)} more; --print purge prints them all, one a line`] : []
  const below = purgeBelow === null ? [] : wrap(belowInWords(purgeBelow), width - 6)
  return [
    '',
    `    ${colors.bold('To purge')}  ${purge.length === 0 ? 'nothing' : counted(purge.length, 'path')}${none}`,
    ...purge.slice(0, mostLines).map((path) => `      ${cutMiddle(path, width - 6)}`),
    ...[...rest, ...below].map((line) => colors.dim(`      ${line}`)),
  ]
}

function signed(bytes: number): string {
  if (bytes === 0) return '±0 B'
  return `${bytes > 0 ? '+' : '−'}${bytesInWords(Math.abs(bytes))}`
}
