import { type Judge, rebuild } from '../check.ts'
import { reachCauses } from '../reach-causes.ts'

/** A service that the build calls does not answer, or only with an error of its own. */
export const noAnswerEndpoint: Judge = {
  code: 'endpoint/no-answer',
  severity: 'caution',
  title: 'A service that the build calls does not answer',
  meaning:
    'The build calls a service of another origin, and when it was asked from this machine nothing came back, or a server error. It ' +
    'may be down, or not reached from here, or the address may be wrong. Found only by reach, which asks over the network.',
  example: 'There is no host api.skerryline.example: the name was mistyped in .env.production.',
  remedies: { any: 'See that the address is right and that the service runs; then ask again.' },
  after: [],
  judge: (evidence) =>
    [...(['no answer', 'error'] as const)].flatMap((outcome) =>
      reachCauses(outcome, evidence, (origin, first) => ({
        meets: `Data does not load while ${origin} does not answer.`,
        cause: `${origin} was asked, and ${first.reason}.`,
        steps: [`See that ${origin} is the right address and that the service runs.`, rebuild(evidence)],
      })),
    ),
}
