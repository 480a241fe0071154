import type { RouteAnswer } from '../../model/report.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { routePlace } from '../route-place.ts'

/** A page of this site sends its visitors away from it. */
export const redirectLeavesSite = defineCheck({
  code: 'route/redirect-leaves-site',
  severity: 'blocker',
  title: "A redirect leads away from the site's own address",
  keywords: ['redirect', 'wrong domain'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const groups = new Map<string, RouteAnswer[]>()
  for (const route of evidence.requested.routes) {
    const last = route.redirects.at(-1)
    const url = last !== undefined && URL.canParse(last) ? new URL(last) : null
    if (route.by !== 'redirect' || route.loops || url === null || url.origin === evidence.site.origin)
      continue
    groups.set(url.origin, [...(groups.get(url.origin) ?? []), route])
  }
  return [...groups].map(([origin, routes]) => causeOf(origin, routes, evidence))
}

function causeOf(origin: string, routes: readonly RouteAnswer[], evidence: Evidence): Cause {
  const { site, host } = evidence
  const [first] = routes
  const plain = site.origin.startsWith('https:') && origin.startsWith('http:')
  const rule = host.rules.find(({ to, status }) => to?.startsWith(origin) && status >= 300 && status < 400)
  return {
    key: origin,
    impact: `${first?.path} sends a visitor to ${origin}${plain ? ', by plain http' : ''}, away from ${site.origin}.`,
    cause: `The rule ${rule ? `${rule.from} → ${rule.to}` : 'that answers'} names another origin for ${routes.length === 1 ? 'a page' : `${routes.length} pages`} of this site.`,
    places: routes.map((route) => routePlace(route, evidence)),
    source: rule?.place ?? null,
    fix: [
      `Let the rule lead to a path, as in ${site.base}, or send the document itself with status 200.`,
      'If the page has moved there for good, take it out of this site and its links.',
    ],
    claims: routes,
  }
}
