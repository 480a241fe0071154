import type { Comparison } from '../../model/report.ts'
import { counted } from '../../model/text.ts'
import { belowInWords } from '../../release/purge.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** Caches hold what this release changes. */
export const purge = defineCheck({
  code: 'delivery/purge',
  severity: 'note',
  title: 'Caches hold what this release changes',
  keywords: ['cache', 'CDN', 'old version', 'invalidate'],
  run,
})

function run({ comparison, site }: Evidence): Cause[] {
  if (!comparison) return []
  return [...rewrittenCause(comparison.rewritten, site.address), ...purgeCause(comparison, site.origin)]
}

/** A name with a hash is kept for a year by whoever was reported so; nothing takes that back. */
function rewrittenCause([first, ...more]: readonly string[], address: string): Cause[] {
  if (first === undefined) return []
  const files = [first, ...more]
  return [
    {
      key: 'rewritten',
      severity: 'caution',
      title: 'A file changed under a name that says it never does',
      impact: `Whoever visited before: the old ${first}, for as long as their browser keeps it, beside new files that do not fit it.`,
      cause: `${counted(files.length, 'file')} with a hash in ${files.length === 1 ? 'its' : 'their'} name ${files.length === 1 ? 'has' : 'have'} other content under the same name.`,
      places: files.map((file) => ({ file, offset: null, length: 0, request: address + file })),
      fix: [
        'Look at what changes files after the bundler has named them, and let it run before, or change the name too.',
      ],
    },
  ]
}

function purgeCause({ purge: paths, purgeBelow }: Comparison, origin: string): Cause[] {
  const [first] = paths
  if (first === undefined) return []
  return [
    {
      key: 'purge',
      impact: `The earlier release, for as long as a cache holds it: ${counted(paths.length, 'path')} with the same name and another answer, ${first} among them.`,
      cause: 'Their names have no hash, so a cache cannot tell that they changed.',
      places: paths.map((path) => ({ file: path, offset: null, length: 0, request: origin + path })),
      fix: [
        'Purge these paths once the folder is in its place.',
        ...(purgeBelow === null ? [] : [belowInWords(purgeBelow)]),
      ],
    },
  ]
}
