import type { Reported } from '../checks/cause.ts'
import type { Check } from '../checks/check.ts'
import type { Known } from '../checks/evidence.ts'
import { placeEdits } from '../edits/place-edits.ts'
import { joinUp } from '../model/folder.ts'
import type { Mask } from '../model/mask.ts'
import type { Finding, Report, Verdict } from '../model/report.ts'
import type { Stopwatch } from '../model/stopwatch.ts'
import { applyWaivers } from '../release/waivers.ts'
import { assetReport } from '../report/asset-report.ts'
import { findingsOf } from '../report/findings.ts'
import { endpointReports, withInjectedPlaces } from '../report/listed-places.ts'
import { Locator } from '../report/locator.ts'
import { rehearsalReport } from '../report/rehearsal-report.ts'
import { siteReport } from '../report/several-sites.ts'
import { surveyReport } from '../report/survey-report.ts'
import { withLoads } from '../report/visit-loads.ts'
import { withCorrectedLines } from './corrected-lines.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/** What a report is made with. */
interface Reporting {
  readonly target: Target
  /** Hides the values of variables in all that the report says. */
  readonly mask: Mask
  readonly clock: Stopwatch
  readonly options: CheckOptions
}

/** The report of one address: causes as findings with their places, accepted ones marked, and what was read beside them. */
export async function reportOf(
  known: Known,
  found: readonly Reported<Check>[],
  { target, mask, clock, options }: Reporting,
): Promise<Report> {
  const { site, host, hostGiven, survey, addresses, freshness } = known
  const { facts, requested, environment, endpoints, delivery, reached, rehearsal, live, comparison } = known
  const locator = locatorFor(target, known, mask)
  const named = (text: string): string => locator.named(text)
  const today = options.today ?? new Date().toISOString().slice(0, 10)
  const made = await findingsOf(found, site, locator, rehearsal)
  const { findings, waivers } = applyWaivers(await withPlacedEdits(made, known), options.waivers ?? [], today)
  const verdict: Verdict = findings.some((finding) => holds(finding, options.holdOn)) ? 'held' : 'clear'
  return mask.deep({
    schema: 'wardoscope-report/1',
    verdict,
    sites: [siteReport(site, verdict, findings)],
    host: { name: host.name, given: hostGiven },
    survey: surveyReport(survey, requested.observed, addresses),
    folder: { path: target.path, files: facts.length, bytes: delivery.bytes },
    ...inRepository(target),
    findings,
    waivers,
    routes: requested.routes.map((route) => ({ ...route, site: site.address })),
    assets: assetReport(requested, facts),
    environment: await withInjectedPlaces(environment, facts, locator),
    endpoints: await endpointReports(endpoints, locator),
    reach: [...reached],
    live,
    rehearsal: rehearsal && rehearsalReport(rehearsal, named),
    delivery: await withLoads(delivery, requested, facts, locator),
    comparison,
    freshness: freshness && { known: freshness.known, reason: freshness.reason },
    unread: [
      ...facts.flatMap(({ path, unread }) => (unread === null ? [] : [{ file: path, reason: unread }])),
      ...known.unfollowed.map((file) => ({
        file,
        reason: `${file} is too large, or nested too deeply, for its addresses to be followed.`,
      })),
      ...target.unread.values(),
      ...locator.problems,
    ],
    timings: clock.laps(),
  })
}

/** Where the project is in its repository. A folder by itself, in none, is named as the person named it. */
function inRepository({ project, build, survey, path }: Target): Pick<Report, 'repository'> {
  const { origin } = project
  if (!origin || (survey.project === null && survey.framework === null && origin.directory === '')) return {}
  const of = build?.origin
  const isWithin = of && of.root === origin.root
  // What is not built yet has a path, and no place.
  const folder = build === null ? joinUp(origin.directory, path) : isWithin ? of.directory : null
  return { repository: { project: origin.directory, folder } }
}

/** Edits by their exact places in the project's files, as far as those can be read. */
async function withPlacedEdits(findings: readonly Finding[], { projectText }: Known): Promise<Finding[]> {
  const placed: Finding[] = []
  for (const finding of findings) {
    const edits = await placeEdits(finding.fix.edits, projectText)
    const steps = await withCorrectedLines(finding.fix.steps, edits, projectText)
    placed.push({ ...finding, fix: { ...finding.fix, steps, edits } })
  }
  return placed
}

function locatorFor({ build, project }: Target, { survey, sources, facts }: Known, mask: Mask): Locator {
  // A build folder by itself is all there is to quote.
  const own = survey.project || survey.framework ? sources.files : facts.map(({ path }) => path)
  return new Locator({ build, project, mask, sources: new Set(own) })
}

/** Whether a finding keeps the build from shipping. */
export function holds({ severity, waived }: Finding, holdOn: CheckOptions['holdOn'] = 'blocker'): boolean {
  const isCaution = severity === 'caution' && [holdOn].flat().includes('caution')
  return !waived && (severity === 'blocker' || isCaution)
}

/** The report of all addresses, held too by waivers that cover nothing at any of them, where they are to hold. */
export function heldByWaivers(report: Report, holdOn: CheckOptions['holdOn'] = 'blocker'): Report {
  const isHeld =
    [holdOn].flat().includes('unused-waivers') && report.waivers.some(({ state }) => state === 'unused')
  return isHeld ? { ...report, verdict: 'held' } : report
}
