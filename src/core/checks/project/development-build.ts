import { counted } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { developmentPlaces } from '../development-places.ts'
import { productionMode } from '../production-mode.ts'

/** The folder holds a build for development. */
export const developmentBuild = defineCheck({
  code: 'project/development-build',
  severity: 'blocker',
  title: 'This is a development build',
  keywords: ['development build', 'eval', 'hot reload', 'NODE_ENV'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { signs, places } = developmentPlaces(evidence)
  if (places.length === 0) return []
  const { survey } = evidence
  return [
    {
      key: 'development',
      impact: 'A slower site, several times as large as it need be.',
      cause: `${counted(places.length, 'file')} of the build ${places.length === 1 ? 'holds' : 'hold'} ${signs.join(', ')}.`,
      places,
      source: survey.build?.at ?? null,
      fix: productionMode(evidence),
    },
  ]
}
