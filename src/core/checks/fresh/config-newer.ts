import { describeOrigin } from '../../model/reading.ts'
import { normaliseBase } from '../../model/site.ts'
import { type Cause, type Evidence, type Judge, rebuild } from '../check.ts'

/** The configuration was changed after the build. */
export const configNewer: Judge = {
  code: 'fresh/config-newer',
  severity: 'caution',
  title: 'The configuration says something else than the build shows',
  meaning:
    'The base path in the configuration is not the one in the output: it was changed and nobody built again. The folder fits the ' +
    'address as it is; the next build will not.',
  example:
    "vite.config.ts says base: '/', and the build asks for its files under /crossings/, where it is served.",
  remedies: { any: 'Build again, or take the change back: the base path must be that of the site address.' },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { survey, asked, site } = evidence
  const said = survey.basePath
  const observed = asked.observed?.base
  if (!said || said.value === null || said.certainty !== 'stated' || !said.value.startsWith('/')) return []
  if (observed === undefined || observed !== site.base || normaliseBase(said.value) === observed) return []
  return [
    {
      key: 'base',
      meets: `Nothing yet; after the next build the files are asked for under ${normaliseBase(said.value)}, and do not arrive.`,
      cause: `${describeOrigin(said.from)} says ${said.value}, and this build asks for its files under ${observed}.`,
      showings: [],
      source: 'file' in said.from ? said.from : null,
      remedy: {
        steps: [`Set the base path back to ${site.base}, or change the address with it.`, rebuild(evidence)],
        change: null,
      },
    },
  ]
}
