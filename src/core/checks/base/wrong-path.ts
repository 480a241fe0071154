import { describeOrigin, isUncertain } from '../../model/reading.ts'
import { fixedPart } from '../../model/reference.ts'
import { normaliseBase } from '../../model/site.ts'
import { counted, groupedBy } from '../../model/text.ts'
import type { SourceMatch } from '../../project/sources/sources.ts'
import type { Request, RequestPlace } from '../../requests/request.ts'
import {
  buildCommandOf,
  type Cause,
  type CauseFix,
  type CausePlace,
  defineCheck,
  type Evidence,
  placesOf,
} from '../check.ts'
import { effectOf, severityOf } from '../missing-files.ts'
import { type Rewritten, rewritten } from '../own-files.ts'
import { setBase } from '../set-base.ts'
import { correctByHand, staysAsWritten, type WrittenUrl, writtenByHand } from './by-hand.ts'
import { mapEntriesOf } from './map-entries.ts'
import { nestedBuilds } from './nested-build.ts'

/** The build was made for another base path than the site has. */
export const wrongPath = defineCheck({
  code: 'base/wrong-path',
  severity: 'blocker',
  title: 'The build requests its files under another path',
  keywords: ['base path', 'sub-path', 'subdirectory', 'publicPath', 'blank page', 'base'],
  after: [
    'base/double-slash',
    'project/misplaced',
    'asset/withheld',
    'project/needs-server',
    'project/site-nested',
    'project/source-published',
  ],
  run,
})

async function run(evidence: Evidence): Promise<Cause[]> {
  const built = await builtForAnother(evidence)
  const claimed = new Set(built?.claims ?? [])
  const rest = evidence.failing.filter((request) => !claimed.has(request))
  const nested = nestedBuilds(rest, evidence)
  const ofNested = new Set(nested.flatMap(({ claims }) => claims ?? []))
  const others = rest.filter((request) => !ofNested.has(request))
  return [...(built ? [built] : []), ...nested, ...(await withoutBase(others, evidence))]
}

/** The build as a whole was made for another base path. */
async function builtForAnother(evidence: Evidence): Promise<Cause | null> {
  const { requested, site, survey, failing } = evidence
  const observed = requested.observed?.base
  if (observed === undefined || observed === site.base) return null
  const explained = failing.filter(
    (request) => request.pathname.startsWith(observed) && isBelow(request, evidence),
  )
  if (explained.length === 0) return null
  const configured = survey.basePath?.value ?? null
  const uncertain = survey.basePath !== null && isUncertain(survey.basePath)
  const upToDate = uncertain || configured === null || normaliseBase(configured) !== site.base
  const isKept = (at: SourceMatch): boolean => !upToDate || staysAsWritten(at, evidence)
  const made = explained.filter((request) => !isByHand(request, isKept, evidence))
  if (made.length === 0) return null
  const first = made[0]?.answer
  const { steps, ...edits }: CauseFix = upToDate
    ? ((await inOwnFiles(made, observed, evidence)) ?? setBase(evidence))
    : { steps: [`The configuration is right already: ${rebuildNow(evidence)}`] }
  return {
    key: 'base',
    impact: `A bare page: ${counted(made.length, 'file')} it needs ${made.length === 1 ? 'does' : 'do'} not arrive (${first?.status === 404 ? '404' : 'another page comes instead'}).`,
    cause: `The build requests its files under ${observed}; this site serves them under ${site.base}.${saidBy(evidence, upToDate)}`,
    places: placesOf(made),
    source: sourceOf(evidence),
    fix: {
      ...edits,
      steps: [...steps, `Or serve the folder at ${site.origin}${observed}, for which it was built.`],
    },
    claims: made,
  }
}

/** The base path before URLs of a folder that nothing builds, in place of the path that they begin with. */
async function inOwnFiles(
  requests: readonly Request[],
  prefix: string,
  evidence: Evidence,
): Promise<Rewritten | null> {
  const { base } = evidence.site
  // What a script imports by a name is put right in an import map.
  const places = requests.flatMap((request) =>
    request.places.map(async (place): Promise<CausePlace[]> => {
      const entries = await mapEntriesOf(place, evidence)
      return entries.length > 0 ? entries : placesOf([{ ...request, places: [place] }])
    }),
  )
  const found = await rewritten(
    (await Promise.all(places)).flat(),
    (url) => (url.startsWith(prefix) ? base + url.slice(prefix.length) : null),
    evidence,
  )
  return (
    found && {
      ...found,
      steps: [...found.steps, `Where a program writes these files, set its base path to ${base} instead.`],
    }
  )
}

/** A URL that the sources hold as it is requested, and that stays so however often they are built. */
function isByHand({ places }: Request, isKept: (at: SourceMatch) => boolean, evidence: Evidence): boolean {
  return places.every(({ reference }) => {
    // A relative URL goes where its page goes.
    if (!reference.raw.startsWith('/')) return false
    const written = writtenByHand(fixedPart(reference), evidence)
    return written.length > 0 && written.every(isKept)
  })
}

/** URLs written by hand that leave the base path out, or name another one, while the build has the right one. */
async function withoutBase(failing: readonly Request[], evidence: Evidence): Promise<Cause[]> {
  const { requested, site } = evidence
  // Below the base path nothing is left out: a file of that name elsewhere is another file.
  const outside = failing.filter(
    ({ pathname, places }) => !pathname.startsWith(site.base) && places.every(isAbsolute),
  )
  const placed = outside.flatMap((request) => {
    const tail = requested.index.tailOf(request.pathname)
    return tail ? [{ request, prefix: tail.prefix }] : []
  })
  const groups = groupedBy(placed, ({ prefix }) => prefix)
  const causes = [...groups].map(async ([prefix, group]): Promise<Cause> => {
    const requests = group.map(({ request }) => request)
    const first = requests[0]?.places[0]
    const source = first ? evidence.sources.find(fixedPart(first.reference)) : null
    const severity = requests.every(isOnlyNamed) ? 'caution' : severityOf(requests)
    const one = requests.length === 1
    const asks = evidence.survey.basePath === null || requested.observed?.base === site.base
    return {
      key: `by hand ${prefix}`,
      severity,
      title: `${one ? 'A URL leaves' : 'URLs leave'} out the base path`,
      impact: effectOf(requests),
      cause: `${counted(requests.length, 'URL')} ${one ? 'starts' : 'start'} at ${prefix}, and the files are under ${site.base}. ${asks ? `The build itself asks there: ${one ? 'this one is' : 'these are'}` : one ? 'It is' : 'They are'} written by hand.`,
      places: placesOf(requests),
      source,
      fix:
        (await inOwnFiles(requests, prefix, evidence)) ??
        (await correctByHand(await writtenUrls(requests, evidence), prefix, evidence)),
      claims: requests,
    }
  })
  return Promise.all(causes)
}

/** The URLs as sources write them; of a name that a script imports, as an import map does. */
async function writtenUrls(requests: readonly Request[], evidence: Evidence): Promise<WrittenUrl[]> {
  const urls = requests.flatMap(({ places }) =>
    places.map(async (place): Promise<WrittenUrl[]> => {
      const entries = await mapEntriesOf(place, evidence)
      return entries.length > 0 ? entries : [{ file: place.file, url: fixedPart(place.reference) }]
    }),
  )
  return (await Promise.all(urls)).flat()
}

/** A text that nothing is seen to request: it may be put together with the base path as the page runs. */
function isOnlyNamed({ places }: Request): boolean {
  return places.every(({ reference: { kind, sure } }) => kind === 'named' && sure !== true)
}

function isAbsolute({ reference: { raw } }: RequestPlace): boolean {
  return raw.startsWith('/') || /^https?:/i.test(raw)
}

/** Whether the request would be answered, were the base path right. */
function isBelow({ pathname }: Request, { requested }: Evidence): boolean {
  return (
    requested.index.tailOf(pathname)?.prefix === requested.observed?.base || requested.observed?.base !== '/'
  )
}

function saidBy(evidence: Evidence, upToDate: boolean): string {
  const { survey } = evidence
  const { basePath } = survey
  // What the output itself shows is said already.
  if (!basePath || basePath.certainty === 'inferred') return ''
  if (basePath.inactive)
    return ` ${describeOrigin(basePath.from)} says ${basePath.value}, which is not in force: ${basePath.inactive.because}.`
  if (basePath.dependsOn !== undefined)
    return ` ${describeOrigin(basePath.from)} takes it from the variable ${basePath.dependsOn}; ${basePath.setAt ? `as ${describeOrigin(basePath.setAt)} sets it` : 'without it'}, it is ${basePath.value}.`
  const whole = survey.siteAddress
  // Where the whole address is one setting, that is what stands there.
  if (upToDate && whole?.value && JSON.stringify(whole.from) === JSON.stringify(basePath.from))
    return ` ${describeOrigin(basePath.from)} sets ${whole.value}.`
  if (!upToDate) return ` ${describeOrigin(basePath.from)} says ${basePath.value}; ${agesOf(evidence)}.`
  if (basePath.value === null) return ` The base path is computed at ${describeOrigin(basePath.from)}.`
  return basePath.certainty === 'default'
    ? ` No base path is set, and ${basePath.from && 'by' in basePath.from ? basePath.from.by : 'the default'} is ${basePath.value}.`
    : ` ${describeOrigin(basePath.from)} sets ${basePath.value}.`
}

/** Why the build does not follow its configuration, as far as times tell. */
function agesOf({ freshness }: Evidence): string {
  if (freshness?.configuration === 'after') return 'it was changed after this build'
  return freshness?.configuration === 'before'
    ? 'the build is younger, and was made by another command, or with a variable that sets another'
    : 'this build is older than that, or was made by another command'
}

function sourceOf({ survey: { basePath, baseAt, config } }: Evidence): Cause['source'] {
  if (basePath && basePath.certainty !== 'inferred' && 'file' in basePath.from) return basePath.from
  return baseAt ?? config?.insertAt ?? null
}

function rebuildNow(evidence: Evidence): string {
  return `run ${buildCommandOf(evidence)} again.`
}
