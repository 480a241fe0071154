import { withoutQuery } from '../model/reference.ts'
import type { PageMessage, Visit } from '../rehearse/rehearsal.ts'
import type { Cause, CausePlace, Evidence } from './check.ts'

/** What visits saw of one thing: a message or a URL, and the routes that showed it. */
export interface Seen<T> {
  readonly key: string
  readonly first: T
  readonly routes: readonly string[]
}

/** The same thing seen on several routes and widths is one. */
export function seenBy<T>(
  visits: readonly Visit[],
  of: (visit: Visit) => readonly T[],
  keyOf: (item: T) => string,
): Seen<T>[] {
  const found = new Map<string, { first: T; routes: Set<string> }>()
  for (const visit of visits) {
    for (const item of of(visit)) {
      const key = keyOf(item)
      const known = found.get(key)
      if (known) known.routes.add(visit.route)
      else found.set(key, { first: item, routes: new Set([visit.route]) })
    }
  }
  return [...found].map(([key, { first, routes }]) => ({ key, first, routes: [...routes] }))
}

/**
 * Whether what was found without running explains what goes wrong on a route: a variable or the build itself is wrong, or the
 * request of a blocker is among those that failed there.
 */
export function explainedOn(route: string, { rehearsal, reported }: Evidence): boolean {
  const blocking = reported.filter(({ check, cause }) => (cause.severity ?? check.severity) === 'blocker')
  if (reported.some(({ check }) => ofRunning.test(check.code))) return true
  const requests = new Set(
    blocking.flatMap(({ cause }) => cause.places.flatMap(({ request }) => request ?? [])),
  )
  const visits = rehearsal?.visits.filter((visit) => visit.route === route) ?? []
  return isMet(visits, requests)
}

/** What keeps scripts from running at all, or lets them run on what is not there. */
const ofRunning = /^(?:env|project)\/|^asset\/(?:broken-script|policy-blocks|unknown-module)$/

/** Whether visits met one of these requests: as it is, without its query, or by its path alone. */
export function isMet(visits: readonly Visit[], requests: ReadonlySet<string>): boolean {
  return visits.some(({ failed, left }) =>
    [...failed, ...left].some(
      ({ url }) =>
        requests.has(url) ||
        requests.has(withoutQuery(url)) ||
        (URL.canParse(url) && requests.has(new URL(url).pathname)),
    ),
  )
}

/** Where a message comes from in the build. */
export async function showingOf(
  { file, line, column }: PageMessage,
  evidence: Evidence,
): Promise<CausePlace[]> {
  if (file === null) return []
  const bytes = await evidence.readFile(file)
  const text = bytes ? new TextDecoder().decode(bytes) : null
  if (text === null) return [{ file, offset: null, length: 0 }]
  let start = 0
  for (let at = 1; at < line; at++) start = text.indexOf('\n', start) + 1 || start
  return [{ file, offset: Math.min(text.length, start + column - 1), length: 1 }]
}

/** "on /sailings and 3 more routes": the routes that showed something. */
export function onRoutes(routes: readonly string[]): string {
  const [first = ''] = routes
  return routes.length > 1 ? `${first} and ${routes.length - 1} more` : first
}

/** A fix where only the message is known. */
export function lookThere(what: string): Cause['fix'] {
  return { steps: [what] }
}
