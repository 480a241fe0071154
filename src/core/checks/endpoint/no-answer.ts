import { type Check, rebuild } from '../check.ts'
import { reachCauses } from '../reach-causes.ts'

/** A service that the build calls does not answer, or only with an error of its own. */
export const noAnswerEndpoint: Check = {
  code: 'endpoint/no-answer',
  severity: 'caution',
  title: 'A service that the build calls does not answer',
  keywords: ['DNS', 'timeout', 'API'],
  meaning:
    'The build calls a service of another origin, and a request from this machine got nothing back, or a server error. It ' +
    'may be down, or not reached from here, or the address may be wrong. Found only by reach, which asks over the network.',
  example: 'There is no host api.skerryline.example: the name was mistyped in .env.production.',
  fixes: { any: 'See that the address is right and that the service runs; then ask again.' },
  after: [],
  run: (evidence) =>
    [...(['no answer', 'error'] as const)].flatMap((outcome) =>
      reachCauses(outcome, evidence, (origin, first) => ({
        impact: `Data does not load while ${origin} does not answer.`,
        cause: `A request was sent to ${origin}, and ${first.reason}.`,
        steps: [`See that ${origin} is the right address and that the service runs.`, rebuild(evidence)],
      })),
    ),
}
