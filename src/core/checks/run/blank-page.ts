import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { explainedOn, lookThere, onRoutes } from '../rehearsed.ts'

/** A page shows nothing. */
export const blankPage = defineCheck({
  code: 'run/blank-page',
  severity: 'blocker',
  title: 'A page stays blank',
  keywords: ['blank page', 'white screen'],
  after: ['*', 'run/page-error'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const visits = evidence.rehearsal?.visits ?? []
  const thrown = new Set(visits.filter(({ errors }) => errors.length > 0).map(({ route }) => route))
  const routes = [...new Set(visits.filter(({ blank }) => blank).map(({ route }) => route))].filter(
    // A script that threw has been reported, and a blank page is what comes of it.
    (route) => !thrown.has(route) && !explainedOn(route, evidence),
  )
  const [first] = routes
  if (first === undefined) return []
  return [
    {
      key: 'blank',
      impact: `Nothing at all: ${onRoutes(routes)}.`,
      cause: `${first} was loaded and stayed empty, and no script complained.`,
      count: routes.length,
      fix: lookThere('See that the entry script finds the element it draws into.'),
    },
  ]
}
