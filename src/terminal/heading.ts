import { describeOrigin, isUncertain } from '../core/model/reading.ts'
import type { Report, Severity } from '../core/model/report.ts'
import { bytesInWords, counted } from '../core/model/text.ts'
import { routeSummary } from './routes.ts'
import { type Style, wrap } from './style.ts'
import { weightSummary } from './weight.ts'

/** Verdict and address, what was looked at, and how many of each weight were found. */
export function heading(report: Report, { colors, width }: Style): string[] {
  const site = report.sites[0]
  const held = report.verdict === 'held'
  const badge = held ? colors.bold(colors.red('HELD ')) : colors.bold(colors.green('CLEAR'))
  const lines = [`${badge}  ${colors.bold(addressInWords(report))}`]
  const looked = `${report.folder.path}: ${counted(report.folder.files, 'file')}, ${bytesInWords(report.folder.bytes)}${weightSummary(report)}`
  const seconds = Object.values(report.timings).reduce((sum, time) => sum + time, 0) / 1000
  const rules = `host rules "${report.host.name}"${report.host.given ? '' : ' (assumed)'}`
  const head = `${looked}; ${rules}; ${seconds.toFixed(2)} s`
  lines.push(...wrap(head, width - 7).map((line) => `       ${line}`))
  const [requested, counts] = [requestedInWords(report), countsInWords(report)]
  const short = requested.length + counts.length + 2 <= width - 7
  for (const line of short ? [`${requested}: ${counts}`] : [...wrap(requested, width - 7), counts]) {
    lines.push(`       ${line}`)
  }
  if (report.change)
    lines.push(...wrap(changeInWords(report.change), width - 7).map((line) => `       ${line}`))
  if (site && !site.given)
    lines.push(...wrap(assumption(report), width - 7).map((line) => `       ${colors.dim(line)}`))
  const { choice, directory, remarks } = report.survey
  const said = choice === null ? remarks : [`${directory}: ${choice}.`, ...remarks]
  for (const remark of said)
    lines.push(...wrap(remark, width - 7).map((line) => `       ${colors.dim(line)}`))
  return lines
}

/** How many findings are of the change in review. */
export function changeInWords({ since, touched, leftOut }: NonNullable<Report['change']>): string {
  const others =
    leftOut > 0
      ? `; ${counted(leftOut, 'other')} ${leftOut === 1 ? 'is' : 'are'} left out here and ${leftOut === 1 ? 'counts' : 'count'} all the same`
      : ''
  return `Changed since ${since}: ${counted(touched, 'finding')} ${touched === 1 ? 'comes' : 'come'} from it${others}`
}

function addressInWords({ sites }: Report): string {
  const [site] = sites
  const fits = sites.filter(({ verdict }) => verdict === 'clear').length
  if (sites.length > 1) return `${fits} of ${counted(sites.length, 'address', 'addresses')} clear`
  return site?.given ? site.address : `at base path ${site?.base ?? '/'}`
}

function countsInWords({ findings }: Report): string {
  const count = (severity: Severity): number =>
    findings.filter((finding) => finding.severity === severity && !finding.waived).length
  const parts = [
    counted(count('blocker'), 'blocker'),
    counted(count('caution'), 'caution'),
    ...(count('note') > 0 ? [counted(count('note'), 'note')] : []),
  ]
  return parts.join(', ')
}

function requestedInWords({ assets, routes, sites }: Report): string {
  const own = routes.filter(({ site }) => site === sites[0]?.address)
  return `${counted(assets.requests, 'file request')}, ${routeSummary({ routes: own })}`
}

function assumption({ survey: { basePath, observedBase, addresses } }: Report): string {
  const [named] = addresses
  const proposal = named && ` ${describeOrigin(named.from)} names ${named.value}.`
  const shown = observedBase && describeOrigin(observedBase.from)
  const isShown =
    basePath === null ||
    (shown !== null && (isUncertain(basePath) || describeOrigin(basePath.from) === shown))
  const from = !isShown ? `what ${describeOrigin(basePath.from)} says` : 'what the output shows'
  return `No address was given, so the base path is ${from}.${proposal ?? ''} Say where this will be served with --site.`
}
