import type { AskedPlace } from '../../requests/request.ts'
import { markerIn } from '../../model/marker.ts'
import { counted } from '../../model/text.ts'
import { frameworks } from '../../frameworks/index.ts'
import { buildCommandOf, type Cause, type Evidence, type Judge } from '../check.ts'

/** A template's marker still stands where the build should have put a value. */
export const unreplacedMarker: Judge = {
  code: 'base/unreplaced-marker',
  severity: 'blocker',
  title: 'A marker was never replaced',
  meaning:
    "A URL holds the marker of a template instead of the base path or a variable. When it is the framework's own marker, " +
    'this page did not go through the build, or the name in it is wrong. Markers of another kind are expected to be ' +
    'filled by the server that sends the page.',
  example: 'index.html asks for its icon at %PUBLIC_URL%/icon.svg: the template was copied as it is.',
  remedies: {
    any: 'Publish what the build writes, not the template it starts from; and write the name in the marker as the framework knows it.',
    'react-scripts': 'Publish build/, not public/. Variables in the template must begin with REACT_APP_.',
    flutter: 'Build with flutter build web --base-href, or write the base path into web/index.html.',
  },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const own: AskedPlace[] = []
  const foreign: AskedPlace[] = []
  // A variable that was not set is told by its name, with how to set it.
  const absent = new Set(
    evidence.environment.flatMap(({ name, state }) => (state === 'absent' ? [`%${name}%`] : [])),
  )
  for (const place of evidence.asked.markers) {
    if (absent.has(markerIn(place.reference.raw) ?? '')) continue
    ;(isOwn(place, evidence) ? own : foreign).push(place)
  }
  return [...ownCause(own, evidence), ...foreignCause(foreign)]
}

function isOwn({ reference: { raw } }: AskedPlace, { survey }: Evidence): boolean {
  const marker = markerIn(raw) ?? ''
  const known = survey.framework
    ? frameworks.filter(({ name }) => name === survey.framework?.value)
    : frameworks
  return known.some(({ placeholders }) => placeholders?.test(marker))
}

function ownCause(places: readonly AskedPlace[], evidence: Evidence): Cause[] {
  const [first] = places
  if (!first) return []
  const marker = markerIn(first.reference.raw) ?? ''
  return [
    {
      key: 'own',
      meets: `What ${counted(places.length, 'URL')} of the page should bring does not arrive.`,
      cause: `${marker} stands in ${first.file}, where the build puts a value.`,
      showings: showings(places, evidence.site.origin),
      source: evidence.sources.find(marker),
      remedy: {
        steps: [
          `Publish what ${buildCommandOf(evidence)} writes, not the template.`,
          `If this is what it wrote, ${marker} is a name the build does not know: correct it, or define it.`,
        ],
        change: null,
      },
    },
  ]
}

function foreignCause(places: readonly AskedPlace[]): Cause[] {
  const [first] = places
  if (!first) return []
  return [
    {
      key: 'foreign',
      severity: 'note',
      title: 'A template of another program stands in the pages',
      meets:
        'Nothing, when the server that sends these pages fills it in; else what these URLs should bring does not arrive.',
      cause: `${counted(places.length, 'URL')} ${places.length === 1 ? 'holds' : 'hold'} a marker such as ${markerIn(first.reference.raw)}.`,
      showings: showings(places, null),
      source: null,
      remedy: { steps: ['See that the server fills the marker before it sends the page.'], change: null },
    },
  ]
}

function showings(places: readonly AskedPlace[], origin: string | null): Cause['showings'] {
  return places.map(({ file, reference: { offset, length, raw }, from }) => {
    const request = origin !== null && URL.canParse(raw, from) ? new URL(raw, from).href : null
    return { file, offset, length, ...(request ? { request } : {}) }
  })
}
