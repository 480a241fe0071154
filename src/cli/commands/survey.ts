import { FolderError } from '../../core/model/folder.ts'
import { surveyReport } from '../../core/report/survey-report.ts'
import { surveyProject } from '../../core/survey/survey.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { openPath } from '../target.ts'
import { styleFor } from '../terminal/style.ts'
import { renderSurvey } from '../terminal/survey.ts'
import { knownFormat, writeOut } from './check.ts'

/** The options of `survey`. */
export interface SurveyFlags {
  readonly format: string
  readonly out?: string
  readonly color: boolean
}

/** What is this? */
export async function surveyCommand(path: string, flags: SurveyFlags, streams: Streams): Promise<ExitStatus> {
  const format = knownFormat(flags.format)
  const surveyed = await surveyProject(await openPath(path))
  if (!surveyed) throw new FolderError('missing', `${path} is no project: it holds no package.json.`)
  const report = surveyReport(surveyed.survey, null)
  const style = flags.out === undefined ? styleFor(streams.out, flags.color) : styleFor({}, false)
  await writeOut(
    format === 'json' ? `${JSON.stringify(report, null, 2)}\n` : renderSurvey(report, style),
    flags.out,
    streams,
  )
  return exit.clear
}
