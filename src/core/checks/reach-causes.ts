import type { Endpoint } from '../endpoints/endpoint.ts'
import { absoluteOf } from '../endpoints/endpoints.ts'
import type { Reached } from '../reach/reached.ts'
import type { Cause, Evidence } from './check.ts'
import { endpointPlaces, originOf } from './endpoint-causes.ts'

/** One cause for each origin that was requested with this outcome. */
export function reachCauses(
  outcome: Reached['outcome'],
  evidence: Evidence,
  tell: (origin: string, first: Reached) => Pick<Cause, 'impact' | 'cause'> & { readonly steps: string[] },
): Cause[] {
  const byOrigin = new Map<string, Reached>()
  for (const each of evidence.reached) {
    const origin = originOf(each.url)
    if (each.outcome === outcome && !byOrigin.has(origin)) byOrigin.set(origin, each)
  }
  return [...byOrigin].map(([origin, first]) => {
    const all = endpointsAt(origin, evidence)
    const { steps, ...reported } = tell(origin, first)
    return {
      key: `${outcome} ${origin}`,
      ...reported,
      places: all.flatMap(endpointPlaces),
      source: all.find(({ source }) => source !== null)?.source ?? null,
      fix: { steps },
    }
  })
}

/** The endpoints of the build that are at an origin. */
export function endpointsAt(origin: string, { endpoints }: Evidence): Endpoint[] {
  return endpoints.filter(({ url }) => originOf(absoluteOf(url)) === origin)
}
