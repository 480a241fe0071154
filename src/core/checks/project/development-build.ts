import { counted, decode } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'
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

async function run(evidence: Evidence): Promise<Cause[]> {
  const { signs, places } = developmentPlaces(evidence)
  if (places.length === 0) return []
  const { survey } = evidence
  if (await isOnlyClient(signs, places, evidence)) return [clientAlone(places, evidence)]
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

const client = 'a client for hot replacement'

/** Nobody writes such lines, and no build for development does; UTF-16 units. */
const minifiedLine = 300

/** Whether a build for production has a plugin of development in it: its scripts are minified, and nothing else is of development. */
async function isOnlyClient(
  signs: readonly string[],
  places: readonly CausePlace[],
  { readFile }: Evidence,
): Promise<boolean> {
  if (signs.some((sign) => sign !== client)) return false
  for (const { file } of places) {
    const bytes = await readFile(file)
    const text = bytes ? decode(bytes) : ''
    if (text.length / text.split('\n').length < minifiedLine) return false
  }
  return true
}

function clientAlone(places: readonly CausePlace[], evidence: Evidence): Cause {
  return {
    key: 'development',
    severity: 'caution',
    title: 'A client for hot replacement is in the build',
    impact: 'More to download. What it is for is of no use to a visitor.',
    cause: `${counted(places.length, 'file')} of the build ${places.length === 1 ? 'holds' : 'hold'} ${client}, and all else is as for production.`,
    places,
    source: evidence.survey.build?.at ?? null,
    fix: ['Leave the plugin for hot replacement out of the configuration for production.', rebuild(evidence)],
  }
}
