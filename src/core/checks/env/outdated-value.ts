import { type Check, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The build holds a value that the variable had before. */
export const outdatedValue: Check = {
  code: 'env/outdated-value',
  severity: 'caution',
  title: 'The build holds an older value',
  keywords: ['rebuild', 'stale', 'environment variable'],
  meaning:
    "A variable's value was changed and nobody built again. Values are written into the bundle when it is built, so the new one " +
    'reaches nobody, however often the folder is uploaded.',
  example: '.env.production names a new address for VITE_SAILINGS_API; the bundle still asks the old one.',
  fixes: { any: 'Build again.' },
  after: [],
  run: (evidence) =>
    causeOf(variablesIn('outdated', 'present', evidence), (names, are) => ({
      impact: `The site still uses the former ${names}.`,
      cause: `What stands in the build in place of ${names} ${are} not the value set now.`,
      fix: { steps: [rebuild(evidence)] },
    })),
}
