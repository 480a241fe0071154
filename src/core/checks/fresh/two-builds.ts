import { isHashed, withoutHash } from '../../model/fingerprint.ts'
import { nameOf } from '../../model/folder.ts'
import { counted } from '../../model/text.ts'
import { buildCommandOf, type Cause, defineCheck, type Evidence } from '../check.ts'

/** Files of an earlier build are beside those of this one. */
export const twoBuilds = defineCheck({
  code: 'fresh/two-builds',
  severity: 'caution',
  title: 'Files of two builds are in one folder',
  keywords: ['leftover files', 'old files', 'emptyOutDir'],
  after: [
    'asset/missing',
    'asset/answered-with-page',
    'base/wrong-path',
    'base/relative-at-depth',
    'project/entry-replaced',
  ],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { facts, requested, folder } = evidence
  // Where requests fail, what would be reached is not known.
  if (evidence.failing.length > 0) return []
  const hashed = facts.filter(({ path, kind }) => (kind === 'script' || kind === 'style') && isStemmed(path))
  const named = new Set(
    hashed.filter(({ path }) => requested.reached.has(path)).map(({ path }) => withoutHash(path)),
  )
  // Two chunks of one build may share a name: what any file of the folder names belongs to it.
  const old = hashed.filter(({ path }) => !requested.reached.has(path) && named.has(withoutHash(path)))
  if (old.length === 0 || old.length * 2 > hashed.length + 1) return []
  const [first] = old
  return [
    {
      key: 'two builds',
      impact: 'Nothing at once: the folder carries files that no page requests.',
      cause: `${counted(old.length, 'file')} in ${folder.name}, such as ${first?.path}, ${old.length === 1 ? 'is' : 'are'} of another build than the files that are requested.`,
      places: old.map(({ path }) => path),
      fix: [`Remove ${folder.name}, then run ${buildCommandOf(evidence)}.`],
    },
  ]
}

/** Whether a name has a hash and more: files that are named by their hashes alone are not known from one another. */
function isStemmed(path: string): boolean {
  return isHashed(path) && !nameOf(withoutHash(path)).startsWith('*')
}
