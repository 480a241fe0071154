import { defineCheck, rebuild } from '../check.ts'
import { variableEdits } from '../variable-edit.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** Nobody wrote the real value yet. */
export const placeholder = defineCheck({
  code: 'env/placeholder',
  severity: 'caution',
  title: 'A variable still holds a placeholder',
  keywords: ['changeme', 'placeholder'],
  run: (evidence) =>
    causeOf(variablesIn('placeholder', 'present', evidence), (names, are, found) => ({
      impact: `What needs ${names} does not work: a placeholder is sent in its place.`,
      cause: `The value of ${names} ${are} still a placeholder, and it is in the build.`,
      fix: {
        steps: [`Write the real value of ${names} where the build runs.`, rebuild(evidence)],
        edits: variableEdits(found),
      },
    })),
})
