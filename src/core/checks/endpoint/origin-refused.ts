import type { Judge } from '../check.ts'
import { reachCauses } from '../reach-causes.ts'

/** A service does not admit the site: it was asked with the site's origin. */
export const originRefused: Judge = {
  code: 'endpoint/origin-refused',
  severity: 'blocker',
  title: 'A service does not admit this site',
  meaning:
    'The build calls a service of another origin, and the service was asked as a browser asks for a page of this site. What it ' +
    'answered does not let the page read the answer, or send the request at all (Fetch, CORS). Many services admit only the ' +
    'development address until somebody adds the real one. Found only by reach, which asks over the network.',
  example:
    'https://api.skerryline.example answers access-control-allow-origin: http://localhost:5173 to https://skerryline.example.',
  remedies: {
    any: 'Add the origin of the site to those that the service admits: scheme, host and port, without a path and without a slash at the end.',
  },
  after: [],
  judge: (evidence) =>
    reachCauses('refuses', evidence, (origin, first) => ({
      meets: `Data does not load: ${origin} does not admit ${evidence.site.origin}.`,
      cause: `Asked with the origin ${evidence.site.origin}: ${first.reason}.`,
      steps: [`Have ${origin} admit the origin ${evidence.site.origin}, without a slash at the end.`],
    })),
}
