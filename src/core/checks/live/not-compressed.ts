import { defineCheck } from '../check.ts'
import { listed, named } from '../live-causes.ts'

/** Texts that could be packed come as they are. */
export const liveNotCompressed = defineCheck({
  code: 'live/not-compressed',
  severity: 'caution',
  title: 'Texts come without compression',
  keywords: ['gzip', 'brotli', 'content-encoding', 'slow'],
  run: listed(
    (live) => live.notCompressed,
    (first, all) => ({
      impact: `First visits take longer: ${named(all)} could be a quarter of the size.`,
      cause: `${first.url} was asked for with accept-encoding: gzip, br. ${first.detail}`,
      steps: ['Switch compression on for these types.'],
    }),
  ),
})
