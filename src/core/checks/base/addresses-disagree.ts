import { describeOrigin } from '../../model/reading.ts'
import type { NamedAddress } from '../../project/addresses.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** What names the site's address does not agree. */
export const addressesDisagree = defineCheck({
  code: 'base/addresses-disagree',
  severity: 'caution',
  title: 'The project names two addresses for one site',
  keywords: ['custom domain', 'homepage', 'domain file'],
  run,
})

function run(evidence: Evidence): Cause[] {
  return [...twoHosts(evidence), ...domainBesideBase(evidence)]
}

function isSure({ kind }: NamedAddress): boolean {
  return kind === 'configuration' || kind === 'domain file'
}

function twoHosts({ addresses }: Evidence): Cause[] {
  const sure = addresses.filter(isSure)
  const [first] = sure
  const other = sure.find(({ value }) => first && new URL(value).host !== new URL(first.value).host)
  if (!first || !other) return []
  const [one, two] = [new URL(first.value).host, new URL(other.value).host]
  return [
    {
      key: 'hosts',
      impact: `Links that hold the whole address lead to ${one}, and the site is served at ${two}, or the other way round.`,
      cause: `${describeOrigin(first.from)} names ${one}; ${describeOrigin(other.from)} names ${two}.`,
      source: first.from,
      fix: [`Let ${first.from.file} and ${other.from.file} name the same host.`],
    },
  ]
}

/** The base path that is configured, else the one the output shows. */
function domainBesideBase(evidence: Evidence): Cause[] {
  const { addresses, survey, requested, site } = evidence
  const domain = addresses.find(({ kind }) => kind === 'domain file')
  const base = requested.observed?.base ?? survey.basePath?.value ?? '/'
  // Somebody who names an address below the domain's top knows what they do.
  const meant =
    site.given && domain !== undefined && site.address.startsWith(domain.value) && site.base !== '/'
  if (!domain || meant || !/^\/.+/.test(base)) return []
  const at = survey.basePath && 'file' in survey.basePath.from ? survey.basePath.from : null
  return [
    {
      key: 'domain',
      title: 'A domain of its own stands beside a base path',
      impact: `A bare page at ${domain.value}: its files are requested under ${base}, and a domain is served from its top.`,
      cause: `${domain.from.file} gives the site the domain ${new URL(domain.value).host}, and the build is made for ${base}.`,
      source: at ?? domain.from,
      fix: [
        `For the domain, set the base path to /${at ? ` in ${at.file}, line ${at.line}` : ''}. ${rebuild(evidence)}`,
        `To stay at ${base}, take ${domain.from.file} away.`,
      ],
    },
  ]
}
