import type { CredentialShape, FileFacts } from '../../model/facts.ts'
import type { Cause, Check, Evidence } from '../check.ts'
import { listed } from '../variables.ts'

/** A text in the build looks like a secret, and belongs to no variable that is known. */
export const credentialShape: Check = {
  code: 'env/credential-shape',
  severity: 'caution',
  title: 'What looks like a secret is in the build',
  keywords: ['secret', 'API key', 'token'],
  meaning:
    'A text in a published file has the shape of a private key, a secret token or a login: it has the prefix, the length and the ' +
    'randomness of one. It is the value of none of the variables of this project, so nobody but you can say whether it is real. ' +
    'Keys meant for browsers have other shapes and are not reported. The text itself is never shown.',
  example:
    'A server module with a signing key was imported by a page, and its key is in assets/index-4f9a.js.',
  fixes: {
    any: 'If it is real: keep the module that holds it out of what pages import, rebuild, and replace the secret where it gives access.',
  },
  after: [],
  run,
}

interface Shown {
  readonly path: string
  readonly shape: CredentialShape
}

function run({ facts }: Evidence): Cause[] {
  const shown = facts.flatMap((each) =>
    each.credentials
      .filter((shape) => !isKnown(shape, each))
      .map((shape): Shown => ({ path: each.path, shape })),
  )
  const [first] = shown
  if (!first) return []
  const kinds = [...new Set(shown.map(({ shape }) => shape.kind))]
  const files = [...new Set(shown.map(({ path }) => path))]
  return [
    {
      key: kinds.join(' '),
      impact: `Anybody can read what looks like ${listed(kinds)} in ${files.length > 1 ? `${files.length} published files` : first.path}.`,
      cause: `${first.path} holds a text with the shape of ${first.shape.kind}: ${first.shape.reason}.`,
      places: shown.map(({ path, shape: { offset, length } }) => ({ file: path, offset, length })),
      fix: {
        steps: [
          'See which module brings it in, and import that on the server only.',
          'If it is real and was ever published: replace it where it gives access.',
        ],
      },
    },
  ]
}

/** The value of a private variable has a finding of its own. */
function isKnown({ offset, length }: CredentialShape, { occurrences }: FileFacts): boolean {
  return occurrences.some(
    (each) => each.state === 'private' && each.offset < offset + length && offset < each.offset + each.length,
  )
}
