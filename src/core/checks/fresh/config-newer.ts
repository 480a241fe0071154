import { describeOrigin, isUncertain } from '../../model/reading.ts'
import { normaliseBase } from '../../model/site.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** The configuration was changed after the build. */
export const configNewer = defineCheck({
  code: 'fresh/config-newer',
  severity: 'caution',
  title: 'The configuration says something else than the build shows',
  keywords: ['stale', 'rebuild', 'old build'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { survey, requested, site } = evidence
  const said = survey.basePath
  const observed = requested.observed?.base
  if (!said || said.value === null || said.certainty !== 'stated' || !said.value.startsWith('/')) return []
  // What a variable may have set when the build ran, or what never has an effect, says nothing of the order.
  if (isUncertain(said)) return []
  if (observed === undefined || observed !== site.base || normaliseBase(said.value) === observed) return []
  return [
    {
      key: 'base',
      impact: `Nothing yet; after the next build the files are requested under ${normaliseBase(said.value)}, and do not arrive.`,
      cause: `${describeOrigin(said.from)} says ${said.value}, and this build requests its files under ${observed}.`,
      source: 'file' in said.from ? said.from : null,
      fix: [`Set the base path back to ${site.base}, or change the address with it.`, rebuild(evidence)],
    },
  ]
}
