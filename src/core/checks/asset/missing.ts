import type { Judge } from '../check.ts'
import { effectOf, missingFiles } from '../missing-files.ts'

/** A file that the build asks for is not in the folder. */
export const missing: Judge = {
  code: 'asset/missing',
  severity: 'blocker',
  title: 'A file the page needs is not in the folder',
  meaning:
    'A page, style sheet or script asks for a file that was not built, was removed after the build, or was never copied. ' +
    'The host answers with an error.',
  example:
    'dist/index.html asks for /assets/index-4f7d20aa.js; the folder has index-b81e63c2.js from a later build.',
  remedies: {
    any: 'Build again into an empty folder and ship all of it. Files that are not built must lie in the static directory.',
    vite: 'Build again and ship all of dist. Files used by plain path belong in public/; others are imported, so that Vite emits them.',
  },
  after: [
    'base/wrong-path',
    'base/relative-at-depth',
    'asset/letter-case',
    'asset/withheld',
    'asset/answered-with-page',
  ],
  judge: (evidence) =>
    missingFiles(evidence.failing, evidence, (what, are, them, first) => ({
      meets: effectOf([first]),
      cause: `${what} ${are} asked for, and ${evidence.folder.name} does not hold ${them}.`,
    })),
}
