import { type Check, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** Nobody wrote the real value yet. */
export const placeholder: Check = {
  code: 'env/placeholder',
  severity: 'caution',
  title: 'A variable still holds a placeholder',
  keywords: ['changeme', 'placeholder'],
  meaning:
    'The value of a variable is a text that stands for the real one, as in a template of an environment file, and the build took it.',
  example: 'VITE_CHART_KEY=your-key-here in .env.production.',
  fixes: { any: 'Write the real value where the build runs, then build again.' },
  after: [],
  run: (evidence) =>
    causeOf(variablesIn('placeholder', 'present', evidence), (names, are) => ({
      impact: `What needs ${names} does not work: a placeholder is sent in its place.`,
      cause: `The value of ${names} ${are} still a placeholder, and it is in the build.`,
      fix: {
        steps: [`Write the real value of ${names} where the build runs.`, rebuild(evidence)],
      },
    })),
}
