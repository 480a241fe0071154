import type { Report } from '../core/model/report.ts'
import { counted, printable } from '../core/model/text.ts'
import type { HttpReply } from '../rehearse/respond.ts'
import { findingLines } from './report.ts'
import { cut, type Style, wrap } from './style.ts'

type Seen = NonNullable<Report['rehearsal']>
type Visit = Seen['visits'][number]

/** A request while the host stays up: its answer, and the rule that gave it. */
export function requestLine(
  { method, target }: { readonly method: string; readonly target: string },
  { status, said }: HttpReply,
  { colors }: Style,
): string {
  const failed = status >= 400
  const reported = `${failed ? '! ' : '  '}${status} ${method} ${printable(target).slice(0, 120)}`
  return `${failed ? colors.red(reported) : reported}  ${colors.dim(said.rule)}\n`
}

/** A rehearsal for a person: the verdict, a line a route, and the findings. */
export function renderRehearsal(report: Report, style: Style): string {
  const { colors, width } = style
  const { rehearsal } = report
  const held = report.verdict === 'held'
  const badge = held ? colors.bold(colors.red('HELD ')) : colors.bold(colors.green('CLEAR'))
  const lines = [`${badge}  ${colors.bold(`rehearsed at ${report.sites[0]?.address ?? ''}`)}`]
  if (rehearsal)
    lines.push(...summary(rehearsal, report).map((line) => `       ${line}`), '', ...table(rehearsal, style))
  for (const difference of rehearsal?.differences ?? [])
    lines.push(...wrap(difference, width - 2).map((line) => `  ${colors.red(line)}`))
  for (const finding of report.findings) {
    lines.push('', ...findingLines(finding, report, style))
    if (finding.seen.length > 1)
      lines.push(`    ${colors.dim('seen       in the build, and by the visitor')}`)
  }
  return `${lines.join('\n')}\n`
}

function summary({ by, visits, linked }: Seen, { host, findings }: Report): string[] {
  const count = (severity: string): number => findings.filter((each) => each.severity === severity).length
  const routes = new Set(visits.map(({ route }) => route)).size
  const widths = [...new Set(visits.flatMap(({ width }) => width ?? []))].sort((a, b) => a - b)
  const how = by === 'browser' ? `in a browser, ${widths.join(', ')} wide` : 'by requests, without a browser'
  return [
    `${counted(routes, 'route')} opened ${how}; host rules "${host.name}"`,
    `${counted(count('blocker'), 'blocker')}, ${counted(count('caution'), 'caution')}`,
    ...(linked.length > 0
      ? [
          `${counted(linked.length, 'path')} known only from a link: ${linked.slice(0, 3).join(', ')}${linked.length > 3 ? ' …' : ''}`,
        ]
      : []),
  ]
}

/** A line a route, all its widths together. */
function table({ visits }: Seen, { colors, width }: Style): string[] {
  const byRoute = new Map<string, Visit[]>()
  for (const visit of visits) byRoute.set(visit.route, [...(byRoute.get(visit.route) ?? []), visit])
  const longest = Math.min(44, Math.max(0, ...[...byRoute.keys()].map((route) => route.length)))
  return [...byRoute].map(([route, all]) => {
    const status = all[0]?.status ?? null
    const reported = notes(all)
    const failing =
      status === null || status >= 400 || all.some(({ errors, blank }) => errors.length > 0 || blank)
    const mark = failing
      ? colors.red(String(status ?? '-').padEnd(5))
      : colors.green(String(status).padEnd(5))
    return `  ${mark}${cut(printable(route), longest).padEnd(longest + 2)}${colors.dim(cut(reported.join(', '), Math.max(20, width - longest - 9)))}`
  })
}

function notes(all: readonly Visit[]): string[] {
  const most = (of: (visit: Visit) => number): number => Math.max(...all.map(of))
  const [requests, errors, failed] = [
    most((each) => each.requests),
    most((each) => each.errors.length),
    most((each) => each.failed.length),
  ]
  const left = new Set(
    all.flatMap((each) => each.left.filter(({ outcome }) => outcome === 'not sent').map(({ url }) => url)),
  ).size
  const narrow = all.filter(({ overflows }) => overflows).map(({ width }) => width)
  const worker = all.find((each) => each.worker !== null)?.worker ?? null
  const again = all.find((each) => each.again !== null && each.again !== each.status)?.again ?? null
  return [
    counted(requests, 'request'),
    ...(errors > 0 ? [counted(errors, 'error')] : []),
    ...(failed > 0 ? [`${failed} failed`] : []),
    ...(left > 0 ? [`${left} for other origins, not sent`] : []),
    ...(all.some(({ blank }) => blank) ? ['blank'] : []),
    ...(narrow.length > 0 ? [`wider than ${narrow.join(', ')}`] : []),
    ...(again !== null ? [`status ${again} when loaded again`] : []),
    ...(worker !== null ? ['requests a service worker'] : []),
  ]
}
