import { describeOrigin } from '../../model/reading.ts'
import { buildCommandOf, type Cause, type Check, directoryInWords, type Evidence } from '../check.ts'

/** There is no build to look at. */
export const notBuilt: Check = {
  code: 'project/not-built',
  severity: 'blocker',
  title: 'There is nothing to ship yet',
  keywords: ['output directory', 'build command', 'dist'],
  meaning:
    'The publish directory does not exist, or holds no file. Either the build has not run, or it writes somewhere else.',
  example: 'vite.config.ts sets build.outDir to "site", the check looks at site/, and site/ is not there.',
  fixes: {
    any: 'Run the build command. When the build writes to another directory, name it with --folder.',
    vite: 'Run vite build (usually npm run build). The directory is build.outDir, "dist" when nothing is said.',
  },
  after: [],
  run,
}

function run(evidence: Evidence): Cause[] {
  const { folder, facts, survey } = evidence
  if (folder.present && facts.length > 0) return []
  const { publishDirectory } = survey
  const from = publishDirectory?.from
  const said = from ? ` ${folder.name} is the publish directory (${describeOrigin(from)}).` : ''
  return [
    {
      key: folder.path,
      impact: 'Nothing: there is no page to send.',
      cause: `${folder.name === folder.path ? `The folder ${folder.path}` : 'The folder'} ${folder.present ? 'is empty' : 'does not exist'}.${said}`,
      places: [{ file: folder.path, offset: null, length: 0 }],
      source: from && 'file' in from ? from : null,
      fix: {
        steps: [`Run ${buildCommandOf(evidence)} in ${directoryInWords(survey.directory)}.`],
      },
    },
  ]
}
