import { describeOrigin } from '../../model/reading.ts'
import { buildCommandOf, type Cause, defineCheck, directoryInWords, type Evidence } from '../check.ts'

/** There is no build to look at. */
export const notBuilt = defineCheck({
  code: 'project/not-built',
  severity: 'blocker',
  title: 'There is nothing to ship yet',
  keywords: ['output directory', 'build command', 'dist'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { folder, facts, survey } = evidence
  if (folder.present && facts.length > 0) return emptyEntry(evidence)
  const { publishDirectory } = survey
  const from = publishDirectory?.from
  const said = from ? ` ${folder.name} is the publish directory (${describeOrigin(from)}).` : ''
  return [
    {
      key: folder.path,
      impact: 'Nothing: there is no page to send.',
      cause: `${folder.name === folder.path ? `The folder ${folder.path}` : 'The folder'} ${folder.present ? 'is empty' : 'does not exist'}.${said}`,
      places: [folder.path],
      source: from && 'file' in from ? from : null,
      fix: [
        `Run ${buildCommandOf(evidence)} in ${directoryInWords(survey.directory)}.`,
        // What a plugin sets is not seen in the configuration.
        ...(publishDirectory?.certainty === 'default'
          ? ['Where it writes into another folder, check that one: name it as the path.']
          : []),
      ],
    },
  ]
}

/** A build that was cut off, or a disk that was full, leaves the page without a letter. */
function emptyEntry(evidence: Evidence): Cause[] {
  const { folder, facts, survey } = evidence
  const entry = facts.find(({ path }) => path === 'index.html')
  if (entry?.size !== 0 || entry.unread !== null) return []
  return [
    {
      key: 'empty',
      title: 'The first page is empty',
      impact: 'A white page: nothing is sent but an empty file.',
      cause: `index.html in ${folder.name} has 0 bytes: what writes it was ended before it did.`,
      places: ['index.html'],
      fix: [
        survey.build
          ? `Run ${buildCommandOf(evidence)} in ${directoryInWords(survey.directory)}, and see that it ends without an error.`
          : 'Build it again, and see that this ends without an error.',
      ],
    },
  ]
}
