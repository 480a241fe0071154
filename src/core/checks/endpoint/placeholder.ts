import { isReservedName } from '../../model/address.ts'
import type { Check, Evidence } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'

/** Nobody wrote the real address. */
export const endpointPlaceholder: Check = {
  code: 'endpoint/placeholder',
  severity: 'blocker',
  title: 'The build calls an address that is still to be written',
  keywords: ['example.com', 'placeholder'],
  meaning:
    'The built code makes requests of a placeholder: an address with <your-host> or TODO in it, or one below a name that nobody ' +
    'can have, such as example.com. The request fails, or reaches somebody else.',
  example: 'The bundle holds fetch("https://<your-host>/v1/sailings"), copied from a manual.',
  fixes: { any: 'Write the real address where the placeholder stands, then rebuild.' },
  after: ['env/placeholder'],
  run: (evidence) =>
    endpointCauses(
      evidence.endpoints.filter(
        ({ kind }) => kind === 'unfinished' || (kind === 'reserved name' && !isRehearsed(evidence)),
      ),
      evidence,
      {
        impact: (origin) => `Data does not load: ${origin} is a placeholder.`,
        why: 'which stands for an address that is still to be written',
        instead: 'the real address',
      },
    ),
}

/** Who gives a made-up address for the site, or none, may call made-up services. */
function isRehearsed({ site }: Evidence): boolean {
  return !site.given || isReservedName(new URL(site.address).hostname)
}
