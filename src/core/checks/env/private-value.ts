import { type Check, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The value of a variable that must not ship is in the build. */
export const privateValue: Check = {
  code: 'env/private-value',
  severity: 'blocker',
  title: 'A private value is in the build',
  keywords: ['secret', 'leak', 'password'],
  meaning:
    'The value of a variable that is not public stands in a file that every visitor can read. What was published must be taken ' +
    'for known: the value has to be replaced where it is used, not only taken out of the build.',
  example: 'The bundler was configured to define DATABASE_PASSWORD for the browser.',
  fixes: {
    any: 'Take the variable out of what the build makes public, rebuild, and replace the value wherever it gives access.',
    vite: 'Take it out of define in the Vite configuration, and narrow envPrefix; then rebuild.',
  },
  after: [],
  run: (evidence) =>
    causeOf(variablesIn('private', 'private', evidence), (names, are) => ({
      impact: `Anybody can read the value of ${names} in the published files.`,
      cause: `The value of ${names}, which ${are} not public, stands in the build.`,
      fix: {
        steps: [
          'Take it out of what the bundler defines or makes public.',
          rebuild(evidence),
          'If this build was ever published: replace the value where it gives access.',
        ],
      },
    })),
}
