import type { FileKind } from '../../model/facts.ts'
import { counted, listed } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A file of the build could not be read, so nothing is known of what it does. */
export const notRead = defineCheck({
  code: 'project/not-read',
  severity: 'blocker',
  title: 'A file that visitors load could not be read',
  keywords: ['unreadable', 'permission denied', 'too large'],
  run,
})

/** Kinds that say what a page requests and does. */
const telling: ReadonlySet<FileKind> = new Set(['page', 'script', 'style', 'manifest'])

function run(evidence: Evidence): Cause[] {
  return [...unread(evidence), ...unfollowed(evidence)]
}

/** Scripts that were read, but hold addresses and are too large for what becomes of these to be known. */
function unfollowed({ unfollowed: files, survey }: Evidence): Cause[] {
  const [first] = files
  if (first === undefined) return []
  const one = files.length === 1
  return [
    {
      key: 'unfollowed',
      title: 'What a script requests could not be followed',
      impact: `Whether ${one ? first : `these ${files.length} scripts`} ${one ? 'asks' : 'ask'} addresses that no visitor can reach is not known.`,
      cause: `${one ? `${first} names addresses, and is` : `${listed(files)} name addresses, and are`} too large, or nested too deeply, to see what these are passed to.`,
      places: files,
      fix: [
        `Search ${one ? 'it' : 'them'} for the addresses of your own machine and network, such as localhost. Where there is one that a browser would ask, use the production address.`,
        'Then split the bundle into smaller scripts, or accept this finding with its reason.',
        ...(survey.build ? [rebuild({ survey })] : []),
      ],
    },
  ]
}

function unread({ facts, requested, survey, folder }: Evidence): Cause[] {
  const all = facts.filter(({ unread: reason }) => reason !== null)
  const needed = all.filter(({ path, kind }) => telling.has(kind) || requested.reached.has(path))
  const shown = needed.length > 0 ? needed : all
  const [first] = shown
  if (!first) return []
  const several = shown.length > 1
  return [
    {
      key: 'files',
      severity: needed.length > 0 ? undefined : 'caution',
      ...(needed.length > 0 ? {} : { title: 'A file of the build could not be read' }),
      impact: `What ${several ? `these ${shown.length} files do` : `${first.path} does`} is not known: whatever is wrong in ${several ? 'them' : 'it'} is not reported here.`,
      cause:
        `${counted(shown.length, 'file')} of ${folder.name} ${several ? 'were' : 'was'} not read. ${first.unread ?? ''}`.trim(),
      places: shown.map(({ path }) => path),
      fix: [
        several
          ? 'Make these files readable for whoever checks, and check again.'
          : `Make ${first.path} readable for whoever checks, and check again.`,
        ...(survey.build ? [rebuild({ survey })] : []),
      ],
    },
  ]
}
