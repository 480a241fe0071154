import type { Check } from '../check.ts'
import { effectOf, missingFiles } from '../missing-files.ts'

/** A file that the build requests is not in the folder. */
export const missing: Check = {
  code: 'asset/missing',
  severity: 'blocker',
  title: 'A file the page needs is not in the folder',
  keywords: ['404', 'missing file', 'broken image', 'not found'],
  meaning:
    'A page, style sheet or script requests a file that was not built, was removed after the build, or was never copied. ' +
    'The host answers with an error.',
  example:
    'dist/index.html requests /assets/index-4f7d20aa.js; the folder has index-b81e63c2.js from a later build.',
  fixes: {
    any: 'Build again into an empty folder and ship all of it. Files that are not built must be in the static directory.',
    vite: 'Build again and ship all of dist. Files used by plain path belong in public/; others are imported, so that Vite emits them.',
  },
  after: [
    'base/wrong-path',
    'base/relative-at-depth',
    'asset/letter-case',
    'asset/withheld',
    'asset/answered-with-page',
  ],
  run: (evidence) =>
    missingFiles(evidence.failing, evidence, (what, are, them, first) => ({
      impact: effectOf([first]),
      cause: `${what} ${are} requested, and ${evidence.folder.name} does not hold ${them}.`,
    })),
}
