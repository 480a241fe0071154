import { defineCheck } from '../check.ts'
import { listed } from '../live-causes.ts'

/** Plain http does not lead to the https address. */
export const livePlainHttp = defineCheck({
  code: 'live/plain-http',
  severity: 'caution',
  title: 'Plain http does not lead to the site',
  keywords: ['https', 'redirect', 'HSTS', 'TLS'],
  run: listed(
    (live) => (live.plainHttp ? [live.plainHttp] : []),
    (first) => ({
      impact: 'Who types the name without https sees an error or an unprotected page.',
      cause: first.detail,
      steps: ['Let the host send plain http on to https with status 301, path and all.'],
    }),
  ),
})
