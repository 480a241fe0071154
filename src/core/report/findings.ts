import type { CausePlace, Reported } from '../checks/cause.ts'
import { fingerprint } from '../model/fingerprint.ts'
import type { Finding, Severity } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { kindOf } from '../output/read-file.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'
import type { Locator } from './locator.ts'
import { waysOf } from './rehearsal-report.ts'

const weight: Readonly<Record<Severity, number>> = { blocker: 0, caution: 1, note: 2 }

/** Places written out, and those of each finding behind so many. All are counted; a report of a hundred thousand pages stays readable. */
const mostPlaces = 10_000
const fewestPlaces = 20

/** Turns causes into findings: offsets into lines and columns, places into excerpts and sources; the heaviest first. */
export async function findingsOf(
  judged: readonly Reported[],
  site: Site,
  locator: Locator,
  rehearsal: Rehearsal | null,
): Promise<Finding[]> {
  const findings: Finding[] = []
  // An origin that nobody gave is shown to nobody.
  const own = (text: string): string => (site.given ? text : text.replaceAll(site.origin, ''))
  let left = mostPlaces
  for (const { check, cause } of judged) {
    const shown = pagesFirst(cause.places).slice(0, Math.max(left, fewestPlaces))
    left -= shown.length
    const located = await locator.locate(shown)
    const places = located.map((place) => ({ ...place, request: place.request && own(place.request) }))
    const source = cause.source ? await locator.sourceAt(cause.source) : null
    const written = source ?? places.find((place) => place.source !== null)?.source ?? null
    findings.push({
      code: check.code,
      severity: cause.severity ?? check.severity,
      site: site.address,
      sites: [site.address],
      title: cause.title ?? check.title,
      impact: own(capitalised(cause.impact)),
      cause: own(capitalised(cause.cause)),
      count: Math.max(1, cause.count ?? cause.places.length),
      places,
      source: written && (await locator.withLinesAround(written)),
      fix: { edits: [], ...cause.fix, steps: stepsInOrder(cause.fix.steps).map(own) },
      fingerprint: fingerprint(check.code, site.knownAs ?? site.address, locator.named(cause.key)),
      seen: waysOf({ check, cause }, rehearsal),
      waived: false,
      waiver: null,
    })
  }
  return findings.sort(heaviestFirst)
}

/** The order of findings: by severity, and of one severity the one with most places first. */
export function heaviestFirst(a: Finding, b: Finding): number {
  return weight[a.severity] - weight[b.severity] || b.count - a.count
}

/** Sentences may begin with the name of a folder that has none but dots. */
function capitalised(sentence: string): string {
  return sentence.replace(/(^|[.] )the folder\b/g, '$1The folder')
}

/** "Then rebuild" is no first step. */
function stepsInOrder([first, ...more]: readonly string[]): string[] {
  if (first === undefined) return []
  const begun = first.replace(/^Then (.)/, (_, letter: string) => letter.toUpperCase())
  return [begun, ...more].map(capitalised)
}

/** A visitor begins with a page, and so does whoever looks for the fault. */
function pagesFirst(places: readonly CausePlace[]): CausePlace[] {
  const rank = ({ file }: CausePlace): number => (kindOf(file) === 'page' ? 0 : 1)
  return [...places].sort((a, b) => rank(a) - rank(b))
}
