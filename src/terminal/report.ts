import type { Finding, FindingPlace, Report } from '../core/model/report.ts'
import { counted, groupedBy, listed, printable } from '../core/model/text.ts'
import { fromRoot } from '../core/report/in-repository.ts'
import { addressTable } from './addresses.ts'
import { environmentTable, hasWrongVariable } from './environment.ts'
import { heading } from './heading.ts'
import { routeTable } from './routes.ts'
import { cut, cutMiddle, type Style, wrap } from './style.ts'
import { weightTable } from './weight.ts'

const labelWidth = 11
const indent = '  '
const mostPlaces = 3
/** Causes reported in full; nobody reads more of them in a terminal. */
const mostCauses = 24

/** What each stage took; its names are those of the report. */
function timesOf({ timings }: Report): string {
  return Object.entries(timings)
    .map(
      ([stage, time]) =>
        `${stage} ${time < 1_000 ? `${Math.round(time)} ms` : `${(time / 1_000).toFixed(2)} s`}`,
    )
    .join(', ')
}

/** The report for a person: verdict and address, then causes by weight. A sound build needs three lines. */
export function renderReport(
  report: Report,
  style: Style,
  { routes = false, variables = false, weight = false, timings = false } = {},
): string {
  const lines = [...heading(report, style)]
  const [standing, accepted] = [false, true].map((waived) =>
    report.findings.filter((each) => each.waived === waived),
  )
  if (report.sites.length > 1) lines.push('', ...addressTable(report, style))
  for (const finding of (standing ?? []).slice(0, mostCauses)) {
    lines.push('', ...findingLines(finding, report, style))
  }
  lines.push(...restLines((standing ?? []).slice(mostCauses), style))
  lines.push(...waiverLines(report, accepted ?? [], style))
  const toPaste = report.findings.find(({ fix }) => fix.texts)
  if (toPaste) lines.push('', ...textLines(toPaste, report, style))
  if (report.environment.length > 0 && (variables || hasWrongVariable(report))) {
    lines.push('', ...environmentTable(report, style))
  }
  if (routes && report.routes.length > 0) lines.push('', ...routeTable(report, style))
  const weighed = report.delivery.firstVisit.length > 0
  const heavy = report.findings.some(({ code }) => code === 'delivery/heavy-first-visit')
  if (weighed && (weight || heavy)) lines.push('', ...weightTable(report, style))
  if (report.unread.length > 0) {
    lines.push(
      '',
      `Not read: ${report.unread
        .map(({ reason }) => reason)
        .slice(0, 5)
        .join(' ')}`,
    )
  }
  if (timings) lines.push('', `Time: ${timesOf(report)}`)
  return `${lines.join('\n')}\n`
}

/** Nothing of a sound build; a line for each cause that holds another. */
export function renderShort(report: Report, holds: (finding: Finding) => boolean): string {
  const lines = fromRoot(report)
    .findings.filter(holds)
    .map(({ code, title, source, places: [first] }) => {
      const at = source ? `${source.file}:${source.line}` : (first?.file ?? '')
      return `${[code, title, at].filter(Boolean).map(printable).join('  ')}\n`
    })
  const unseen = (report.projects ?? []).flatMap(({ directory, problem }) =>
    problem === null ? [] : [`${printable(directory)}  ${printable(problem)}\n`],
  )
  const said = [...lines, ...unseen]
  const idle = report.waivers.filter(({ state }) => state === 'unused')
  // Where nothing else holds it, these do.
  return report.verdict === 'held' && said.length === 0
    ? `${counted(idle.length, 'waiver')} ${idle.length === 1 ? 'covers' : 'cover'} nothing: ${idle.map(({ code }) => code).join(', ')}\n`
    : said.join('')
}

/** The causes that are not reported in full, counted by code. */
export function restLines(rest: readonly Finding[], { colors, width }: Style): string[] {
  if (rest.length === 0) return []
  return [
    '',
    `  ${colors.bold(`And ${counted(rest.length, 'more cause')}`)}`,
    ...[...groupedBy(rest, ({ code, severity }) => `${severity}  ${code}`)].map(
      ([name, [first, ...more]]) => {
        const head = `    ${name.padEnd(36)} ${String(more.length + 1).padStart(5)}`
        const file = first?.places[0]?.file
        return file === undefined ? head : `${head}, as in ${cutMiddle(file, width - head.length - 8)}`
      },
    ),
    `    ${colors.dim('All of them are in --format html --out report.html, and in --format json.')}`,
  ]
}

/** What is accepted, a line each, and waivers that do nothing any more. */
function waiverLines({ waivers }: Report, accepted: readonly Finding[], { colors, width }: Style): string[] {
  const idle = waivers.filter(({ state }) => state !== 'used')
  if (accepted.length + idle.length === 0) return []
  const until = (day: string | null): string => (day === null ? '' : `, until ${day}`)
  return [
    '',
    `  ${colors.bold('Accepted')}`,
    ...accepted.map(
      ({ code, severity, waiver }) =>
        `    ${cut(`${code} (${severity}${until(waiver?.until ?? null)}): ${waiver?.reason ?? ''}`, width - 4)}`,
    ),
    ...idle.map(({ code, where, until: day, state }) =>
      colors.yellow(
        `    ${cut(
          `${code}${where === null ? '' : ` in ${where}`}: ${state === 'expired' ? `its waiver ended on ${day}` : 'its waiver covers nothing; take it out'}`,
          width - 4,
        )}`,
      ),
    ),
  ]
}

/** One finding: what a visitor sees, why, where, and what to change. */
export function findingLines(finding: Finding, report: Report, style: Style): string[] {
  const { colors, width } = style
  const { directory } = report.survey
  const badge = {
    blocker: colors.red('blocker'),
    caution: colors.yellow('caution'),
    note: colors.blue('note'),
  }
  const gap = width - indent.length - finding.severity.length - 2 - finding.title.length - finding.code.length
  const head = `${indent}${colors.bold(badge[finding.severity])}  ${colors.bold(finding.title)}`
  const code = colors.dim(finding.code)
  // A long title leaves its line no room for the code.
  const lines =
    gap < 2
      ? [head, `${' '.repeat(Math.max(0, width - finding.code.length))}${code}`]
      : [`${head}${' '.repeat(gap)}${code}`]
  const row = (label: string, texts: readonly string[]): void => {
    for (const [index, text] of texts.entries()) {
      lines.push(`${indent}${indent}${colors.cyan((index === 0 ? label : '').padEnd(labelWidth))}${text}`)
    }
  }
  const room = width - indent.length * 2 - labelWidth
  if (finding.touched)
    row('change', [finding.touched === 'line' ? 'on a line of this change' : 'in a file of this change'])
  if (report.sites.length > 1) row('at', siteLines(finding, report, room))
  row('impact', wrap(finding.impact, room))
  row('because', wrap(asOptions(finding.cause), room))
  row('request', requestLines(finding, room))
  row('in build', placeLines(finding, report, room, style))
  row('in source', sourceLine(finding, directory, room, style))
  row('fix', fixLines(finding, room, colors.bold))
  return lines
}

function siteLines({ sites }: Finding, report: Report, room: number): string[] {
  return sites.length === report.sites.length
    ? ['every address']
    : sites.map((address) => cutMiddle(address, room))
}

/** The requests that show it: one when places in the build follow, else a few. */
function requestLines({ places, impact }: Finding, room: number): string[] {
  const located = places.some(({ line }) => line !== null)
  const requested = places.filter(({ request }) => request !== null && !(located && impact.includes(request)))
  const lines = requested.slice(0, located ? 1 : mostPlaces).map(({ request, status }) => {
    const answer = status === null ? '' : `  answered ${status}`
    return `${cutMiddle(request ?? '', room - answer.length)}${answer}`
  })
  if (!located && requested.length > mostPlaces) lines.push(`and ${requested.length - mostPlaces} more`)
  return lines
}

function placeLines(finding: Finding, report: Report, room: number, style: Style): string[] {
  const seen = new Set<string>()
  const distinct = finding.places.filter((place) => {
    const key = `${place.file}:${place.line}:${place.column}`
    return place.line === null || seen.has(key) ? false : seen.add(key)
  })
  if (distinct.length === 0) return []
  const lines = distinct.slice(0, mostPlaces).flatMap((place) => placeLine(place, report, room, style))
  const files = new Set(finding.places.map(({ file }) => file)).size
  const more = finding.count - Math.min(mostPlaces, distinct.length)
  if (more > 0)
    lines.push(style.colors.dim(`and ${counted(more, 'more place')}, ${counted(files, 'file')} in all`))
  return lines
}

function placeLine(
  { file, line, column, excerpt }: FindingPlace,
  { folder, survey, repository }: Report,
  room: number,
  { colors, link }: Style,
): string[] {
  const path = folder.path === '.' || repository?.folder === '' ? file : `${folder.path}/${file}`
  const name = cutMiddle(`${path}:${line}:${column}`, Math.floor(room * 0.6))
  const rest = room - name.length - 2
  const linked = link(name, { line, column }, `${survey.directory}/${path}`, path)
  return [excerpt && rest > 12 ? `${linked}  ${colors.dim(around(excerpt, rest))}` : linked]
}

/** The middle of an excerpt, since what matters stands there. */
function around(excerpt: string, width: number): string {
  if (excerpt.length <= width) return excerpt
  const start = Math.floor((excerpt.length - width) / 2)
  return `…${cut(excerpt.slice(start + 1), width - 1)}`
}

/** A text to paste, whole, so that it can be copied. Of several, each for another host, it is said where they are. */
function textLines(
  { fix: { texts = [] }, code, site }: Finding,
  { sites }: Report,
  { colors, width }: Style,
): string[] {
  const lines = [`  ${colors.bold(`To paste, for ${code}`)}`]
  if (texts.length > 1) {
    const names = listed(texts.map(({ title }) => title.split(/[,;]/)[0] ?? title))
    const address = sites.some(({ given }) => given) ? site : '<url>'
    const said = `What ${names} need: wardoscope explain ${code} --site ${address}`
    return [...lines, ...wrap(said, width - 4).map((line) => `    ${line}`)]
  }
  for (const { title, text } of texts) lines.push(...pasted(title, text, colors))
  return lines
}

/** A text below its title. */
export function pasted(title: string, text: string, colors: Style['colors']): string[] {
  const lines = text.trimEnd().split('\n')
  return [`    ${colors.cyan(title)}`, ...lines.map((line) => `      ${line}`)]
}

function sourceLine({ source }: Finding, directory: string, room: number, { colors, link }: Style): string[] {
  if (!source) return []
  const name = cutMiddle(`${source.file}:${source.line}`, room)
  const linked = link(name, source, `${directory}/${source.file}`, source.file)
  const rest = room - name.length - 2
  return [source.excerpt && rest > 12 ? `${linked}  ${colors.dim(cut(source.excerpt, rest))}` : linked]
}

/** What a sentence calls a host by its name, as the option that a person at a terminal writes. */
function asOptions(sentence: string): string {
  return sentence.replace(/\bthe host (clean-urls|fallback)\b/g, '--host $1')
}

function fixLines(
  { fix: { steps, edits } }: Finding,
  room: number,
  strong: (text: string) => string,
): string[] {
  const lines = steps
    .map(asOptions)
    .map((step, index) =>
      wrap(step, room - 3).map((text, line) => `${line === 0 ? `${index + 1}.` : '  '} ${text}`),
    )
  const write = edits[0]?.write
  // Text to write is shown by itself when no step holds it, so that it can be copied whole.
  const apart = edits
    .filter(({ instead, write: text }) => instead === undefined && !steps.some((step) => step.includes(text)))
    .flatMap(({ write: text }) => text.split('\n'))
  if (apart.length > 0)
    lines.splice(
      1,
      0,
      [...new Set(apart)].map((text) => `     ${strong(text)}`),
    )
  return lines
    .flat()
    .map((line) => (write && line.includes(write) ? line.replace(write, strong(write)) : line))
}
