import { type CheckDefinition, checkedFolder, defineCheck } from '../checks/check.ts'
import { environmentStates } from '../checks/environment.ts'
import { checks } from '../checks/index.ts'
import { runChecks } from '../checks/run.ts'
import type { Endpoint } from '../endpoints/endpoint.ts'
import { endpointsIn } from '../endpoints/endpoints.ts'
import { frameworks } from '../frameworks/index.ts'
import type { Host, HostFiles } from '../host/host.ts'
import { assumedHost } from '../host/presets.ts'
import { FolderError } from '../model/errors.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Folder } from '../model/folder.ts'
import type { HistoryOf } from '../model/history.ts'
import type { Mask } from '../model/mask.ts'
import type { Unread } from '../model/noting-folder.ts'
import type { Finding, Report, RouteAnswer, Verdict } from '../model/report.ts'
import { assumedSite, type Site } from '../model/site.ts'
import { type Stopwatch, stopwatch } from '../model/stopwatch.ts'
import { readText } from '../model/text.ts'
import { namedAddresses } from '../project/addresses.ts'
import { type EntryTemplate, entryTemplateOf, namingTemplate, withPage } from '../project/entry-template.ts'
import { withNeededFiles } from '../project/needed-files.ts'
import type { Sources } from '../project/sources/sources.ts'
import { type Freshness, freshness } from '../project/sources/times.ts'
import { openly, type Survey } from '../project/survey.ts'
import type { Reached } from '../reach/reached.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'
import { compareReleases } from '../release/compare.ts'
import { type LimitsGiven, limitsWith } from '../release/limits.ts'
import { type Release, releaseOf, type Shipped } from '../release/release.ts'
import { applyWaivers, type Waiver } from '../release/waivers.ts'
import { type Compress, weigh } from '../release/weight.ts'
import { assetReport } from '../report/asset-report.ts'
import { endpointReports, findingsOf, Locator, withInjectedPlaces } from '../report/findings.ts'
import { rehearsalReport } from '../report/rehearsal-report.ts'
import { atAllSites, siteReport } from '../report/several-sites.ts'
import { surveyReport } from '../report/survey-report.ts'
import { ask } from '../requests/request.ts'
import type { Route, RouteSources } from '../requests/routes.ts'
import { readRuleFiles, withRules } from './host-rules.ts'
import { type BuildFolder, type Opening, open, type Target } from './open.ts'
import { type ReadOptions, readBuild } from './read-build.ts'
import { expectedBase, withOutput } from './read-output.ts'

/** Readings that somebody who ran the build knows. */
export type KnownReadings = Partial<Pick<Survey, 'basePath' | 'mode' | 'devProxy' | 'prefixes'>>

/** What a rehearsal is played with. */
export interface Rehearsable {
  readonly site: Site
  readonly host: Host
  readonly files: HostFiles
  readonly routes: readonly RouteAnswer[]
  readonly build: Folder | null
  /** Hides the values of variables in what is shown or written of it. */
  readonly mask: Mask
}

/** How a folder is checked. */
export interface CheckOptions
  extends ReadOptions,
    Pick<Opening, 'project' | 'frameworks' | 'around' | 'remarks'> {
  /** Where it will be served. When nobody says, the base path the project expects is taken. */
  readonly site?: Site | null
  /** Several addresses: the folder is read once, and judged at each of them. Wins over `site`. */
  readonly sites?: readonly Site[]
  /** How its host answers. When nobody says, plain files are assumed. */
  readonly host?: Host | null
  /** The build folder, when it is not where the project says. */
  readonly build?: BuildFolder | null
  /** Checks of one's own, run beside those that are known. */
  readonly checks?: readonly CheckDefinition[]
  /** What is known for sure of the project, in place of what its configuration was read to say. */
  readonly readings?: KnownReadings
  /** Routes a visitor can open, beside the pages in the folder. */
  readonly routes?: readonly string[]
  /** The environment of the process, whose secrets are looked for in the build. Never stored, never shown. */
  readonly environment?: Readonly<Record<string, string | undefined>>
  /** What the repository knows of when files were changed. */
  readonly history?: HistoryOf | null
  /** Asks the endpoints that the build calls; without it nothing leaves this machine. */
  readonly reach?: (site: Site, endpoints: readonly Endpoint[]) => Promise<readonly Reached[]>
  /** Plays the host and opens the routes; without it nothing is served. */
  readonly rehearse?: (stage: Rehearsable) => Promise<Rehearsal>
  /** Compresses files, to tell what a visitor downloads; without it sizes are those of the folder. */
  readonly compress?: (build: Folder) => Compress
  /** What the folder may weigh; {@link usualLimits} where nothing is said. */
  readonly limits?: LimitsGiven
  /** The release before this one, to say what changes. */
  readonly earlier?: Release | null
  /** Called with what ships, at the first address. */
  readonly onShipped?: (shipped: Shipped) => void
  /** Findings that are accepted. */
  readonly waivers?: readonly Waiver[]
  /** The day on which waivers are looked at, `2026-11-25`; today when nobody says. */
  readonly today?: string
  /** The least severity that holds the build; `blocker` when nobody says. */
  readonly holdOn?: 'blocker' | 'caution'
  /** Values for parameters of routes, by name. */
  readonly samples?: Readonly<Record<string, string>>
}

/**
 * May this ship? Opens a project or build folder, surveys it, reads every built file, asks the host model for every
 * URL, and checks what a visitor would see.
 * @throws {FolderError} when there is nothing to look at, or it can't be read.
 * @throws {UsageError} when the publish directory can't be known and was not given.
 */
export async function check(folder: Folder, options: CheckOptions = {}): Promise<Report> {
  const clock = stopwatch()
  const found = await open(folder, options.build ?? null, options)
  const template = found.build && (await entryTemplateOf(found.build))
  const opened = {
    ...found,
    ...(found.build && template ? { build: withPage(found.build, template) } : {}),
    survey: withTemplate(withKnown(found.survey, options.readings), template),
  }
  const { prefixes, reads } = opened.survey
  const read = new Set(reads.map(({ name }) => name))
  const values = opened.values.withProcess(options.environment ?? {}, prefixes?.value ?? [], read)
  const target = { ...opened, values }
  clock.lap('survey')
  const special: Unread[] = []
  const onUnread = (file: string, reason: string): void => void special.push({ file, reason })
  const facts = await readBuild(target, { ...options, onUnread })
  clock.lap('read')
  const sites = options.sites && options.sites.length > 0 ? options.sites : [options.site ?? null]
  const reports: Report[] = []
  for (const site of sites) reports.push(await examine(target, facts, { ...options, site }, clock))
  const all = atAllSites(reports)
  const whole = { ...all, unread: [...all.unread, ...special] }
  return template ? namingTemplate(whole, template) : whole
}

/** Says that a template is taken for the page. */
function withTemplate(survey: Survey, template: EntryTemplate | null): Survey {
  if (template === null) return survey
  const remark = `There is no page here. ${template.template} is read as the entry page, which a server fills in and sends.`
  return { ...survey, remarks: [...survey.remarks, remark] }
}

/** Readings that are known for sure; one that says the same keeps the place where it is written. */
function withKnown(survey: Survey, known: KnownReadings = {}): Survey {
  const others = Object.entries(known).filter(
    ([key, reading]) =>
      JSON.stringify(survey[key as keyof KnownReadings]?.value) !== JSON.stringify(reading?.value),
  )
  return { ...survey, ...Object.fromEntries(others) }
}

/** What is found in a build that was read: asks, checks and reports. Reads again only the files it shows places of. */
export async function examine(
  target: Target,
  built: readonly FileFacts[],
  options: CheckOptions = {},
  clock: Stopwatch = stopwatch(),
): Promise<Report> {
  const site = options.site ?? assumedSite(expectedBase(target, built))
  const ruleFiles = await readRuleFiles(target)
  const host = withRules(options.host ?? assumedHost, site, ruleFiles.live)
  const { survey, sources } = await withOutput(target, built)
  const mask = target.values.mask([site.address, ...openly(survey)])
  const framework =
    survey.definition ?? frameworks.find(({ name }) => name === survey.framework?.value) ?? null
  const facts = withNeededFiles(built, framework)
  const routesFrom = (more: readonly Route[]): RouteSources => ({
    named: [...namedRoutes(options.routes), ...more],
    known: survey.routes,
    samples: options.samples ?? {},
  })
  const first = ask(host, site, facts, routesFrom([]))
  clock.lap('ask')
  const addresses = await namedAddresses(target.project, { folder: target.build, path: target.path }, survey)
  const fresh = await freshnessOf(target, sources, options)
  const environment = environmentStates(survey, facts, target.values)
  const readFile = (path: string): Promise<Uint8Array | null> => readIfThere(target.build, path)
  const { outside } = first
  const endpoints = await endpointsIn({ site, facts, outside, sources, environment, readFile })
  const reached = (await options.reach?.(site, endpoints)) ?? []
  const stage = { site, host, files: first.index, routes: first.routes, build: target.build, mask }
  const rehearsal = (await options.rehearse?.(stage)) ?? null
  // Links that only running code draws lead to routes too.
  const drawn = (rehearsal?.linked ?? []).map(
    (path): Route => ({ path, from: { by: 'a link that a script draws' } }),
  )
  const requested = drawn.length > 0 ? ask(host, site, facts, routesFrom(drawn)) : first
  const compress = target.build ? (options.compress?.(target.build) ?? null) : null
  const delivery = await weigh(built, requested, compress)
  clock.lap('weigh')
  const locator = new Locator({
    build: target.build,
    project: target.project,
    mask,
    // A build folder by itself is all there is to quote.
    sources: new Set(survey.project || survey.framework ? sources.files : facts.map(({ path }) => path)),
  })
  const named = (text: string): string => locator.named(text)
  const shipped = { site, build: target.build, facts, requested, delivery, environment, endpoints, named }
  options.onShipped?.(shipped)
  const comparison = options.earlier
    ? compareReleases(options.earlier, await releaseOf(shipped), { site, host })
    : null
  const judged = await runChecks([...checks, ...(options.checks ?? []).map(defineCheck)], {
    site,
    host,
    hostGiven: options.host != null,
    survey,
    addresses,
    sources,
    folder: checkedFolder(target.path, target.build !== null),
    facts,
    requested,
    ruleFiles,
    freshness: fresh,
    readFile,
    projectText: (file) => readText(target.project, file),
    environment,
    endpoints,
    reached,
    rehearsal,
    delivery,
    comparison,
    limits: limitsWith(options.limits),
  })
  clock.lap('check')
  const today = options.today ?? new Date().toISOString().slice(0, 10)
  const made = await findingsOf(judged, site, locator, rehearsal)
  const { findings, waivers } = applyWaivers(made, options.waivers ?? [], today)
  const verdict: Verdict = findings.some((finding) => holds(finding, options.holdOn)) ? 'held' : 'clear'
  return mask.deep({
    schema: 'wardoscope-report/1',
    verdict,
    sites: [siteReport(site, verdict, findings)],
    host: { name: host.name, given: options.host != null },
    survey: surveyReport(survey, requested.observed, addresses),
    folder: { path: target.path, files: facts.length, bytes: facts.reduce((sum, { size }) => sum + size, 0) },
    findings,
    waivers,
    routes: requested.routes.map((route) => ({ ...route, site: site.address })),
    assets: assetReport(requested, facts, named),
    environment: await withInjectedPlaces(environment, facts, locator),
    endpoints: await endpointReports(endpoints, locator),
    reach: [...reached],
    rehearsal: rehearsal && rehearsalReport(rehearsal, named),
    delivery,
    comparison,
    freshness: fresh && { known: fresh.known, reason: fresh.reason },
    unread: [
      ...facts.flatMap(({ path, unread }) => (unread === null ? [] : [{ file: path, reason: unread }])),
      ...target.unread.values(),
      ...locator.problems,
    ],
    timings: clock.laps(),
  })
}

/** Whether a finding keeps the build from shipping. */
export function holds({ severity, waived }: Finding, holdOn: CheckOptions['holdOn'] = 'blocker'): boolean {
  return !waived && (severity === 'blocker' || (holdOn === 'caution' && severity === 'caution'))
}

async function freshnessOf(
  { project, directory, build, path }: Target,
  sources: Sources,
  { history }: CheckOptions,
): Promise<Freshness | null> {
  if (!build || sources.files.length === 0) return null
  return freshness(project, sources, build, path, (await history?.(directory)) ?? null)
}

async function readIfThere(build: Folder | null, path: string): Promise<Uint8Array | null> {
  try {
    return build ? await build.read(path) : null
  } catch (error) {
    if (error instanceof FolderError) return null
    throw error
  }
}

function namedRoutes(routes: readonly string[] = []): Route[] {
  return routes.map((path) => ({ path, from: { by: '--route' } }))
}
