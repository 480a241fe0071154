import { listed } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { explainedOn, lookThere, onRoutes, seenBy } from '../rehearsed.ts'

/** A page requests something of its own site and does not get it, and nothing in the build predicted that. */
export const requestFailed = defineCheck({
  code: 'run/request-failed',
  severity: 'blocker',
  title: 'A page requests what is not there',
  keywords: ['network', 'failed request'],
  after: ['*'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { rehearsal, site, reported } = evidence
  const known = new Set(reported.flatMap(({ cause }) => cause.places.flatMap(({ request }) => request ?? [])))
  // "undefined/v1/sailings" is requested where a variable is missing, "your-url/v1" where nobody wrote it; that is reported as such.
  const ofVariable = reported.some(
    ({ check }) => check.code === 'env/absent' || check.code === 'env/placeholder',
  )
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
  // That a page itself is not there is reported as a route.
  const opened = [
    ...evidence.requested.routes.map(({ path }) => path),
    ...(rehearsal?.visits.map(({ route }) => route) ?? []),
  ]
  const documents = new Set(opened.map((path) => site.origin + path))
  return seen
    .filter(
      ({ key, routes }) => !documents.has(key) && !routes.every((route) => explainedOn(route, evidence)),
    )
    .map(({ key, first, routes }) => ({
      key,
      ...(holdsUndefined(first.url) ? { title: 'A page requests an address that holds undefined' } : {}),
      impact: `Something is missing on ${onRoutes(routes)}.`,
      cause: `The page requests ${first.url} while it runs: ${first.reason}.`,
      places: evidence.facts
        .filter(({ path }) => path === 'index.html')
        .slice(0, 1)
        .map(({ path }) => ({
          file: path,
          offset: null,
          length: 0,
          request: first.url,
          ...(first.status === null ? {} : { status: first.status }),
        })),
      fix: holdsUndefined(first.url)
        ? setMissing(evidence)
        : lookThere(`See which script requests ${new URL(first.url).pathname}, and whether that is built.`),
    }))
}

/** `/undefined/v1/sailings`: a value was not there when the address was put together. */
function holdsUndefined(url: string): boolean {
  return /\/undefined(?:\/|$)/.test(new URL(url).pathname)
}

/** The variables that nothing sets, of which one was meant to stand there. */
function setMissing(evidence: Evidence): Cause['fix'] {
  const missing = evidence.environment.filter(
    ({ state, definedIn, inProcess, readAt }) =>
      state === 'unknown' && definedIn.length === 0 && !inProcess && readAt.length > 0,
  )
  const names = listed(
    missing.map(({ name, readAt: [at] }) => (at ? `${name} (${at.file}:${at.line})` : name)),
  )
  return [
    missing.length > 0
      ? `Set ${names} where the build runs: nothing in the project does.`
      : 'Find the value that stands at undefined, and set its variable where the build runs.',
    rebuild(evidence),
  ]
}
