import { defineCheck, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The value of a variable that must not ship is in the build. */
export const privateValue = defineCheck({
  code: 'env/private-value',
  severity: 'blocker',
  title: 'A private value is in the build',
  keywords: ['secret', 'leak', 'password'],
  run: (evidence) =>
    causeOf(variablesIn('private', 'private', evidence), (names, are) => ({
      impact: `Anybody can read the value of ${names} in the published files.`,
      cause: `The value of ${names}, which ${are} not public, stands in the build.`,
      fix: [
        'Take it out of what the bundler defines or makes public.',
        rebuild(evidence),
        'If this build was ever published: replace the value where it gives access.',
      ],
    })),
})
