import { isLocalName, isLoopback, isPrivateNetwork } from '../../model/address.ts'
import { defineCheck, type Evidence } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'
import { isHostByMistake } from '../merged-slashes.ts'

/** The build calls an address that only a network of its own knows. */
export const privateNetwork = defineCheck({
  code: 'endpoint/private-network',
  severity: 'blocker',
  title: 'The build calls an address of a private network',
  keywords: ['192.168', 'intranet', 'private network'],
  after: ['env/development-value'],
  run: (evidence) =>
    isInside(evidence)
      ? []
      : endpointCauses(
          evidence.endpoints.filter(
            (endpoint) =>
              endpoint.kind === 'private network' ||
              (endpoint.kind === 'local name' && !isHostByMistake(endpoint)),
          ),
          evidence,
          {
            reason: (origin) => `${origin} is not reached from outside its own network.`,
            why: 'which only a network of its own knows',
            instead: 'the public address',
          },
        ),
})

/** A site that is served inside a network may call it. */
function isInside({ site }: Evidence): boolean {
  const { hostname } = new URL(site.address)
  return site.given && (isPrivateNetwork(hostname) || isLocalName(hostname) || isLoopback(hostname))
}
