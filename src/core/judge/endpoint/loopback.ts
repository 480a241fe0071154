import type { Place } from '../../model/reading.ts'
import { type Cause, type Evidence, type Judge, rebuild, type Showing } from '../judge.ts'

/** The build calls the developer's own machine. */
export const loopback: Judge = {
  code: 'endpoint/loopback',
  severity: 'blocker',
  title: "The build calls the visitor's own machine",
  meaning:
    'The built code makes requests of localhost or another loopback address. That is the machine the browser runs on: ' +
    'for the developer it answers, for every visitor nothing does.',
  example: 'The bundle holds fetch("http://localhost:8787/v1/sailings"), from VITE_SAILINGS_API in .env.',
  remedies: {
    any: 'Write the production address of the service where the development one stands, then rebuild.',
    vite:
      'Keep the development address in .env.development, which vite build does not read, and the production address in ' +
      '.env.production; then rebuild.',
  },
  after: ['env/development-value'],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const byOrigin = new Map<string, Cause>()
  for (const endpoint of evidence.endpoints) {
    if (endpoint.kind !== 'loopback' || endpoint.judgement !== 'called') continue
    if (isOfDevelopment(endpoint.url, evidence)) continue
    const { origin } = new URL(endpoint.url)
    const variable = carrierOf(endpoint.url, evidence)
    const source = variable?.place ?? sourceOf(endpoint.url, evidence)
    const before = byOrigin.get(origin)
    byOrigin.set(origin, {
      key: origin,
      meets: `Data does not load: the page asks ${origin}, which is the visitor's own machine.`,
      cause: variable
        ? `${variable.name} was ${origin} when the build ran (${variable.place.file}:${variable.place.line} sets it).`
        : `The source names ${origin}${source ? ` at ${source.file}:${source.line}` : ''}.`,
      showings: [...(before?.showings ?? []), ...showingsFor(endpoint.url, evidence)],
      source: before?.source ?? source,
      remedy: { steps: [step(variable, source), rebuild(evidence)], change: null },
    })
  }
  return [...byOrigin.values()]
}

/** The development value of a variable, which is a finding of its own. */
function isOfDevelopment(url: string, { facts }: Evidence): boolean {
  return facts.some(({ endpoints, sightings }) =>
    endpoints.some(
      (endpoint) =>
        endpoint.url === url &&
        sightings.some(({ state, offset }) => state === 'development' && offset === endpoint.offset),
    ),
  )
}

function showingsFor(url: string, { facts }: Evidence): Showing[] {
  return facts.flatMap(({ path, endpoints }) =>
    endpoints
      .filter((endpoint) => endpoint.url === url)
      .map(({ offset, length }) => ({ file: path, offset, length, request: shown(url) })),
  )
}

/** Without user, password and query, which may be secrets. */
function shown(url: string): string {
  const { origin, pathname } = new URL(url)
  return origin + pathname
}

/** The variable whose value stands where the URL stands. */
function carrierOf(url: string, { facts, environment }: Evidence): { name: string; place: Place } | null {
  for (const { endpoints, sightings } of facts) {
    for (const { offset } of endpoints.filter((endpoint) => endpoint.url === url)) {
      const sighting = sightings.find((each) => each.read === null && each.offset === offset)
      const variable = environment.find(({ name }) => name === sighting?.name)
      const place = variable?.definedIn.at(-1)
      if (variable && place) return { name: variable.name, place }
    }
  }
  return null
}

function sourceOf(url: string, { sources }: Evidence): Place | null {
  return sources.find(url) ?? sources.find(new URL(url).origin)
}

function step(variable: { name: string; place: Place } | null, source: Place | null): string {
  if (variable)
    return `In ${variable.place.file}, line ${variable.place.line}, give ${variable.name} the production address.`
  return source
    ? `In ${source.file}, line ${source.line}, use the production address, from a variable of the environment.`
    : 'Find what sets this address in the sources, and use the production address there.'
}
