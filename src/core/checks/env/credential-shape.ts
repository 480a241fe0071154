import type { CredentialShape, FileFacts } from '../../model/facts.ts'
import { listed } from '../../model/text.ts'
import { machineEnvironment } from '../../output/machine-environment.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** A text in the build looks like a secret, and belongs to no variable that is known. */
export const credentialShape = defineCheck({
  code: 'env/credential-shape',
  severity: 'caution',
  title: 'What looks like a secret is in the build',
  keywords: ['secret', 'API key', 'token'],
  run,
})

interface ShownShape {
  readonly path: string
  readonly shape: CredentialShape
}

function run({ facts }: Evidence): Cause[] {
  const shown = facts.flatMap((each) =>
    each.credentials
      .filter((shape) => shape.kind !== machineEnvironment && !isKnown(shape, each))
      .map((shape): ShownShape => ({ path: each.path, shape })),
  )
  const isLive = ({ shape }: ShownShape): boolean => shape.live === true
  return [
    ...causesOf(shown.filter(isLive), { severity: 'blocker', title: 'A secret key is in the build' }),
    ...causesOf(
      shown.filter((each) => !isLive(each)),
      {},
    ),
  ]
}

function causesOf(shown: readonly ShownShape[], as: Pick<Cause, 'severity' | 'title'>): Cause[] {
  const [first] = shown
  if (!first) return []
  const looks = as.severity === 'blocker' ? '' : 'what looks like '
  const kinds = [...new Set(shown.map(({ shape }) => shape.kind))]
  const files = [...new Set(shown.map(({ path }) => path))]
  return [
    {
      ...as,
      key: kinds.join(' '),
      impact: `Anybody can read ${looks}${listed(kinds)} in ${files.length > 1 ? `${files.length} published files` : first.path}.`,
      cause: `${first.path} holds a text with the shape of ${first.shape.kind}: ${first.shape.reason}.`,
      places: shown.map(({ path, shape: { offset, length } }) => ({ file: path, offset, length })),
      fix: [
        'See which module brings it in, and import that on the server only.',
        'If it is real and was ever published: replace it where it gives access.',
      ],
    },
  ]
}

/** The value of a private variable has a finding of its own. */
function isKnown({ offset, length }: CredentialShape, { occurrences }: FileFacts): boolean {
  return occurrences.some(
    (each) => each.state === 'private' && each.offset < offset + length && offset < each.offset + each.length,
  )
}
