import { defineCheck } from '../check.ts'
import { differing, named } from '../live-causes.ts'

/** All of a file came, with something put in or blanks taken out. */
export const liveChanged = defineCheck({
  code: 'live/changed-on-way',
  severity: 'caution',
  title: 'Files are changed on their way',
  keywords: ['injected', 'minified', 'proxy', 'optimizer'],
  run: differing(['changed on the way'], (first, all) => ({
    impact: `Visitors get ${named(all)} changed: digests do not match, and what is put in runs on the page.`,
    cause: `${first.url} holds what was built, changed on the way. ${first.detail}`,
    steps: [
      'Switch off what rewrites pages and scripts between the folder and the visitor, or take it into account.',
    ],
  })),
})
