import type { Endpoint } from '../../endpoints/endpoint.ts'
import { beginningsOf, forwards } from '../../model/forwarded.ts'
import { describeOrigin } from '../../model/reading.ts'
import { fixedPart } from '../../model/reference.ts'
import { readdressed } from '../address-edits.ts'
import { answered } from '../answered.ts'
import { type Cause, defineCheck, type Evidence, placesOf, rebuild } from '../check.ts'
import { endpointPlaces } from '../endpoint-causes.ts'
import { effectOf, severityOf } from '../missing-files.ts'

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
    if (!first) return ofElements(prefix, evidence)
    const what = answered(first.url, evidence) ?? ''
    const proven = hostGiven && failing.some(({ certainty }) => certainty === 'called')
    const readdress = readdressed(
      failing.map(({ url }) => url),
      index,
      evidence,
    )
    return [
      {
        key: prefix,
        severity: proven ? undefined : 'caution',
        impact: `Data does not load: the host answers ${first.url} with ${what}.`,
        cause: causeOf(prefix, evidence),
        places: failing.flatMap(endpointPlaces),
        source: first.source,
        fix: {
          steps: [
            readdress?.isVariable === false
              ? 'Put the address of the service before the path.'
              : 'Read the address of the service from a variable of the environment, and put it before the path.',
            rebuild(evidence),
            byHost(prefix),
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

function causeOf(prefix: string, { survey }: Evidence): string {
  const what = beginningsOf(prefix).length > 0 ? prefix : 'what no file answers'
  const from = survey.devProxy ? describeOrigin(survey.devProxy.from) : 'the configuration'
  return `Only the development server forwards ${what} (${from}); the build asks its own origin for it.`
}

function byHost(prefix: string): string {
  return `Or have the host forward ${beginningsOf(prefix).join(' and ') || 'these paths'}, and say so in a host file: a rule that answers it.`
}

/** What elements show of a service that only the development server forwards, where no request of a script is seen. */
function ofElements(prefix: string, evidence: Evidence): Cause[] {
  const { failing, hostGiven, requested, sources } = evidence
  const claims = failing.filter(
    ({ pathname }) => forwards(prefix, pathname) && requested.index.tailOf(pathname) === null,
  )
  const [place] = claims[0]?.places ?? []
  if (!hostGiven || !place) return []
  return [
    {
      key: prefix,
      severity: severityOf(claims),
      impact: effectOf(claims),
      cause: causeOf(prefix, evidence),
      places: placesOf(claims),
      source: sources.find(fixedPart(place.reference)),
      fix: {
        steps: [
          'Put the address of the service before the path, from a variable of the environment.',
          rebuild(evidence),
          byHost(prefix),
        ],
      },
      claims,
    },
  ]
}

/** An entry that forwards whatever no file answers takes all paths that this project's own code is seen to request. */
function isForwarded({ kind, url, certainty, source }: Endpoint, prefix: string): boolean {
  if (beginningsOf(prefix).length === 0)
    return kind === 'own path' && certainty === 'called' && source !== null
  return kind === 'forwarded path' && certainty !== 'harmless' && forwards(prefix, url)
}
