import { defineCheck, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The build holds a value that the variable had before. */
export const outdatedValue = defineCheck({
  code: 'env/outdated-value',
  severity: 'caution',
  title: 'The build holds an older value',
  keywords: ['rebuild', 'stale', 'environment variable'],
  run: (evidence) =>
    causeOf(variablesIn('outdated', 'present', evidence), (names, are) => ({
      impact: `The site still uses the former ${names}.`,
      cause: `What stands in the build in place of ${names} ${are} not the value set now.`,
      fix: [rebuild(evidence)],
    })),
})
