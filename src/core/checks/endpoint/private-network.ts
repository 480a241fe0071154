import { isLocalName, isLoopback, isPrivateNetwork } from '../../model/address.ts'
import type { Check, Evidence } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'

/** The build calls an address that only a network of its own knows. */
export const privateNetwork: Check = {
  code: 'endpoint/private-network',
  severity: 'blocker',
  title: 'The build calls an address of a private network',
  keywords: ['192.168', 'intranet', 'private network'],
  meaning:
    'The built code makes requests of an address that is only reached from inside one network: a private range, a link-local ' +
    'address, a name without a dot, or one that ends in .local, .internal or .lan. Visitors from elsewhere get no answer, and ' +
    'browsers ask before they let a public page reach into a private network.',
  example:
    'The bundle holds fetch("http://sailings:8080/v1"): the name of a container, as the developer reaches it.',
  fixes: {
    any: 'Write the public address of the service where the internal one stands, then rebuild. A site that is itself served inside that network is not reported.',
  },
  after: ['env/development-value'],
  run: (evidence) =>
    isInside(evidence)
      ? []
      : endpointCauses(
          evidence.endpoints.filter(({ kind }) => kind === 'private network' || kind === 'local name'),
          evidence,
          {
            impact: (origin) => `Data does not load: ${origin} is not reached from outside its own network.`,
            why: 'which only a network of its own knows',
            instead: 'the public address',
          },
        ),
}

/** A site that is served inside a network may call it. */
function isInside({ site }: Evidence): boolean {
  const { hostname } = new URL(site.address)
  return site.given && (isPrivateNetwork(hostname) || isLocalName(hostname) || isLoopback(hostname))
}
