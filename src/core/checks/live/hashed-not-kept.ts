import { defineCheck } from '../check.ts'
import { listed, named } from '../live-causes.ts'

/** Files whose names change with their content are asked for again and again. */
export const liveHashedNotKept = defineCheck({
  code: 'live/hashed-not-kept',
  severity: 'note',
  title: 'Hashed files are not kept by browsers',
  keywords: ['Cache-Control', 'immutable', 'max-age'],
  run: listed(
    (live) => live.hashedNotKept,
    (first, all) => ({
      impact: `Every visit asks again for ${named(all)}, though ${all.length === 1 ? 'it never changes' : 'they never change'}.`,
      cause: `${first.url} may be kept for ever. ${first.detail}`,
      steps: ['Send files whose names hold a hash with  Cache-Control: public, max-age=31536000, immutable'],
    }),
  ),
})
