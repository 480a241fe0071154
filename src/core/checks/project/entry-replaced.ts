import type { FileFacts } from '../../model/facts.ts'
import { isHashed } from '../../model/fingerprint.ts'
import { requestsIn } from '../../model/reference-list.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** The entry document is not the application's any more. */
export const entryReplaced = defineCheck({
  code: 'project/entry-replaced',
  severity: 'blocker',
  title: 'The entry page is not the one that was built',
  keywords: ['welcome page', 'index.html overwritten'],
  after: [
    'project/needs-server',
    'project/site-nested',
    'project/source-published',
    'base/wrong-path',
    'asset/missing',
  ],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { facts, requested, folder } = evidence
  const bundles = facts.filter(({ path, kind }) => kind === 'script' && isHashed(path))
  const reached = facts.some(({ path, kind }) => kind === 'script' && requested.reached.has(path))
  const isThere = facts.some(({ path }) => path === 'index.html')
  if (!isThere || bundles.length === 0 || reached || facts.some((file) => asksForOwn(file, evidence)))
    return []
  return [
    {
      key: 'index.html',
      impact: "Somebody else's page instead of the application.",
      cause: `${folder.prefix}index.html starts none of the scripts that the build wrote, such as ${bundles[0]?.path}.`,
      places: [{ file: 'index.html', offset: 0, length: 1 }],
      fix: [
        rebuild(evidence).replace('Then rebuild', 'Build again'),
        'When a set-up offers to overwrite index.html, say no.',
      ],
    },
  ]
}

/** Whether a page requests a script of this site, there or missing, or of this folder on another origin. */
function asksForOwn({ kind, references }: FileFacts, { requested, site }: Evidence): boolean {
  if (kind !== 'page') return false
  return [...requestsIn(references)].some((reference) => {
    if (reference.kind !== 'script' || !URL.canParse(reference.raw, site.address)) return false
    const url = new URL(reference.raw, site.address)
    return url.origin === site.origin || requested.index.tailOf(url.pathname) !== null
  })
}
