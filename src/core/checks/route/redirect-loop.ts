import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { routePlace } from '../route-place.ts'

/** A visitor is sent round in a circle. */
export const redirectLoop = defineCheck({
  code: 'route/redirect-loop',
  severity: 'blocker',
  title: 'A page redirects for ever',
  keywords: ['redirect loop', 'too many redirects'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const looping = evidence.requested.routes.filter(({ loops }) => loops)
  const first = looping[0]
  if (!first) return []
  const turn = [...new Set(first.redirects)]
  return [
    {
      key: turn.slice().sort().join(' '),
      impact: `The browser's "too many redirects" page at ${first.path}.`,
      cause: `${first.path} is sent to ${turn.slice(0, 4).join(', then to ')}, and back again.`,
      places: looping.map((route) => routePlace(route, evidence)),
      source: ruleSource(first.redirects, evidence),
      fix: ['Take one of these rules out, or let it lead to a path that no rule takes.'],
      claims: looping,
    },
  ]
}

function ruleSource(hops: readonly string[], { host }: Evidence): Cause['source'] {
  return host.rules.find(({ to }) => to !== null && hops.includes(to))?.place ?? null
}
