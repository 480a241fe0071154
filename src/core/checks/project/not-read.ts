import type { FileKind } from '../../model/facts.ts'
import { counted } from '../../model/text.ts'
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

function run({ facts, requested, survey, folder }: Evidence): Cause[] {
  const unread = facts.filter(({ unread: reason }) => reason !== null)
  const needed = unread.filter(({ path, kind }) => telling.has(kind) || requested.reached.has(path))
  const shown = needed.length > 0 ? needed : unread
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
