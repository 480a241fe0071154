import { counted } from '../../model/text.ts'
import { developmentShowings } from '../development-places.ts'
import type { Cause, Evidence, Judge } from '../check.ts'

/** The folder holds a build for development. */
export const developmentBuild: Judge = {
  code: 'project/development-build',
  severity: 'blocker',
  title: 'This is a development build',
  meaning:
    'The scripts hold what only development needs: libraries with their checks and warnings, modules evaluated from texts, a ' +
    'client that waits for a development server. Visitors load several times as much, and it runs slower.',
  example:
    'NODE_ENV=development was left in the environment when vite build ran: the bundle calls jsxDEV with the paths of the sources.',
  remedies: {
    any: 'Build for production: see that NODE_ENV is production or not set, and that no mode or configuration for development is named.',
    vite: 'Run vite build without NODE_ENV=development in the environment.',
    angular: 'Run ng build without --configuration development.',
    'vue-cli': 'Run vue-cli-service build without --mode development.',
    webpack: 'Run webpack with --mode production.',
    parcel:
      "Run parcel build, and publish what it writes: the development server's output lies in the same folder.",
  },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { signs, showings } = developmentShowings(evidence)
  if (showings.length === 0) return []
  const { survey } = evidence
  const command = survey.build?.command.value
  return [
    {
      key: 'development',
      meets: 'A slower site, several times as large as it need be.',
      cause: `${counted(showings.length, 'file')} of the build ${showings.length === 1 ? 'holds' : 'hold'} ${signs.join(', ')}.`,
      showings,
      source: survey.build?.at ?? null,
      remedy: {
        steps: [
          `Build for production${command ? `: ${command}, with NODE_ENV not set and no mode for development` : ''}.`,
        ],
        change: null,
      },
    },
  ]
}
