import type { Endpoint } from '../endpoints/endpoint.ts'
import { absoluteOf } from '../endpoints/endpoints.ts'
import type { Reached } from '../reach/reached.ts'
import { originOf, showingsOf } from './endpoint-causes.ts'
import type { Cause, Evidence } from './check.ts'

/** One cause for each origin that was asked with this outcome. */
export function reachCauses(
  outcome: Reached['outcome'],
  evidence: Evidence,
  tell: (origin: string, first: Reached) => Pick<Cause, 'meets' | 'cause'> & { readonly steps: string[] },
): Cause[] {
  const byOrigin = new Map<string, Reached>()
  for (const each of evidence.reached) {
    const origin = originOf(each.url)
    if (each.outcome === outcome && !byOrigin.has(origin)) byOrigin.set(origin, each)
  }
  return [...byOrigin].map(([origin, first]) => {
    const all = endpointsAt(origin, evidence)
    const { steps, ...told } = tell(origin, first)
    return {
      key: `${outcome} ${origin}`,
      ...told,
      showings: all.flatMap(showingsOf),
      source: all.find(({ source }) => source !== null)?.source ?? null,
      remedy: { steps, change: null },
    }
  })
}

/** The endpoints of the build that are at an origin. */
export function endpointsAt(origin: string, { endpoints }: Evidence): Endpoint[] {
  return endpoints.filter(({ url }) => originOf(absoluteOf(url)) === origin)
}
