import { fingerprint } from '../model/fingerprint.ts'
import { joinUp } from '../model/folder.ts'
import type { Delivery, ProjectRow, Report } from '../model/report.ts'
import { counted } from '../model/text.ts'
import type { ProjectEntry } from '../project/projects.ts'
import { emptySurvey } from '../project/survey.ts'
import { heaviestFirst } from './findings.ts'
import { fromRoot } from './in-repository.ts'
import { surveyReport } from './survey-report.ts'

/** A front end of a repository, and what its check came to: a report, or why there is none. */
export interface CheckedProject {
  readonly entry: ProjectEntry
  readonly report: Report | null
  readonly problem: string | null
}

/** Requests that are listed, of all projects together. */
const mostListed = 2_000

/** One report of all front ends of a repository, each at its own address; all places are from the root. */
export function ofAllProjects(projects: readonly CheckedProject[], label: string): Report {
  const reports = projects.flatMap((project) => rootedOf(project) ?? [])
  const of = <T>(list: (report: Report) => readonly T[]): T[] =>
    reports.flatMap((report) => [...list(report)])
  const hosts = [...new Set(reports.map(({ host }) => host.name))]
  const sum = (value: (report: Report) => number): number =>
    reports.reduce((total, report) => total + value(report), 0)
  return {
    schema: 'wardoscope-report/1',
    // What nobody could look at is not clear.
    verdict: projects.every(({ report }) => report?.verdict === 'clear') ? 'clear' : 'held',
    sites: of(({ sites }) => sites),
    host: {
      name: hosts.length === 1 ? (hosts[0] ?? '') : counted(hosts.length, 'host'),
      given: reports.every(({ host }) => host.given),
    },
    survey: {
      ...surveyReport(emptySurvey(label).survey, null),
      directory: '.',
      projects: projects.map(({ entry }) => entry),
      remarks: of(({ survey, repository }) =>
        survey.remarks.map((remark) => `${survey.directory || repository?.project}: ${remark}`),
      ),
    },
    folder: {
      path: label,
      files: sum(({ folder }) => folder.files),
      bytes: sum(({ folder }) => folder.bytes),
    },
    repository: { project: '', folder: '' },
    projects: projects.map(rowOf),
    findings: of(({ findings }) => findings).sort(heaviestFirst),
    waivers: of(({ waivers }) => waivers),
    routes: of(({ routes }) => routes),
    assets: {
      references: sum(({ assets }) => assets.references),
      requests: sum(({ assets }) => assets.requests),
      answered: sum(({ assets }) => assets.answered),
      missing: sum(({ assets }) => assets.missing),
      list: of(({ assets }) => assets.list)
        .sort((a, b) => Number(b.fails) - Number(a.fails))
        .slice(0, mostListed),
    },
    environment: of(({ environment }) => environment),
    endpoints: of(({ endpoints }) => endpoints),
    reach: of(({ reach }) => reach),
    live: null,
    rehearsal: null,
    delivery: deliveryOf(reports.map(({ delivery }) => delivery)),
    comparison: null,
    freshness: null,
    unread: of(({ unread }) => unread),
    timings: timesOf(reports),
  }
}

/** The report of one of them with its places from the root, and findings that differ from those of the others. */
export function rootedOf({ entry, report }: CheckedProject): Report | null {
  if (!report) return null
  const { directory } = entry
  // Outside of git every project was opened by itself.
  const isAlone = directory !== '' && (report.repository?.project ?? '') === ''
  const repository = { project: directory, folder: joinUp(directory, report.folder.path) }
  const rooted = fromRoot(isAlone ? { ...report, repository } : report)
  const findings = rooted.findings.map((finding) => ({
    ...finding,
    fingerprint: fingerprint(finding.code, entry.directory, finding.fingerprint),
  }))
  return { ...rooted, findings }
}

function rowOf({ entry, report, problem }: CheckedProject): ProjectRow {
  const sum = (key: 'blockers' | 'cautions'): number =>
    (report?.sites ?? []).reduce((total, site) => total + site[key], 0)
  const addresses = report?.sites.map(({ address, base, given }) => (given ? address : base)) ?? []
  return {
    directory: entry.directory || '.',
    name: entry.name,
    buildCommand: report?.survey.buildCommand?.value ?? entry.buildCommand,
    folder: report?.folder.path ?? null,
    address: addresses.length > 0 ? addresses.join(', ') : null,
    verdict: report?.verdict ?? null,
    blockers: sum('blockers'),
    cautions: sum('cautions'),
    problem,
  }
}

function deliveryOf(all: readonly Delivery[]): Delivery {
  const sum = (value: (one: Delivery) => number | null): number =>
    all.reduce((total, one) => total + (value(one) ?? 0), 0)
  return {
    files: sum(({ files }) => files),
    bytes: sum(({ bytes }) => bytes),
    compressedBytes: all.every(({ compressedBytes }) => compressedBytes !== null)
      ? sum(({ compressedBytes }) => compressedBytes)
      : null,
    routes: sum(({ routes }) => routes),
    firstVisit: all.flatMap(({ firstVisit }) => firstVisit),
    largest: all.flatMap(({ largest }) => largest).sort((a, b) => b.bytes - a.bytes),
  }
}

function timesOf(reports: readonly Report[]): Record<string, number> {
  const times: Record<string, number> = {}
  for (const { timings } of reports)
    for (const [stage, time] of Object.entries(timings)) times[stage] = (times[stage] ?? 0) + time
  return times
}
