import { frameworks } from '../../frameworks/index.ts'
import { markerIn } from '../../model/marker.ts'
import type { ReferenceKind } from '../../model/reference.ts'
import { counted } from '../../model/text.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { buildCommandOf, type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A template's marker still stands where the build should have put a value. */
export const unreplacedMarker = defineCheck({
  code: 'base/unreplaced-marker',
  severity: 'blocker',
  title: 'A marker was never replaced',
  keywords: ['placeholder', 'template', 'PUBLIC_URL'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const own = new Map<string, RequestPlace[]>()
  const foreign = new Map<string, RequestPlace[]>()
  // A variable that was not set is reported by its name, with how to set it.
  const absent = new Set(
    evidence.environment.flatMap(({ name, state }) => (state === 'absent' ? [`%${name}%`] : [])),
  )
  for (const place of evidence.requested.markers) {
    const marker = markerIn(place.reference.raw) ?? ''
    if (absent.has(marker)) continue
    const found = isOwn(marker, evidence) ? own : foreign
    found.set(marker, [...(found.get(marker) ?? []), place])
  }
  // A page that a server fills in gets its title from there too.
  const templates = new Set([...foreign.values()].flat().map(({ file }) => file))
  return [
    ...few(own).map(([marker, places]) => ownCause(marker, places, evidence)),
    ...few(foreign).map(([marker, places]) => foreignCause(marker, places, evidence)),
    ...inTitles(absent, templates, evidence),
  ]
}

/** Reported one by one; a folder of templates holds hundreds, and the others are one finding. */
const mostMarkers = 8

function few(found: ReadonlyMap<string, RequestPlace[]>): (readonly [string, readonly RequestPlace[]])[] {
  const all = [...found]
  const rest = all.slice(mostMarkers)
  const [first] = rest
  if (!first) return all
  const name = rest.length > 1 ? `${first[0]} and ${rest.length - 1} more` : first[0]
  return [...all.slice(0, mostMarkers), [name, rest.flatMap(([, places]) => places)]]
}

function isOwn(marker: string, { survey }: Evidence): boolean {
  const known = survey.framework
    ? frameworks.filter(({ name }) => name === survey.framework?.value)
    : frameworks
  return known.some(({ placeholders }) => placeholders?.test(marker))
}

function ownCause(marker: string, places: readonly RequestPlace[], evidence: Evidence): Cause {
  return {
    key: marker,
    impact: `What ${counted(places.length, 'URL')} of the page should bring does not arrive.`,
    cause: `${marker} stands in ${places[0]?.file}, where the build puts a value.`,
    places: shownPlaces(places, evidence.site.origin),
    source: evidence.sources.find(marker),
    fix: [
      `Publish what ${buildCommandOf(evidence)} writes, not the template.`,
      `If this is what it wrote, ${marker} is a name the build does not know: correct it, or define it.`,
    ],
  }
}

/** Without these the page does not start, or is bare. */
const startsPage: ReadonlySet<ReferenceKind> = new Set(['script', 'style', 'import', 'base'])

/** A link leads somewhere when somebody follows it; the rest is loaded with the page. */
const isLink: ReadonlySet<ReferenceKind> = new Set(['page', 'form', 'hint', 'named'])

/**
 * A template of a server. Where a host was named, and the folder is a project's, nobody fills it in; a bare folder may be one that a
 * program serves, and then a person must say so.
 */
function foreignCause(marker: string, places: readonly RequestPlace[], evidence: Evidence): Cause {
  const kinds = places.map(({ reference }) => reference.kind)
  const starts = kinds.some((kind) => startsPage.has(kind))
  const onlyLinks = kinds.every((kind) => isLink.has(kind))
  const blocks = starts && evidence.hostGiven && evidence.survey.project !== null
  const notes = onlyLinks || !evidence.hostGiven || (!starts && evidence.survey.project === null)
  return {
    key: marker,
    severity: blocks ? undefined : notes ? 'note' : 'caution',
    title: blocks ? undefined : 'A template of another program stands in the pages',
    impact: `${starts ? 'The page does not start, or is bare' : 'What these URLs should bring does not arrive'}, unless the server that sends these pages fills ${marker} in.`,
    cause: `${counted(places.length, 'URL')} ${places.length === 1 ? 'holds' : 'hold'} the marker ${marker}${evidence.hostGiven ? `, and the host "${evidence.host.name}" sends files as they are` : ''}.`,
    places: shownPlaces(places, null),
    source: evidence.sources.find(marker),
    fix: ['See that the server, or a step after the build, fills the marker before the page is sent.'],
  }
}

/** What visitors read in the title of their browser's tab. */
function inTitles(absent: ReadonlySet<string>, templates: ReadonlySet<string>, evidence: Evidence): Cause[] {
  const places = evidence.facts.flatMap(({ path, titleMarker }) =>
    titleMarker && !templates.has(path) ? [{ file: path, ...titleMarker }] : [],
  )
  if (places.length === 0 || absent.size > 0) return []
  return [
    {
      key: 'title',
      severity: evidence.hostGiven ? 'caution' : 'note',
      title: 'The title of a page is a marker',
      impact: 'Visitors read the marker in the title of the tab and in search results.',
      cause: `${counted(places.length, 'page')} ${places.length === 1 ? 'has' : 'have'} a title that nobody filled in.`,
      places,
      fix: ['Define the value where the build runs, or write the title into the page.', rebuild(evidence)],
    },
  ]
}

function shownPlaces(places: readonly RequestPlace[], origin: string | null): CausePlace[] {
  return places.map(({ file, reference: { offset, length, raw }, from }) => {
    const request = origin !== null && URL.canParse(raw, from) ? new URL(raw, from).href : null
    return { file, offset, length, ...(request ? { request } : {}) }
  })
}
