import type { Finding, Report, Verdict } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { heaviestFirst } from './findings.ts'

/** What one address comes to. */
export function siteReport(
  site: Site,
  verdict: Verdict,
  findings: readonly Finding[],
): Report['sites'][number] {
  const count = (severity: Finding['severity']): number =>
    findings.filter((each) => each.severity === severity && !each.waived).length
  return {
    address: site.address,
    base: site.base,
    given: site.given,
    verdict,
    blockers: count('blocker'),
    cautions: count('caution'),
    notes: count('note'),
  }
}

/**
 * One report of one folder at several addresses. A cause that is the same at some of them is one finding that names
 * them all; routes say which address they are of; variables, endpoints and weight are those of the build.
 * @param reports one for each address, at least one
 */
export function atAllSites(reports: readonly Report[]): Report {
  const [first, ...others] = reports
  if (!first) throw new RangeError('a report is of one address at least')
  if (others.length === 0) return first
  const all = [first, ...others]
  return {
    ...first,
    verdict: all.some(({ verdict }) => verdict === 'held') ? 'held' : 'clear',
    sites: all.flatMap(({ sites }) => sites),
    findings: together(all.flatMap(({ findings }) => findings)),
    waivers: waiversOf(all),
    routes: all.flatMap(({ routes }) => routes),
    endpoints: [
      ...new Map(all.flatMap(({ endpoints }) => endpoints.map((each) => [each.url, each] as const))).values(),
    ],
    reach: all.flatMap(({ reach }) => reach),
    unread: [
      ...new Map(all.flatMap(({ unread }) => unread.map((each) => [each.file, each] as const))).values(),
    ],
  }
}

/** Findings that differ in nothing but the address become one. */
function together(findings: readonly Finding[]): Finding[] {
  const known = new Map<string, Finding>()
  for (const finding of findings) {
    const { code, severity, cause, count, title, fix, waived } = finding
    const key = JSON.stringify([code, severity, title, cause, count, fix.steps, waived])
    const before = known.get(key)
    known.set(key, before ? { ...before, sites: [...before.sites, ...finding.sites] } : finding)
  }
  return [...known.values()].sort(heaviestFirst)
}

/** A waiver that covers something at one address is used. */
function waiversOf(reports: readonly Report[]): Report['waivers'] {
  const [first, ...others] = reports.map(({ waivers }) => waivers)
  return (first ?? []).map((waiver, index) => {
    const used = others.some((list) => list[index]?.state === 'used')
    return used ? { ...waiver, state: 'used' } : waiver
  })
}
