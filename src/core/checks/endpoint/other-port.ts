import { isLocalName, isLoopback, isPrivateNetwork } from '../../model/address.ts'
import { listed } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { endpointPlaces } from '../endpoint-causes.ts'

/** The page asks another port of the host that it is served from. */
export const otherPort = defineCheck({
  code: 'endpoint/other-port',
  severity: 'caution',
  title: 'The page asks another port of its own host',
  keywords: ['location.hostname', 'port', 'connection refused'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { endpoints, site } = evidence
  const { protocol, hostname, port } = new URL(site.origin)
  const asked = endpoints.filter(
    ({ kind, certainty, url }) => kind === 'own host' && certainty === 'called' && portOf(url) !== port,
  )
  const [first] = asked
  if (!first) return []
  const isInside = isPrivateNetwork(hostname) || isLocalName(hostname) || isLoopback(hostname)
  if (site.given && isInside) return []
  const ports = [...new Set(asked.map(({ url }) => portOf(url)))]
  const many = ports.length > 1
  return [
    {
      key: 'own host',
      // Nobody said where this is served: it may be a machine that has the service beside the site.
      severity: site.given ? undefined : 'note',
      impact: `Data does not load unless something listens on ${many ? 'ports' : 'port'} ${listed(ports)} of ${site.given ? hostname : 'the host'}: hosts of files answer on the usual port alone.`,
      cause: `The build puts the page's own host name before ${listed(ports.map((each) => `:${each}`))}, as on a developer's machine, where the site and the service run side by side.`,
      places: asked.flatMap((each) =>
        endpointPlaces({ ...each, url: `${protocol}//${hostname}${each.url}` }),
      ),
      source: first.source,
      fix: [
        'Put the address of the service there, from a variable of the environment, or ask a path of the own origin that the host forwards.',
        rebuild(evidence),
      ],
    },
  ]
}

function portOf(url: string): string {
  return /^:(\d+)/.exec(url)?.[1] ?? ''
}
