import { extensionOf, type Folder, FolderError, joinPath, listIfThere, within } from './model/folder.ts'
import { describeOrigin } from './model/reading.ts'
import { UsageError } from './model/site.ts'
import { emptySurvey, type SurveyWithSources, surveyProject } from './survey/survey.ts'

/** What a path turned out to be: a project with its build folder, or a bare build folder. */
export interface Target extends SurveyWithSources {
  /** The build folder, or null when it is not there. */
  readonly build: Folder | null
  /** The build folder's path as a person would write it. */
  readonly path: string
}

/** Where the build folder is, when the caller knows better than the project. */
export interface BuildFolder {
  readonly folder: Folder | null
  readonly path: string
}

/**
 * Surveys a folder and finds its build.
 * @throws {FolderError} when there is nothing to look at, or it can't be read.
 * @throws {UsageError} when the publish directory can't be known and was not given.
 */
export async function open(folder: Folder, given: BuildFolder | null): Promise<Target> {
  const surveyed = await surveyProject(folder)
  if (!surveyed) return openBare(folder, given)
  if (given) return { ...surveyed, build: given.folder, path: given.path }
  const directory = publishDirectory(surveyed)
  const there = (await listIfThere(folder, directory)) !== null
  return { ...surveyed, build: there ? within(folder, directory) : null, path: directory || '.' }
}

async function openBare(folder: Folder, given: BuildFolder | null): Promise<Target> {
  const empty = emptySurvey(folder.label)
  if (given) return { ...empty, build: given.folder, path: given.path }
  const entries = await folder.list('')
  const page = entries.some(({ name, kind }) => kind === 'file' && extensionOf(name) === 'html')
  if (!page) {
    throw new FolderError(
      'missing',
      `${folder.label} is neither a project nor a build folder: it holds no package.json and no page.`,
    )
  }
  return { ...empty, build: folder, path: folder.label }
}

function publishDirectory({ survey }: SurveyWithSources): string {
  const { publishDirectory: reading, framework } = survey
  if (!framework || !reading) {
    throw new UsageError(
      `No known framework builds ${survey.directory}. Say which directory its build writes with --folder.`,
    )
  }
  if (reading.value === null) {
    const where = describeOrigin(reading.from)
    throw new UsageError(`The publish directory is computed at ${where}. Say which it is with --folder.`)
  }
  return joinPath(reading.value)
}
