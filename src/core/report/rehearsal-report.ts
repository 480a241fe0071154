import { isMet } from '../checks/rehearsed.ts'
import type { Judged } from '../checks/run.ts'
import type { Report } from '../model/report.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'

/** A rehearsal as the report holds it, with values in messages and URLs told by the names of their variables. */
export function rehearsalReport(
  rehearsal: Rehearsal,
  named: (text: string) => string,
): NonNullable<Report['rehearsal']> {
  const told = <T extends { readonly text: string }>(list: readonly T[]): T[] =>
    list.map((each) => ({ ...each, text: named(each.text) }))
  const asked = <T extends { readonly url: string }>(list: readonly T[]): T[] =>
    list.map((each) => ({ ...each, url: named(each.url) }))
  return {
    by: rehearsal.by,
    visits: rehearsal.visits.map((visit) => ({
      ...visit,
      errors: told(visit.errors),
      complaints: told(visit.complaints),
      failed: asked(visit.failed),
      left: asked(visit.left),
    })),
    linked: [...rehearsal.linked],
    differences: [...rehearsal.differences],
  }
}

/** How a finding was made: by looking at the build, by running it, or both ways. */
export function waysOf({ judge, cause }: Judged, rehearsal: Rehearsal | null): ('check' | 'rehearsal')[] {
  if (judge.code.startsWith('run/')) return ['rehearsal']
  if (rehearsal?.by !== 'browser') return ['check']
  const requests = new Set(cause.showings.flatMap(({ request }) => request ?? []))
  const asksUndefined = rehearsal.visits.some(({ failed, left }) =>
    [...failed, ...left].some(({ url }) => url.includes('undefined')),
  )
  const seen = isMet(rehearsal.visits, requests) || (judge.code === 'env/absent' && asksUndefined)
  return seen ? ['check', 'rehearsal'] : ['check']
}
