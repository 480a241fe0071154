import { defineCheck } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'

/** The build calls the developer's own machine. */
export const loopback = defineCheck({
  code: 'endpoint/loopback',
  severity: 'blocker',
  title: "The build calls the visitor's own machine",
  keywords: ['localhost', '127.0.0.1', 'development server'],
  after: ['env/development-value'],
  run: (evidence) =>
    endpointCauses(
      evidence.endpoints.filter(({ kind }) => kind === 'loopback'),
      evidence,
      {
        reason: (origin) => `the page asks ${origin}, which is the visitor's own machine.`,
        why: "which is the developer's own machine",
        instead: 'the production address',
      },
    ),
})
