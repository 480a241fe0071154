import { defineCheck } from '../check.ts'
import { differing, named } from '../live-causes.ts'

/** The fallback of the host hides a file that is missing. */
export const livePageInstead = defineCheck({
  code: 'live/page-instead',
  severity: 'blocker',
  title: 'A page comes in place of files at the address',
  keywords: ['fallback', 'index.html instead'],
  run: differing(['page instead'], (first, all) => ({
    impact: `What needs ${named(all)} does not work: a page comes in place of ${all.length === 1 ? 'it' : 'them'}.`,
    cause: `${first.url} is answered with a page. ${first.detail}`,
    steps: ['Upload the folder again, all of it: the fallback of the host hides what is missing.'],
  })),
})
