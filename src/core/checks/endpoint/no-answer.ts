import { defineCheck, rebuild } from '../check.ts'
import { reachCauses } from '../reach-causes.ts'

/** A service that the build calls does not answer, or only with an error of its own. */
export const noAnswerEndpoint = defineCheck({
  code: 'endpoint/no-answer',
  severity: 'caution',
  title: 'A service that the build calls does not answer',
  keywords: ['DNS', 'timeout', 'API'],
  run: (evidence) =>
    [...(['no answer', 'error'] as const)].flatMap((outcome) =>
      reachCauses(outcome, evidence, (origin, first) => ({
        impact: `Data does not load while ${origin} does not answer.`,
        cause: `A request was sent to ${origin}, and ${first.reason}.`,
        steps: [`See that ${origin} is the right address and that the service runs.`, rebuild(evidence)],
      })),
    ),
})
