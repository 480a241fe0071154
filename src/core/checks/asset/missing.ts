import { defineCheck } from '../check.ts'
import { effectOf, missingFiles } from '../missing-files.ts'

/** A file that the build requests is not in the folder. */
export const missing = defineCheck({
  code: 'asset/missing',
  severity: 'blocker',
  title: 'A file the page needs is not in the folder',
  keywords: ['404', 'missing file', 'broken image', 'not found'],
  after: [
    'project/misplaced',
    'base/wrong-path',
    'base/relative-at-depth',
    'asset/letter-case',
    'asset/withheld',
    'asset/answered-with-page',
    'endpoint/proxy-only',
  ],
  run: (evidence) =>
    missingFiles(evidence.failing, evidence, (what, are, them, first) => ({
      impact: effectOf([first]),
      cause: `${what} ${are} requested, and ${evidence.folder.name} does not hold ${them}.`,
    })),
})
