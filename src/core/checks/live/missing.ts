import { defineCheck } from '../check.ts'
import { differing, named } from '../live-causes.ts'

/** Files of the folder that the address does not have. */
export const liveMissing = defineCheck({
  code: 'live/missing',
  severity: 'blocker',
  title: 'Files are missing at the address',
  keywords: ['upload', 'deploy', '404', 'not uploaded'],
  run: differing(['missing', 'refused'], (first, all) => ({
    impact: `What needs ${named(all)} does not work for visitors of the live site.`,
    cause: `${named(all)} ${all.length === 1 ? 'is' : 'are'} in the folder, and the address does not have ${all.length === 1 ? 'it' : 'them'}: ${first.url} is answered with ${first.status}.`,
    steps: [
      'Upload the folder again, all of it.',
      'Where a file stays away, see whether the upload leaves out its name, its size or its directory.',
    ],
  })),
})
