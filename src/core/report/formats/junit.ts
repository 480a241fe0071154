import type { Check } from '../../checks/check.ts'
import type { Finding, Report } from '../../model/report.ts'
import { fromRoot } from '../in-repository.ts'
import type { ReportFormat } from './format.ts'

/** Places written out for one code. */
const mostPlaces = 50

/**
 * The report as JUnit XML, in the form that pipelines read: an area is a suite, a finding code a case. Blockers fail it, and whatever
 * else the person holds on; the rest is its output.
 */
export function junitOf(
  given: Report,
  checks: readonly Check[],
  holds: (finding: Finding) => boolean,
): string {
  const report = fromRoot(given)
  const areas = [...new Set(checks.map(({ code }) => areaOf(code)))]
  const seconds = Object.values(report.timings).reduce((sum, time) => sum + time, 0) / 1000
  const suites = areas.map((area) =>
    suite(
      area,
      checks.filter(({ code }) => areaOf(code) === area),
      report,
      holds,
    ),
  )
  const tests = checks.length
  const failures = suites.reduce((sum, { failures: count }) => sum + count, 0)
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites name="wardoscope" tests="${tests}" failures="${failures}" errors="0" time="${seconds.toFixed(3)}">`,
    ...suites.map(({ text }) => text),
    '</testsuites>',
    '',
  ].join('\n')
}

function suite(
  area: string,
  checks: readonly Check[],
  report: Report,
  holds: (finding: Finding) => boolean,
): { text: string; failures: number } {
  const cases = checks.map((check) =>
    testCase(
      check,
      report.findings.filter(({ code }) => code === check.code),
      report,
      holds,
    ),
  )
  const failures = cases.filter(({ failed }) => failed).length
  return {
    failures,
    text: [
      `  <testsuite name="${area}" tests="${checks.length}" failures="${failures}" errors="0" skipped="0" time="0">`,
      ...cases.map(({ text }) => text),
      '  </testsuite>',
    ].join('\n'),
  }
}

function testCase(
  { code, title }: Check,
  findings: readonly Finding[],
  { sites }: Report,
  holds: (finding: Finding) => boolean,
): { text: string; failed: boolean } {
  const head = `    <testcase name="${xml(title)}" classname="${code.replace('/', '.')}" time="0"`
  const failing = findings.filter(holds)
  const quiet = findings.filter((finding) => !holds(finding))
  if (findings.length === 0) return { text: `${head}/>`, failed: false }
  const failure =
    failing.length > 0
      ? [
          `      <failure message="${xml(failing[0]?.impact ?? '')}" type="${failing[0]?.severity}">${xml(failing.map(reported).join('\n\n'))}</failure>`,
        ]
      : []
  const output =
    quiet.length > 0
      ? [
          `      <system-out>${xml([sites[0]?.address ?? '', ...quiet.map(reported)].join('\n\n'))}</system-out>`,
        ]
      : []
  return {
    text: [`${head}>`, ...failure, ...output, '    </testcase>'].join('\n'),
    failed: failing.length > 0,
  }
}

/** A cause in plain text. */
function reported({ severity, impact, cause, places, source, fix, waiver }: Finding): string {
  const shown = places.slice(0, mostPlaces).map(({ file, line, column, request, status }) => {
    const at = line === null ? file : `${file}:${line}:${column}`
    return `${at}${request ? `  ${request}` : ''}${status === null ? '' : ` answered ${status}`}`
  })
  return [
    `${severity}: ${impact}`,
    cause,
    ...(waiver ? [`waived: ${waiver.reason}`] : []),
    ...(source ? [`source: ${source.file}:${source.line}:${source.column}`] : []),
    ...shown,
    ...fix.steps.map((step, index) => `${index + 1}. ${step}`),
  ].join('\n')
}

function areaOf(code: string): string {
  return code.slice(0, code.indexOf('/'))
}

/** Text as XML 1.0 takes it: markup escaped, and what no XML may hold replaced. */
function xml(text: string): string {
  return text
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
}

/** For pipelines that show tests. */
export const junit: ReportFormat = {
  name: 'junit',
  extension: 'xml',
  render: (report, { checks, holds }) => junitOf(report, checks, holds),
}
