import { extensionOf } from '../../model/folder.ts'
import { counted, span } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { routePlace } from '../route-place.ts'
import { answerTo } from '../server-rules.ts'

/** Longer than this no page should be kept without a question; seconds. */
const longest = 86_400

/** The server's configuration lets browsers keep the pages themselves. */
export const pageKept = defineCheck({
  code: 'fresh/page-kept',
  severity: 'caution',
  title: 'Visitors keep an old page after a release',
  keywords: ['Cache-Control', 'expires', 'max-age', 'old version', 'cache', 'stale'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const kept = evidence.requested.routes.flatMap((route) => {
    const { keptFor = 0, file } = answerTo(route.path, evidence)
    return keptFor > longest && file !== null && /^html?$/.test(extensionOf(file)) ? [{ route, keptFor }] : []
  })
  const [first] = kept
  if (!first) return []
  const { host } = evidence
  return [
    {
      key: 'pages',
      impact: `Who has been here sees the old ${first.route.path} for up to ${span(first.keptFor)} after a release${kept.length > 1 ? `, and ${counted(kept.length - 1, 'other page')}` : ''}; files that the release took away are missing from it.`,
      cause: `The host "${host.name}" lets browsers keep ${first.route.entryFile ?? 'the page'} for ${span(first.keptFor)} without asking again.`,
      places: kept.map(({ route }) => routePlace(route, evidence)),
      fix: [
        'Send pages with the header Cache-Control: no-cache, so that browsers ask each time whether they have changed.',
        'Keep long times for files whose names hold a hash of their content.',
      ],
    },
  ]
}
