import { isHashed, withoutHash } from '../../model/fingerprint.ts'
import { counted } from '../../model/text.ts'
import { buildCommandOf, type Cause, type Evidence, type Judge } from '../check.ts'

/** Files of an earlier build lie beside those of this one. */
export const twoBuilds: Judge = {
  code: 'fresh/two-builds',
  severity: 'caution',
  title: 'Files of two builds lie in one folder',
  meaning:
    'Beside the files that the pages ask for lie others of the same names with other hashes, for which nobody asks: the build did ' +
    'not empty the folder first. They are uploaded each time, and it is no longer plain what belongs to this release.',
  example: 'assets/index-4f7d20aa.js is asked for; assets/index-b81e63c2.js of last week lies beside it.',
  remedies: {
    any: 'Build into an empty folder.',
    vite: 'Leave build.emptyOutDir on, or remove the folder before the build.',
  },
  after: [
    'asset/missing',
    'asset/answered-with-page',
    'base/wrong-path',
    'base/relative-at-depth',
    'project/entry-replaced',
  ],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { facts, asked, folder } = evidence
  // Where requests fail, what would be reached is not known.
  if (evidence.failing.length > 0) return []
  const hashed = facts.filter(({ path, kind }) => (kind === 'script' || kind === 'style') && isHashed(path))
  const named = new Set(
    hashed.filter(({ path }) => asked.reached.has(path)).map(({ path }) => withoutHash(path)),
  )
  // Two chunks of one build may share a name: what any file of the folder names belongs to it.
  const old = hashed.filter(({ path }) => !asked.reached.has(path) && named.has(withoutHash(path)))
  if (old.length === 0 || old.length * 2 > hashed.length + 1) return []
  const [first] = old
  return [
    {
      key: 'two builds',
      meets: 'Nothing at once: the folder carries files that no page asks for.',
      cause: `${counted(old.length, 'file')} in ${folder.name}, such as ${first?.path}, ${old.length === 1 ? 'is' : 'are'} of another build than the files that are asked for.`,
      showings: old.map(({ path }) => ({ file: path, offset: null, length: 0 })),
      source: null,
      remedy: { steps: [`Remove ${folder.name}, then run ${buildCommandOf(evidence)}.`], change: null },
    },
  ]
}
