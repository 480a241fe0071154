import { defineCheck } from '../check.ts'
import { listed, named } from '../live-causes.ts'

/** Pages are kept by browsers without asking again. */
export const liveCaching = defineCheck({
  code: 'live/caching',
  severity: 'caution',
  title: 'Browsers keep pages for long',
  keywords: ['Cache-Control', 'max-age', 'immutable', 'expires'],
  run: listed(
    (live) => live.pagesKept,
    (first, all) => ({
      impact: `Who has been here sees the old page after a release: ${named(all)}.`,
      cause: `${first.url} may be kept. ${first.detail}`,
      steps: [
        'Send pages with  Cache-Control: no-cache',
        'Keep long times for files whose names hold a hash.',
      ],
    }),
  ),
})
