import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { explainedOn, lookThere, onRoutes, seenBy, showingOf } from '../rehearsed.ts'

/** A page's console holds an error. */
export const consoleError = defineCheck({
  code: 'run/console-error',
  severity: 'caution',
  title: 'A page complains on the console',
  keywords: ['console'],
  after: ['*', 'run/page-error', 'run/request-failed'],
  run,
})

/** What browsers say of requests: those are reported as requests. */
const ofRequests = /^Access to |has been blocked by CORS policy|net::ERR_|^Mixed Content/

async function run(evidence: Evidence): Promise<Cause[]> {
  const visits = evidence.rehearsal?.visits ?? []
  const seen = seenBy(
    visits,
    ({ complaints }) => complaints.filter(({ kind, text }) => kind === 'error' && !ofRequests.test(text)),
    ({ text, file }) => `${text.slice(0, 200)} ${file}`,
  )
  // A request that was not sent, or was refused, makes code complain: that is no news.
  const quiet = (route: string): boolean =>
    explainedOn(route, evidence) ||
    visits.some(
      (each) =>
        each.route === route &&
        (each.failed.length > 0 ||
          each.errors.length > 0 ||
          each.left.some(({ outcome }) => outcome === 'not sent')),
    )
  const own = seen.filter(({ routes }) => !routes.every(quiet))
  return Promise.all(
    own.map(async ({ key, first, routes }) => ({
      key,
      impact: `Perhaps nothing: the console of ${onRoutes(routes)} has an error.`,
      cause: `The console says: ${first.text.split('\n')[0]?.slice(0, 300)}`,
      places: await showingOf(first, evidence),
      fix: lookThere('Read the message; where it is expected, nothing need be done.'),
    })),
  )
}
