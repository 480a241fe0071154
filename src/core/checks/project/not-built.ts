import { describeOrigin } from '../../model/reading.ts'
import { buildCommandOf, type Cause, directoryInWords, type Evidence, type Judge } from '../check.ts'

/** There is no build to look at. */
export const notBuilt: Judge = {
  code: 'project/not-built',
  severity: 'blocker',
  title: 'There is nothing to ship yet',
  meaning:
    'The publish directory does not exist, or holds no file. Either the build has not run, or it writes somewhere else.',
  example: 'vite.config.ts sets build.outDir to "site", the check looks at site/, and site/ is not there.',
  remedies: {
    any: 'Run the build command. When the build writes to another directory, name it with --folder.',
    vite: 'Run vite build (usually npm run build). The directory is build.outDir, "dist" when nothing is said.',
  },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { folder, facts, survey } = evidence
  if (folder.present && facts.length > 0) return []
  const { publishDirectory } = survey
  const from = publishDirectory?.from
  const said = from ? ` ${folder.name} is the publish directory (${describeOrigin(from)}).` : ''
  return [
    {
      key: folder.path,
      meets: 'Nothing: there is no page to send.',
      cause: `${folder.name === folder.path ? `The folder ${folder.path}` : 'The folder'} ${folder.present ? 'is empty' : 'does not exist'}.${said}`,
      showings: [{ file: folder.path, offset: null, length: 0 }],
      source: from && 'file' in from ? from : null,
      remedy: {
        steps: [`Run ${buildCommandOf(evidence)} in ${directoryInWords(survey.directory)}.`],
        change: null,
      },
    },
  ]
}
