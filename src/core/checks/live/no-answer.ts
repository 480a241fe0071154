import { defineCheck } from '../check.ts'
import { differing, named } from '../live-causes.ts'

/** The address gives no answer. */
export const liveNoAnswer = defineCheck({
  code: 'live/no-answer',
  severity: 'blocker',
  title: 'The address does not answer',
  keywords: ['DNS', 'timeout', 'certificate', 'refused'],
  run: differing(['no answer'], (first, all) => ({
    impact: `Visitors get nothing: ${named(all)}.`,
    cause: `${first.url}: ${first.detail}`,
    steps: [
      'See that the name leads to the host, that its certificate holds, and that it is not at its limit; then look again.',
    ],
  })),
})
