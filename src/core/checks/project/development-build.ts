import { counted } from '../../model/text.ts'
import type { Cause, Check, Evidence } from '../check.ts'
import { developmentPlaces } from '../development-places.ts'

/** The folder holds a build for development. */
export const developmentBuild: Check = {
  code: 'project/development-build',
  severity: 'blocker',
  title: 'This is a development build',
  keywords: ['development build', 'eval', 'hot reload', 'NODE_ENV'],
  meaning:
    'The scripts hold what only development needs: libraries with their checks and warnings, modules evaluated from texts, a ' +
    'client that waits for a development server. Visitors load several times as much, and it runs slower.',
  example:
    'NODE_ENV=development was left in the environment when vite build ran: the bundle calls jsxDEV with the paths of the sources.',
  fixes: {
    any: 'Build for production: see that NODE_ENV is production or not set, and that no mode or configuration for development is named.',
    vite: 'Run vite build without NODE_ENV=development in the environment.',
    angular: 'Run ng build without --configuration development.',
    'vue-cli': 'Run vue-cli-service build without --mode development.',
    webpack: 'Run webpack with --mode production.',
    parcel:
      "Run parcel build, and publish what it writes: the development server's output is in the same folder.",
  },
  after: [],
  run,
}

function run(evidence: Evidence): Cause[] {
  const { signs, places } = developmentPlaces(evidence)
  if (places.length === 0) return []
  const { survey } = evidence
  const command = survey.build?.command.value
  return [
    {
      key: 'development',
      impact: 'A slower site, several times as large as it need be.',
      cause: `${counted(places.length, 'file')} of the build ${places.length === 1 ? 'holds' : 'hold'} ${signs.join(', ')}.`,
      places,
      source: survey.build?.at ?? null,
      fix: {
        steps: [
          `Build for production${command ? `: ${command}, with NODE_ENV not set and no mode for development` : ''}.`,
        ],
      },
    },
  ]
}
