import type { Cause, Check, Evidence } from '../check.ts'
import { explainedOn, lookThere, onRoutes } from '../rehearsed.ts'

/** A page shows nothing. */
export const blankPage: Check = {
  code: 'run/blank-page',
  severity: 'blocker',
  title: 'A page stays blank',
  keywords: ['blank page', 'white screen'],
  meaning:
    'A route was opened in a browser as a stranger opens it, and when it was quiet it showed no text, no picture and nothing to use. ' +
    'Reported only where no other finding explains it. Found only by a rehearsal in a browser.',
  example: 'The entry script is loaded, looks for an element that is not in the page, and draws nothing.',
  fixes: { any: 'Open the route in a browser and look at its console; the entry script did not draw.' },
  after: ['*', 'run/page-error'],
  run,
}

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
      places: [],
      count: routes.length,
      fix: lookThere('See that the entry script finds the element it draws into.'),
    },
  ]
}
