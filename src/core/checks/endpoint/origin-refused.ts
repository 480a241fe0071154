import type { Check } from '../check.ts'
import { reachCauses } from '../reach-causes.ts'

/** A service does not allow the site: it was requested with the site's origin. */
export const originRefused: Check = {
  code: 'endpoint/origin-refused',
  severity: 'blocker',
  title: 'A service does not allow this site',
  keywords: ['CORS', 'access-control-allow-origin', 'preflight', 'cross-origin'],
  meaning:
    'The build calls a service of another origin, and a request was sent to it as a browser sends it for a page of this site. What it ' +
    'answered does not let the page read the answer, or send the request at all (Fetch, CORS). Many services allow only the ' +
    'development address until somebody adds the real one. Found only by reach, which asks over the network.',
  example:
    'https://api.skerryline.example answers access-control-allow-origin: http://localhost:5173 to https://skerryline.example.',
  fixes: {
    any: 'Add the origin of the site to those that the service allows: scheme, host and port, without a path and without a slash at the end.',
  },
  after: [],
  run: (evidence) =>
    reachCauses('refuses', evidence, (origin, first) => ({
      impact: `Data does not load: ${origin} does not allow ${evidence.site.origin}.`,
      cause: `A request with the origin ${evidence.site.origin} was refused: ${first.reason}.`,
      steps: [`Have ${origin} allow the origin ${evidence.site.origin}, without a slash at the end.`],
    })),
}
