import { defineCheck } from '../check.ts'
import { differing, named } from '../live-causes.ts'

/** The address serves other content than the folder holds. */
export const liveOldContent = defineCheck({
  code: 'live/old-content',
  severity: 'blocker',
  title: 'The address serves other content',
  keywords: ['old version', 'cache', 'stale', 'purge', 'deploy', 'CDN'],
  run: differing(['older', 'other content'], (first, all) => ({
    impact: `Visitors get another ${named(all)} than the one that was built.`,
    cause: `${first.url} is answered with other content. ${first.detail}`,
    steps: [
      'Where age or x-cache shows a cache: purge these addresses, then look again.',
      'Else upload the folder again, and see that it goes to the place that this address serves.',
    ],
  })),
})
