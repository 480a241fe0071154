import { defineCheck } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'

/** Flows that elements make; those are reported with the page's other parts. */
const ofElements = new Set(['element', 'preconnect', 'hint', 'link', 'navigation'])

/** An https page calls a service by plain http or ws. */
export const endpointInsecure = defineCheck({
  code: 'endpoint/insecure',
  severity: 'blocker',
  title: 'The build calls a service without encryption',
  keywords: ['mixed content', 'http', 'https'],
  after: ['endpoint/loopback', 'endpoint/private-network', 'endpoint/placeholder'],
  run: (evidence) =>
    evidence.site.origin.startsWith('https:')
      ? endpointCauses(
          evidence.endpoints.filter(
            ({ kind, url, flow, certainty, variable }) =>
              // Links to pages and names of vocabularies are plain http everywhere.
              (certainty === 'called' || variable !== null) &&
              (kind === 'other origin' || kind === 'own origin' || kind === 'reserved name') &&
              /^(?:http|ws):/i.test(url) &&
              !ofElements.has(flow ?? ''),
          ),
          evidence,
          {
            reason: (origin) => `the browser refuses to ask ${origin} from an https page.`,
            why: 'and the site is https',
            instead: 'the encrypted address',
          },
        )
      : [],
})
