import { defineCheck } from '../check.ts'
import { reachCauses } from '../reach-causes.ts'

/** A service does not allow the site: it was requested with the site's origin. */
export const originRefused = defineCheck({
  code: 'endpoint/origin-refused',
  severity: 'blocker',
  title: 'A service does not allow this site',
  keywords: ['CORS', 'access-control-allow-origin', 'preflight', 'cross-origin'],
  run: (evidence) =>
    reachCauses('refuses', evidence, (origin, first) => ({
      impact: `Data does not load: ${origin} does not allow ${evidence.site.origin}.`,
      cause: `A request with the origin ${evidence.site.origin} was refused: ${first.reason}.`,
      steps: [`Have ${origin} allow the origin ${evidence.site.origin}, without a slash at the end.`],
    })),
})
