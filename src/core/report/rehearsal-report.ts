import type { Reported } from '../checks/cause.ts'
import { isMet } from '../checks/rehearsed.ts'
import type { Report } from '../model/report.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'

/** A rehearsal as the report holds it, with values in messages and URLs reported by the names of their variables. */
export function rehearsalReport(
  rehearsal: Rehearsal,
  named: (text: string) => string,
): NonNullable<Report['rehearsal']> {
  const reported = <T extends { readonly text: string }>(list: readonly T[]): T[] =>
    list.map((each) => ({ ...each, text: named(each.text) }))
  const requested = <T extends { readonly url: string }>(list: readonly T[]): T[] =>
    list.map((each) => ({ ...each, url: named(each.url) }))
  return {
    by: rehearsal.by,
    visits: rehearsal.visits.map((visit) => ({
      ...visit,
      errors: reported(visit.errors),
      complaints: reported(visit.complaints),
      failed: requested(visit.failed),
      left: requested(visit.left),
    })),
    linked: [...rehearsal.linked],
    differences: [...rehearsal.differences],
  }
}

/** How a finding was made: by looking at the build, by running it, or both ways. */
export function waysOf({ check, cause }: Reported, rehearsal: Rehearsal | null): ('check' | 'rehearsal')[] {
  if (check.code.startsWith('run/')) return ['rehearsal']
  if (rehearsal?.by !== 'browser') return ['check']
  const requests = new Set(cause.places.flatMap(({ request }) => request ?? []))
  const asksUndefined = rehearsal.visits.some(({ failed, left }) =>
    [...failed, ...left].some(({ url }) => url.includes('undefined')),
  )
  const seen = isMet(rehearsal.visits, requests) || (check.code === 'env/absent' && asksUndefined)
  return seen ? ['check', 'rehearsal'] : ['check']
}
