import { UsageError } from '../../core/model/errors.ts'
import type { Folder } from '../../core/model/folder.ts'
import { own } from '../../core/model/own.ts'
import type { SurveyReport } from '../../core/model/report.ts'
import { unknown } from '../../core/model/unknown.ts'
import { nothingHere, openProject, type Target } from '../../core/pipeline/open.ts'
import { namedAddresses } from '../../core/project/addresses.ts'
import { EnvironmentValues } from '../../core/project/environment-files.ts'
import { type ProjectEntry, SeveralProjects } from '../../core/project/projects.ts'
import { openly, type Survey } from '../../core/project/survey.ts'
import { formatNamed } from '../../core/report/formats/index.ts'
import { surveyReport } from '../../core/report/survey-report.ts'
import { locateConfigured } from '../../node/check-path.ts'
import { styleFor } from '../../terminal/style.ts'
import { projectLines, renderSurvey } from '../../terminal/survey.ts'
import { surveyFormats, writeOut } from '../output.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `survey`. */
export interface SurveyFlags {
  readonly format: string
  readonly out?: string
  readonly project?: string
  readonly print?: string
  readonly color: boolean
}

/** What is this? */
export async function surveyCommand(path: string, flags: SurveyFlags, streams: Streams): Promise<ExitStatus> {
  const format = formatNamed(flags.format, surveyFormats).name
  const found = await surveyOf(path, flags)
  if (found instanceof SeveralProjects) return showProjects(await found.described(), format, flags, streams)
  const { survey, project, values } = found
  const addresses = project ? await namedAddresses(project, { folder: null, path: '' }, survey) : []
  const report = values.mask(openly(survey)).deep(surveyReport(survey, null, addresses))
  if (flags.print === 'projects') return printProjects(report.projects, streams)
  if (flags.print !== undefined) return printReading(flags.print, report, streams)
  const style = flags.out === undefined ? styleFor(streams.out, flags.color) : styleFor({}, false, {})
  await writeOut(
    format === 'json' ? `${JSON.stringify(report, null, 2)}\n` : renderSurvey(report, style),
    flags.out,
    streams,
  )
  return exit.clear
}

/** The survey of a project, of the project that writes this folder, or of a bare build folder. */
async function surveyOf(
  path: string,
  flags: SurveyFlags,
): Promise<{ survey: Survey; project: Folder | null; values: EnvironmentValues } | SeveralProjects> {
  const { located, configured } = await locateConfigured(path, { project: flags.project ?? null })
  const { folder, opening } = located
  const all = flags.print === undefined || flags.print === 'projects'
  try {
    const found = await openProject(folder, {
      project: flags.project ?? null,
      frameworks: configured.options.frameworks ?? [],
      ...opening,
      all,
    })
    if (found) return { survey: withUnread(found), project: found.project, values: found.values }
    const bare = await bareSurvey(folder)
    if (bare) return { survey: bare, project: null, values: new EnvironmentValues() }
  } catch (error) {
    if (error instanceof SeveralProjects && all) return error
    throw error
  }
  throw nothingHere(folder)
}

/** A survey by itself has no list of what was not read: that is a remark. */
function withUnread({ survey, unread }: Pick<Target, 'survey' | 'unread'>): Survey {
  return { ...survey, remarks: [...survey.remarks, ...[...unread.values()].map(({ reason }) => reason)] }
}

/** The readers of built files are loaded only where there is no project to read. */
async function bareSurvey(folder: Folder): Promise<Survey | null> {
  const { surveyOutput } = await import('../../core/pipeline/read-output.ts')
  return surveyOutput(folder)
}

/** A repository of several front ends: each of them, and how to see more of one. */
async function showProjects(
  projects: readonly ProjectEntry[],
  format: string,
  flags: SurveyFlags,
  streams: Streams,
): Promise<ExitStatus> {
  if (flags.print !== undefined) return printProjects(projects, streams)
  const style = flags.out === undefined ? styleFor(streams.out, flags.color) : styleFor({}, false, {})
  const lines = [
    ...projectLines({ projects: [...projects], choice: null }, style),
    '',
    '  More of one of them: --project <directory>',
  ]
  await writeOut(
    format === 'json' ? `${JSON.stringify({ projects }, null, 2)}\n` : `${lines.join('\n')}\n`,
    flags.out,
    streams,
  )
  return exit.clear
}

/** The projects as JSON, for scripts that go through them. */
function printProjects(projects: readonly ProjectEntry[], { out }: Streams): ExitStatus {
  out.write(`${JSON.stringify(projects)}\n`)
  return exit.clear
}

/** The readings that can be printed by name, for scripts. */
const printable: Readonly<Record<string, (report: SurveyReport) => { value: string | null } | null>> = {
  project: (report) => report.project,
  framework: (report) => report.framework,
  'framework-version': (report) => report.frameworkVersion,
  'package-manager': (report) => report.packageManager,
  'install-command': (report) => report.installCommand,
  'build-command': (report) => report.buildCommand,
  'publish-directory': (report) => report.publishDirectory,
  'base-path': (report) => report.basePath,
  'router-base': (report) => report.routerBase,
  address: (report) => report.addresses.find(({ kind }) => kind !== 'repository') ?? null,
  mode: (report) => report.mode,
  output: (report) => report.output,
  'node-version': (report) => report.nodeVersion,
}

/** Prints one bare value. One that is not known is status 3, and says so where it disturbs no script. */
function printReading(name: string, report: SurveyReport, { out, err }: Streams): ExitStatus {
  const read = own(printable, name)
  if (!read) throw new UsageError(unknown('reading', name, ['projects', ...Object.keys(printable)]))
  const value = read(report)?.value ?? null
  if (value === null) {
    err.write(`wardoscope: The ${name.replaceAll('-', ' ')} is not known.\n`)
    return exit.unseen
  }
  out.write(`${value}\n`)
  return exit.clear
}
