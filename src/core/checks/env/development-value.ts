import { developmentShowings } from '../development-places.ts'
import type { Cause, Evidence, Judge } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The build holds what only development has. */
export const developmentValue: Judge = {
  code: 'env/development-value',
  severity: 'blocker',
  title: "The build holds development's value",
  meaning:
    'A variable has one value for development and another for production, and the build holds the one for development: it was ' +
    'built in the wrong mode, or the file for development was loaded.',
  example:
    '.env.development says VITE_SAILINGS_API=http://localhost:8787, and so does the bundle; .env.production says something else.',
  remedies: {
    any: 'Build in production mode, with the environment of production.',
    vite: 'Run vite build without --mode development, and without NODE_ENV=development in the environment.',
  },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const found = variablesIn('from development', 'development', evidence)
  // A build for development holds development's values, and is told as one.
  if (found.length === 0 || developmentShowings(evidence).showings.length > 0) return []
  const command = evidence.survey.build?.command.value
  return causeOf(found, (names, are) => ({
    meets: `The site uses development's ${names}, for every visitor.`,
    cause: `The value of ${names} in the build ${are} the one that only development loads; production has another.`,
    remedy: {
      steps: [
        `Build in production mode${command ? `: ${command}, without a mode or NODE_ENV for development` : ''}.`,
      ],
      change: null,
    },
  }))
}
