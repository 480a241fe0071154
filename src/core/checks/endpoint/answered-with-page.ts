import { withoutQuery } from '../../model/reference.ts'
import { listed } from '../../model/text.ts'
import { readdressed } from '../address-edits.ts'
import { answered } from '../answered.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { endpointPlaces } from '../endpoint-causes.ts'

/** The page asks its own host for data that no file and no rule of the host is. */
export const answeredWithPage = defineCheck({
  code: 'endpoint/answered-with-page',
  severity: 'caution',
  title: 'The page asks its own host for data, and the host has none',
  keywords: ['unexpected token <', 'HTML instead of JSON', 'api', 'same origin'],
  after: ['endpoint/proxy-only', 'project/needs-server', 'project/not-built'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { endpoints, hostGiven, site } = evidence
  // Above the site's base path are other things of the same host, of which this folder tells nothing.
  const failing = endpoints.filter(
    ({ kind, url, certainty }) =>
      kind === 'own path' &&
      certainty === 'called' &&
      url.startsWith(site.base) &&
      answered(url, evidence) !== null,
  )
  const [first] = failing
  if (!first) return []
  const paths = failing.map(({ url }) => withoutQuery(url))
  const shown =
    paths.length > 4 ? `${listed(paths.slice(0, 3))} and ${paths.length - 3} more paths` : listed(paths)
  return [
    {
      key: 'own host',
      // A bare folder may be served by a program that answers these, a library may never ask, and a host that nobody named proves nothing.
      severity: hostGiven && failing.some(({ source }) => source !== null) ? undefined : 'note',
      impact: `Data does not load: the host answers ${withoutQuery(first.url)} with ${answered(first.url, evidence)}.`,
      cause: `The build asks its own origin for ${shown}. No file of the folder and no rule of the host answers ${paths.length > 1 ? 'these' : 'this'}.`,
      places: failing.flatMap(endpointPlaces),
      source: first.source,
      fix: {
        steps: [
          'Put the address of the service before the path, from a variable of the environment, or have the host forward the path to the service and say so in a host file.',
          rebuild(evidence),
        ],
        edits:
          readdressed(
            failing.map(({ url }) => url),
            0,
            evidence,
          )?.edits ?? [],
      },
    },
  ]
}
