import type { Check } from '../check.ts'
import { endpointCauses } from '../endpoint-causes.ts'

/** The build calls the developer's own machine. */
export const loopback: Check = {
  code: 'endpoint/loopback',
  severity: 'blocker',
  title: "The build calls the visitor's own machine",
  keywords: ['localhost', '127.0.0.1', 'development server'],
  meaning:
    'The built code makes requests of localhost or another loopback address. That is the machine the browser runs on: ' +
    'for the developer it answers, for every visitor nothing does.',
  example: 'The bundle holds fetch("http://localhost:8787/v1/sailings"), from VITE_SAILINGS_API in .env.',
  fixes: {
    any: 'Write the production address of the service where the development one stands, then rebuild.',
    vite:
      'Keep the development address in .env.development, which vite build does not read, and the production address in ' +
      '.env.production; then rebuild.',
  },
  after: ['env/development-value'],
  run: (evidence) =>
    endpointCauses(
      evidence.endpoints.filter(({ kind }) => kind === 'loopback'),
      evidence,
      {
        impact: (origin) =>
          `Data does not load: the page asks ${origin}, which is the visitor's own machine.`,
        why: "which is the developer's own machine",
        instead: 'the production address',
      },
    ),
}
