import type { Endpoint } from '../../endpoints/endpoint.ts'
import { beginningsOf, forwards } from '../../model/forwarded.ts'
import { describeOrigin } from '../../model/reading.ts'
import { readdressed } from '../address-edits.ts'
import { answered } from '../answered.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { endpointPlaces } from '../endpoint-causes.ts'

/** A path of the own origin that only the development server answers. */
export const proxyOnly = defineCheck({
  code: 'endpoint/proxy-only',
  severity: 'blocker',
  title: 'The build calls a path that only the development server forwards',
  keywords: ['proxy', 'development proxy', '/api'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { survey, endpoints, hostGiven } = evidence
  const prefixes = survey.devProxy?.value ?? []
  return prefixes.flatMap((prefix, index): Cause[] => {
    const requested = endpoints.filter((each) => isForwarded(each, prefix))
    const failing = requested.filter(({ url }) => answered(url, evidence) !== null)
    const [first] = failing
    if (!first) return []
    const what = answered(first.url, evidence) ?? ''
    const proven = hostGiven && failing.some(({ certainty }) => certainty === 'called')
    const readdress = readdressed(
      failing.map(({ url }) => url),
      index,
      evidence,
    )
    const from = survey.devProxy ? describeOrigin(survey.devProxy.from) : 'the configuration'
    return [
      {
        key: prefix,
        severity: proven ? undefined : 'caution',
        impact: `Data does not load: the host answers ${first.url} with ${what}.`,
        cause: `Only the development server forwards ${beginningsOf(prefix).length > 0 ? prefix : 'what no file answers'} (${from}); the build asks its own origin for it.`,
        places: failing.flatMap(endpointPlaces),
        source: first.source,
        fix: {
          steps: [
            readdress?.isVariable === false
              ? 'Put the address of the service before the path.'
              : 'Read the address of the service from a variable of the environment, and put it before the path.',
            rebuild(evidence),
            `Or have the host forward ${beginningsOf(prefix).join(' and ') || 'these paths'}, and say so in a host file: a rule that answers it.`,
          ],
          edits: readdress?.edits ?? [],
        },
        // A picture of the service is no file that the build lacks. A caution must not take a blocker's requests.
        claims: evidence.failing.filter(
          ({ pathname }) => proven && beginningsOf(prefix).length > 0 && forwards(prefix, pathname),
        ),
      },
    ]
  })
}

/** An entry that forwards whatever no file answers takes all paths that this project's own code is seen to request. */
function isForwarded({ kind, url, certainty, source }: Endpoint, prefix: string): boolean {
  if (beginningsOf(prefix).length === 0)
    return kind === 'own path' && certainty === 'called' && source !== null
  return kind === 'forwarded path' && certainty !== 'harmless' && forwards(prefix, url)
}
