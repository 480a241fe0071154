import type { Cause, Evidence, Judge } from '../check.ts'
import { routeShowing } from '../route-place.ts'

/** A visitor is sent round in a circle. */
export const redirectLoop: Judge = {
  code: 'route/redirect-loop',
  severity: 'blocker',
  title: 'A page redirects for ever',
  meaning:
    'A rule sends visitors to a path that another rule, or the same one, sends on again. Browsers give up after twenty turns.',
  example: '/old → /new in one rule, /new → /old in another: "too many redirects".',
  remedies: { any: 'Take one of the rules out, or let it lead to a path that no rule takes.' },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const looping = evidence.asked.routes.filter(({ loops }) => loops)
  const first = looping[0]
  if (!first) return []
  const turn = [...new Set(first.redirects)]
  return [
    {
      key: turn.slice().sort().join(' '),
      meets: `The browser's "too many redirects" page at ${first.path}.`,
      cause: `${first.path} is sent to ${turn.slice(0, 4).join(', then to ')}, and back again.`,
      showings: looping.map((route) => routeShowing(route, evidence)),
      source: ruleSource(first.redirects, evidence),
      remedy: {
        steps: ['Take one of these rules out, or let it lead to a path that no rule takes.'],
        change: null,
      },
      claims: looping,
    },
  ]
}

function ruleSource(hops: readonly string[], { host }: Evidence): Cause['source'] {
  return host.rules.find(({ to }) => to !== null && hops.includes(to))?.place ?? null
}
