import { type Judge, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** Nobody wrote the real value yet. */
export const placeholder: Judge = {
  code: 'env/placeholder',
  severity: 'caution',
  title: 'A variable still holds a placeholder',
  meaning:
    'The value of a variable is a text that stands for the real one, as in a template of an environment file, and the build took it.',
  example: 'VITE_CHART_KEY=your-key-here in .env.production.',
  remedies: { any: 'Write the real value where the build runs, then build again.' },
  after: [],
  judge: (evidence) =>
    causeOf(variablesIn('placeholder', 'present', evidence), (names, are) => ({
      meets: `What needs ${names} does not work: a placeholder is sent in its place.`,
      cause: `The value of ${names} ${are} still a placeholder, and it is in the build.`,
      remedy: {
        steps: [`Write the real value of ${names} where the build runs.`, rebuild(evidence)],
        change: null,
      },
    })),
}
