import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { explainedOn, lookThere, onRoutes, seenBy, showingOf } from '../rehearsed.ts'

/** A script of the page threw, and nobody caught it. */
export const pageError = defineCheck({
  code: 'run/page-error',
  severity: 'blocker',
  title: 'A script stops with an error',
  keywords: ['JavaScript error', 'exception'],
  after: ['*'],
  run,
})

/** What becomes of a request that was not sent, when nobody catches it. */
const ofRequests = /failed to fetch|networkerror|load failed|network error|fetch failed/i

async function run(evidence: Evidence): Promise<Cause[]> {
  const visits = evidence.rehearsal?.visits ?? []
  // A rehearsal sends nothing elsewhere, and code may stumble over that alone.
  const unsent = new Set(
    visits.filter(({ left }) => left.some(({ outcome }) => outcome === 'not sent')).map(({ route }) => route),
  )
  const seen = seenBy(
    visits,
    ({ errors }) => errors,
    ({ text, file, line }) => `${text} ${file} ${line}`,
  )
  const own = seen.filter(
    ({ first, routes }) =>
      !routes.every(
        (route) => explainedOn(route, evidence) || (unsent.has(route) && ofRequests.test(first.text)),
      ),
  )
  return Promise.all(
    own.map(async ({ key, first, routes }) => {
      const doubtful = routes.every((route) => unsent.has(route))
      return {
        key,
        severity: doubtful ? 'caution' : undefined,
        impact: `A page that does not do all it should: ${onRoutes(routes)}.`,
        cause: `A script throws: ${first.text.split('\n')[0]}${doubtful ? '. Requests for other origins were not sent there, which may be why.' : ''}`,
        places: await showingOf(first, evidence),
        fix: lookThere(
          doubtful
            ? 'Give the rehearsal what the services answer, or let it send requests to them, and rehearse again.'
            : 'Fix the line that throws, then rebuild.',
        ),
      }
    }),
  )
}
