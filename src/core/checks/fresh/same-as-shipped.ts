import { counted } from '../../model/text.ts'
import { type Cause, type Check, type Evidence, rebuild } from '../check.ts'

/** The folder is the one that shipped before. */
export const sameAsShipped: Check = {
  code: 'fresh/same-as-shipped',
  severity: 'caution',
  title: 'This is what shipped before',
  keywords: ['nothing changed', 'old version'],
  meaning:
    'Every file is as it was in the earlier release. When something was meant to change, the build was not run, wrote to another folder, ' +
    'or read something else than what was changed. No wait for a slow host, and no emptied cache, will show what is not in the folder.',
  example: 'A text was changed in src/App.tsx, and dist is from the day before.',
  fixes: {
    any: 'Run the build again, see that it writes to this folder, and compare once more.',
  },
  after: [],
  run,
}

function run(evidence: Evidence): Cause[] {
  const { comparison, folder, freshness } = evidence
  if (!comparison?.same) return []
  const why = freshness?.known === false ? ` ${freshness.reason}` : ''
  return [
    {
      key: 'same',
      impact: 'The site as it was: nothing of what was changed.',
      cause: `${counted(comparison.kept, 'file')} of ${folder.name}, and each is as it was in the earlier release.${why}`,
      places: [{ file: folder.path, offset: null, length: 0 }],
      fix: {
        steps: [
          'If nothing was meant to change, there is nothing to ship.',
          `Else see that what was changed is saved, and is what the build reads. ${rebuild(evidence)}`,
        ],
      },
    },
  ]
}
