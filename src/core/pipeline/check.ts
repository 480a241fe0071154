import { defineCheck } from '../checks/check.ts'
import type { Known } from '../checks/evidence.ts'
import { checks } from '../checks/index.ts'
import { runChecks } from '../checks/run.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Folder } from '../model/folder.ts'
import type { Mask } from '../model/mask.ts'
import type { Unread } from '../model/noting-folder.ts'
import type { Report } from '../model/report.ts'
import { type Stopwatch, stopwatch } from '../model/stopwatch.ts'
import { isBehindHash } from '../output/script/route-tables.ts'
import { openly, type Survey } from '../project/survey.ts'
import { limitsWith } from '../release/limits.ts'
import { atAllSites } from '../report/several-sites.ts'
import { outputOf } from '../requests/output.ts'
import { examineOutput } from './examine-output.ts'
import type { Target } from './open.ts'
import { openForCheck } from './open-for-check.ts'
import type { CheckOptions } from './options.ts'
import { readBuild } from './read-build.ts'
import { expectedBase, withOutput } from './read-output.ts'
import { heldByWaivers, reportOf } from './report.ts'
import { serve } from './serve.ts'
import { surveyedIn } from './surveyed.ts'
import { tryOut } from './try-out.ts'

/**
 * May this ship? Opens a project or build folder, surveys it, reads every built file, asks the host model for every
 * URL, and checks what a visitor would see.
 * @throws {FolderError} when there is nothing to look at, or it can't be read.
 * @throws {UsageError} when the publish directory can't be known and was not given.
 * @throws the reason of `options.signal`, an `AbortError` where nobody gives another, when it is aborted
 */
export async function check(folder: Folder, options: CheckOptions = {}): Promise<Report> {
  const clock = stopwatch()
  const { target, naming } = await openForCheck(folder, options)
  clock.lap('survey')
  const special: Unread[] = []
  const onUnread = (file: string, reason: string): void => void special.push({ file, reason })
  const facts = await readBuild(target, { ...options, onUnread })
  clock.lap('read')
  const sites = options.sites && options.sites.length > 0 ? options.sites : [options.site ?? null]
  const reports: Report[] = []
  for (const site of sites) reports.push(await examine(target, facts, { ...options, site }, clock))
  const whole = heldByWaivers(atAllSites(reports), options.holdOn)
  return naming({ ...whole, unread: [...whole.unread, ...special] })
}

/** What is found in a build that was read: requests, checks and reports. Reads again only the files it shows places of. */
export async function examine(
  target: Target,
  facts: readonly FileFacts[],
  options: CheckOptions = {},
  clock = stopwatch(),
): Promise<Report> {
  const { known, mask } = await observe(target, facts, options, clock)
  options.onStage?.('judging')
  const found = await runChecks(
    [...checks, ...(options.checks ?? []).map(defineCheck)],
    known,
    options.signal,
  )
  clock.lap('check')
  return reportOf(known, found, { target, mask, clock, options })
}

/** All that the checks look at, in the order in which it comes to be known. */
export async function observe(
  target: Target,
  facts: readonly FileFacts[],
  options: CheckOptions,
  clock: Stopwatch,
): Promise<{ readonly known: Known; readonly mask: Mask }> {
  options.signal?.throwIfAborted()
  const output = outputOf(facts)
  const survey = await withOutput(target, output)
  const served = await serve(target, expectedBase(target.survey, output), facts, options)
  const mask = target.values.mask([served.site.address, ...openly(survey)])
  const surveyed = await surveyedIn(target, survey, facts, options)
  const examined = await examineOutput(target, output, served, surveyed, options)
  clock.lap('request')
  const tried = await tryOut(target, served, examined, mask, options)
  clock.lap('try')
  const noted = {
    ...surveyed,
    survey: withUnknownRoutes(surveyed.survey, examined),
  }
  return { known: { ...served, ...noted, ...tried, limits: limitsWith(options.limits) }, mask }
}

/** Says that an application's own routes are not known: without its sources, only the paths that pages name are opened. */
function withUnknownRoutes(survey: Survey, { facts, requested }: Pick<Known, 'facts' | 'requested'>): Survey {
  const pages = facts.filter(({ kind }) => kind === 'page')
  const starts = [...(requested.loads.get('index.html') ?? [])].some((file) => /\.[cm]?js$/.test(file))
  const isKnown =
    survey.definition !== null ||
    isBehindHash(facts) ||
    requested.routes.some(({ by }) => by !== 'file' && by !== 'directory index')
  if (isKnown || pages.length !== 1 || !starts) return survey
  const remark =
    'The routes of this application are not known, so only its first page was opened: name the others, to see whether they open directly.'
  return { ...survey, remarks: [...survey.remarks, remark] }
}
