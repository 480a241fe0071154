import { frameworks } from '../../frameworks/index.ts'
import { markerIn } from '../../model/marker.ts'
import { counted } from '../../model/text.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { buildCommandOf, type Cause, type CausePlace, defineCheck, type Evidence } from '../check.ts'

/** A template's marker still stands where the build should have put a value. */
export const unreplacedMarker = defineCheck({
  code: 'base/unreplaced-marker',
  severity: 'blocker',
  title: 'A marker was never replaced',
  keywords: ['placeholder', 'template', 'PUBLIC_URL'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const own: RequestPlace[] = []
  const foreign: RequestPlace[] = []
  // A variable that was not set is reported by its name, with how to set it.
  const absent = new Set(
    evidence.environment.flatMap(({ name, state }) => (state === 'absent' ? [`%${name}%`] : [])),
  )
  for (const place of evidence.requested.markers) {
    if (absent.has(markerIn(place.reference.raw) ?? '')) continue
    ;(isOwn(place, evidence) ? own : foreign).push(place)
  }
  return [...ownCause(own, evidence), ...foreignCause(foreign)]
}

function isOwn({ reference: { raw } }: RequestPlace, { survey }: Evidence): boolean {
  const marker = markerIn(raw) ?? ''
  const known = survey.framework
    ? frameworks.filter(({ name }) => name === survey.framework?.value)
    : frameworks
  return known.some(({ placeholders }) => placeholders?.test(marker))
}

function ownCause(places: readonly RequestPlace[], evidence: Evidence): Cause[] {
  const [first] = places
  if (!first) return []
  const marker = markerIn(first.reference.raw) ?? ''
  return [
    {
      key: 'own',
      impact: `What ${counted(places.length, 'URL')} of the page should bring does not arrive.`,
      cause: `${marker} stands in ${first.file}, where the build puts a value.`,
      places: shownPlaces(places, evidence.site.origin),
      source: evidence.sources.find(marker),
      fix: [
        `Publish what ${buildCommandOf(evidence)} writes, not the template.`,
        `If this is what it wrote, ${marker} is a name the build does not know: correct it, or define it.`,
      ],
    },
  ]
}

function foreignCause(places: readonly RequestPlace[]): Cause[] {
  const [first] = places
  if (!first) return []
  return [
    {
      key: 'foreign',
      severity: 'note',
      title: 'A template of another program stands in the pages',
      impact:
        'Nothing, when the server that sends these pages fills it in; else what these URLs should bring does not arrive.',
      cause: `${counted(places.length, 'URL')} ${places.length === 1 ? 'holds' : 'hold'} a marker such as ${markerIn(first.reference.raw)}.`,
      places: shownPlaces(places, null),
      fix: ['See that the server fills the marker before it sends the page.'],
    },
  ]
}

function shownPlaces(places: readonly RequestPlace[], origin: string | null): CausePlace[] {
  return places.map(({ file, reference: { offset, length, raw }, from }) => {
    const request = origin !== null && URL.canParse(raw, from) ? new URL(raw, from).href : null
    return { file, offset, length, ...(request ? { request } : {}) }
  })
}
