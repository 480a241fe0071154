import { describeOrigin } from '../../model/reading.ts'
import { normaliseBase } from '../../model/site.ts'
import { type Cause, type Check, type Evidence, rebuild } from '../check.ts'

/** The configuration was changed after the build. */
export const configNewer: Check = {
  code: 'fresh/config-newer',
  severity: 'caution',
  title: 'The configuration says something else than the build shows',
  keywords: ['stale', 'rebuild', 'old build'],
  meaning:
    'The base path in the configuration is not the one in the output: it was changed and nobody built again. The folder fits the ' +
    'address as it is; the next build will not.',
  example:
    "vite.config.ts says base: '/', and the build requests its files under /crossings/, where it is served.",
  fixes: { any: 'Build again, or take the change back: the base path must be that of the site address.' },
  after: [],
  run,
}

function run(evidence: Evidence): Cause[] {
  const { survey, requested, site } = evidence
  const said = survey.basePath
  const observed = requested.observed?.base
  if (!said || said.value === null || said.certainty !== 'stated' || !said.value.startsWith('/')) return []
  if (observed === undefined || observed !== site.base || normaliseBase(said.value) === observed) return []
  return [
    {
      key: 'base',
      impact: `Nothing yet; after the next build the files are requested under ${normaliseBase(said.value)}, and do not arrive.`,
      cause: `${describeOrigin(said.from)} says ${said.value}, and this build requests its files under ${observed}.`,
      places: [],
      source: 'file' in said.from ? said.from : null,
      fix: {
        steps: [`Set the base path back to ${site.base}, or change the address with it.`, rebuild(evidence)],
      },
    },
  ]
}
