import { counted } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** The folder is the one that shipped before. */
export const sameAsShipped = defineCheck({
  code: 'fresh/same-as-shipped',
  severity: 'caution',
  title: 'This is what shipped before',
  keywords: ['nothing changed', 'old version'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { comparison, folder, freshness } = evidence
  if (!comparison?.same) return []
  const why =
    freshness?.known === false ? ` Whether the sources are newer is not known: ${freshness.reason}.` : ''
  return [
    {
      key: 'same',
      impact: 'The site as it was: nothing of what was changed.',
      cause: `${counted(comparison.kept, 'file')} of ${folder.name}, and each is as it was in the earlier release.${why}`,
      places: [folder.path],
      fix: [
        'If nothing was meant to change, there is nothing to ship.',
        `Else see that what was changed is saved, and is what the build reads. ${rebuild(evidence)}`,
      ],
    },
  ]
}
