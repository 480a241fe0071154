import type { Cause, Evidence, Judge } from '../check.ts'
import { explainedOn, lookThere, onRoutes, seenBy } from '../rehearsed.ts'

/** A page asks for something of its own site and does not get it, and nothing in the build foretold that. */
export const requestFailed: Judge = {
  code: 'run/request-failed',
  severity: 'blocker',
  title: 'A page asks for what is not there',
  meaning:
    'A route was opened in a browser, and a script asked for a URL that it puts together while it runs; the host has nothing there. ' +
    'Told only where no other finding explains it. Found only by a rehearsal in a browser.',
  example: 'The page asks for /crossings/timetables/2026-11.json, and the host answers 404.',
  remedies: {
    any: 'See which script makes the URL, and whether the file is built, named so, and below the base path.',
  },
  after: ['*'],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { rehearsal, site, told } = evidence
  const known = new Set(told.flatMap(({ cause }) => cause.showings.flatMap(({ request }) => request ?? [])))
  // "undefined/v1/sailings" is asked for where a variable is missing, "your-url/v1" where nobody wrote it; that is told as such.
  const ofVariable = told.some(({ judge }) => judge.code === 'env/absent' || judge.code === 'env/placeholder')
  const seen = seenBy(
    rehearsal?.visits ?? [],
    ({ failed }) =>
      failed.filter(
        ({ url, data }) =>
          url.startsWith(site.origin) &&
          !known.has(url) &&
          !known.has(new URL(url).pathname) &&
          !(ofVariable && data) &&
          !/\/favicon\.ico$/.test(url),
      ),
    ({ url }) => url,
  )
  // That a page itself is not there is told as a route.
  const opened = [
    ...evidence.asked.routes.map(({ path }) => path),
    ...(rehearsal?.visits.map(({ route }) => route) ?? []),
  ]
  const documents = new Set(opened.map((path) => site.origin + path))
  return seen
    .filter(
      ({ key, routes }) => !documents.has(key) && !routes.every((route) => explainedOn(route, evidence)),
    )
    .map(({ key, first, routes }) => ({
      key,
      meets: `Something is missing on ${onRoutes(routes)}.`,
      cause: `The page asks for ${first.url} while it runs: ${first.reason}.`,
      showings: evidence.facts
        .filter(({ path }) => path === 'index.html')
        .slice(0, 1)
        .map(({ path }) => ({
          file: path,
          offset: null,
          length: 0,
          request: first.url,
          ...(first.status === null ? {} : { status: first.status }),
        })),
      source: null,
      remedy: lookThere(
        `See which script asks for ${new URL(first.url).pathname}, and whether that is built.`,
      ),
    }))
}
