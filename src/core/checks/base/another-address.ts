import { addressKind, isReservedName } from '../../model/address.ts'
import type { Span } from '../../model/facts.ts'
import { describeOrigin, isFromSame } from '../../model/reading.ts'
import type { Site } from '../../model/site.ts'
import { counted, groupedBy } from '../../model/text.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { type Cause, type CauseFix, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'
import { inFile } from '../set-base.ts'
import { writtenFor } from '../written-for.ts'

/** The build gives itself another address than the one it is served at. */
export const anotherAddress = defineCheck({
  code: 'base/another-address',
  severity: 'caution',
  title: 'The build names itself another address',
  keywords: ['canonical', 'sitemap', 'baseURL', 'site url', 'og:url', 'feed'],
  after: ['base/wrong-path', 'base/addresses-disagree', 'project/needs-server', 'project/not-built'],
  run,
})

/** What a page or feed says of its own address. */
interface Named extends Span {
  readonly file: string
  readonly url: URL
}

/** Kinds without which a page does not look or work as it should. */
const needed = new Set(['script', 'style', 'import', 'font', 'image', 'preload'])

/** More places tell nobody more. */
const mostShown = 20

function run(evidence: Evidence): Cause[] {
  const { site, survey, requested } = evidence
  const named = namedIn(evidence)
  const others = named.filter(({ url }) => !isHere(url, site))
  const own = named.length - others.length
  const groups = [...groupedBy(others, ({ url }) => url.origin)].sort(([, a], [, b]) => b.length - a.length)
  const [first = configuredIn(evidence)] = groups
  // Pages may name a page elsewhere as the one to be found: then most of them still name this site.
  if (!first || (first[1].length <= own && own > 0)) return []
  const [origin, places] = first
  const kind = addressKind(`${origin}/`, site.origin)
  const isOwn = kind === 'own origin'
  if (!site.given && (isOwn || kind === 'other origin' || kind === 'reserved name')) return []
  // A build for another base path names itself by that too: one cause.
  if (isOwn && requested.observed !== null && requested.observed.base !== site.base) return []
  if (isReportedWithBase(evidence)) return []
  // A page may say on purpose that it is kept elsewhere too.
  const isPlain =
    kind === 'other origin' || (kind === 'reserved name' && isReservedName(new URL(site.origin).hostname))
  const isMeant = isPlain && survey.siteAddress === null
  return [causeOf(origin, places, isMeant ? 'note' : undefined, evidence)]
}

function isHere({ origin, pathname }: URL, site: Site): boolean {
  return origin === site.origin && `${pathname}/`.startsWith(site.base)
}

/** One setting is both, and a wrong base path is reported at its line. */
function isReportedWithBase({ reported, survey: { siteAddress, basePath } }: Evidence): boolean {
  if (!siteAddress) return false
  const isOne = basePath !== null && isFromSame(siteAddress, basePath)
  return isOne && reported.some(({ check }) => check.code === 'base/wrong-path')
}

/** Without a word of its own address: the one that is configured or the pages' base, where the files come from there. */
function configuredIn(evidence: Evidence): [string, Named[]] | undefined {
  const said = [
    evidence.survey.siteAddress?.value ?? '',
    ...evidence.facts.map(({ baseHref }) => baseHref ?? ''),
  ]
  // A base may leave its scheme to the page's.
  const isWhole = (url: string): boolean =>
    /^(?:https?:)?\/\//i.test(url) && URL.canParse(url, evidence.site.address)
  const origins = new Set(said.filter(isWhole).map((url) => new URL(url, evidence.site.address).origin))
  const origin = [...origins].find((each) => filesAskedAt(each, evidence).length > 0)
  return origin === undefined ? undefined : [origin, []]
}

function causeOf(
  origin: string,
  named: readonly Named[],
  severity: Cause['severity'],
  evidence: Evidence,
): Cause {
  const { survey, site } = evidence
  const files = filesAskedAt(origin, evidence)
  const said = survey.siteAddress
  const sets =
    said?.value != null && 'file' in said.from ? `${describeOrigin(said.from)} sets ${said.value}` : null
  const loads = files.some(({ reference }) => reference.kind === 'script' || reference.kind === 'style')
  return {
    key: origin,
    severity: loads ? 'blocker' : severity,
    ...(loads ? { title: 'The build takes its files from another address' } : {}),
    impact: loads
      ? `A bare page: ${counted(files.length, 'file')} of this folder ${files.length === 1 ? 'is' : 'are'} requested from ${origin}, which is not this site.`
      : `Search engines, feed readers and shared links lead to ${origin}${origin === site.origin ? ` outside ${site.base}` : ''}, not to this site.`,
    cause:
      named.length === 0
        ? `The build is made for ${origin}; this site is ${site.address}.${sets ? ` ${sets}.` : ''}`
        : `${counted(new Set(named.map(({ file }) => file)).size, 'file')} of the build ${named.length === 1 ? 'names' : 'name'} ${named[0]?.url.href ?? origin} and the like as its own address; this site is ${site.address}.${sets ? ` ${sets}.` : ''}`,
    places: [...named.slice(0, mostShown).map(placeOf), ...files.slice(0, mostShown).map(placeOfFile)],
    count: named.length + files.length,
    source: said && 'file' in said.from ? said.from : null,
    fix: setAddress(evidence),
  }
}

/** Canonical links, `og:url`, and the pages that sitemaps and feeds list. */
function namedIn({ facts }: Evidence): Named[] {
  return facts.flatMap(({ path, kind, ownAddresses, references }): Named[] => {
    const inFeed =
      kind === 'feed'
        ? [...references].flatMap(({ kind: what, raw, offset, length }) =>
            what === 'page' ? [{ url: raw, offset, length }] : [],
          )
        : ownAddresses
    return inFeed.flatMap(({ url, offset, length }) =>
      /^https?:\/\//i.test(url) && URL.canParse(url)
        ? [{ file: path, url: new URL(url), offset, length }]
        : [],
    )
  })
}

/** Files of this folder that its pages ask another origin for. */
function filesAskedAt(origin: string, { requested, site }: Evidence): RequestPlace[] {
  if (origin === site.origin) return []
  return requested.outside.filter(({ reference: { kind, raw } }) => {
    const url = URL.canParse(raw, site.address) ? new URL(raw, site.address) : null
    return needed.has(kind) && url?.origin === origin && requested.index.tailOf(url.pathname) !== null
  })
}

function placeOf({ file, offset, length }: Named): CausePlace {
  return { file, offset, length }
}

function placeOfFile({ file, reference: { offset, length, raw } }: RequestPlace): CausePlace {
  return { file, offset, length, request: raw }
}

function setAddress(evidence: Evidence): CauseFix {
  const { survey, site } = evidence
  const setting = survey.definition?.fixes.setSite?.(site)
  const at = survey.siteAddress && 'file' in survey.siteAddress.from ? survey.siteAddress.from : null
  if (setting === undefined)
    return {
      steps: [
        `Give the build this site's address, ${site.address}, where its own address is set.`,
        rebuild(evidence),
      ],
    }
  const where = at ?? survey.config?.insertAt ?? null
  const file = where?.file ?? survey.config?.file ?? survey.definition?.configFiles[0] ?? ''
  if (!where) {
    const write = writtenFor(file, setting)
    return { steps: [`In ${file}, set  ${write}`, rebuild(evidence)], edits: [{ file, line: null, write }] }
  }
  const [step, edit] = inFile(setting, where, at ? 'write' : 'add')
  return { steps: [step, rebuild(evidence)], edits: edit ? [edit] : [] }
}
