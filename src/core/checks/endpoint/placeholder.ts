import { isReservedName } from '../../model/address.ts'
import { defineCheck, type Evidence } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'

/** Nobody wrote the real address. */
export const endpointPlaceholder = defineCheck({
  code: 'endpoint/placeholder',
  severity: 'blocker',
  title: 'The build calls an address that is still to be written',
  keywords: ['example.com', 'placeholder'],
  after: ['env/placeholder'],
  run: (evidence) =>
    endpointCauses(
      evidence.endpoints.filter(
        ({ kind }) => kind === 'unfinished' || (kind === 'reserved name' && !isRehearsed(evidence)),
      ),
      evidence,
      {
        reason: (origin) => `${origin} is a placeholder.`,
        why: 'which stands for an address that is still to be written',
        instead: 'the real address',
      },
    ),
})

/** Who gives a made-up address for the site, or none, may call made-up services. */
function isRehearsed({ site }: Evidence): boolean {
  return !site.given || isReservedName(new URL(site.address).hostname)
}
