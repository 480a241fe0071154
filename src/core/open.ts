import { extensionOf, type Folder, FolderError, joinPath, listIfThere, within } from './model/folder.ts'
import { describeOrigin } from './model/reading.ts'
import { UsageError } from './model/site.ts'
import { declarationsIn } from './survey/declarations.ts'
import { readDeployFiles } from './survey/deploy-files.ts'
import { deployVariables } from './survey/deploy-variables.ts'
import type { Framework } from './survey/frameworks/framework.ts'
import { chooseProject } from './survey/projects.ts'
import { emptySurvey, type Survey, type SurveyWithSources } from './survey/survey.ts'
import { withSources } from './survey/with-sources.ts'

/** What a path turned out to be: a project with its build folder, or a bare build folder. */
export interface Target extends SurveyWithSources {
  /** The project's own directory. */
  readonly project: Folder
  /** Its path below the folder that was opened. */
  readonly directory: string
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

/** Which project, when there are several. */
export type ProjectName = string | null

/**
 * Surveys the project that is meant in a folder; null when there is none. `alone` when no build of it is to be judged:
 * then the sources are not kept. `own`: frameworks beside those that are known.
 * @throws {FolderError} when a manifest is not JSON, or a file can't be read.
 * @throws {UsageError} when the name fits no project, or several could be meant.
 */
export async function openProject(
  folder: Folder,
  wanted: ProjectName,
  alone = true,
  own: readonly Framework[] = [],
): Promise<(SurveyWithSources & Pick<Target, 'project' | 'directory'>) | null> {
  const chosen = await chooseProject(folder, wanted, own)
  if (!chosen) return null
  const project = within(folder, chosen.entry.directory)
  const found = await withSources(project, chosen, alone)
  const { declarations, deployVariables } = await readDeployment(folder, project)
  return {
    ...found,
    survey: { ...found.survey, projects: chosen.all, choice: chosen.why, declarations, deployVariables },
    project,
    directory: chosen.entry.directory,
  }
}

/** What the repository's own files, and those of the project in it, say of its deployment. */
async function readDeployment(
  repository: Folder,
  project: Folder,
): Promise<Pick<Survey, 'declarations' | 'deployVariables'>> {
  const folders = project === repository ? [repository] : [repository, project]
  const read = await Promise.all(
    folders.map(async (folder) => {
      const files = await readDeployFiles(folder)
      return { declarations: declarationsIn(files), deployVariables: await deployVariables(folder, files) }
    }),
  )
  return {
    declarations: read.flatMap((each) => each.declarations),
    deployVariables: read.flatMap((each) => each.deployVariables),
  }
}

/**
 * Surveys a folder and finds its build.
 * @throws {FolderError} when there is nothing to look at, or it can't be read.
 * @throws {UsageError} when the publish directory can't be known and was not given.
 */
export async function open(
  folder: Folder,
  given: BuildFolder | null,
  wanted: ProjectName = null,
  own: readonly Framework[] = [],
): Promise<Target> {
  const surveyed = await openProject(folder, wanted, false, own)
  if (!surveyed) return openBare(folder, given)
  if (given) return { ...surveyed, build: given.folder, path: given.path }
  const directory = publishDirectory(surveyed)
  const there = (await listIfThere(surveyed.project, directory)) !== null
  return { ...surveyed, build: there ? within(surveyed.project, directory) : null, path: directory || '.' }
}

async function openBare(folder: Folder, given: BuildFolder | null): Promise<Target> {
  const empty = { ...emptySurvey(folder.label), project: folder, directory: '' }
  if (given) return { ...empty, build: given.folder, path: given.path }
  if (!(await holdsPage(folder, 2))) {
    throw new FolderError(
      'missing',
      `${folder.label} is neither a project nor a build folder: it holds no package.json and no page.`,
    )
  }
  return { ...empty, build: folder, path: folder.label }
}

/** Whether a page lies in the folder or a few directories down. */
async function holdsPage(folder: Folder, depth: number): Promise<boolean> {
  for (const { name, kind } of await folder.list('')) {
    if (kind === 'file' && extensionOf(name) === 'html') return true
    if (
      kind === 'directory' &&
      depth > 0 &&
      name !== 'node_modules' &&
      (await holdsPage(within(folder, name), depth - 1))
    ) {
      return true
    }
  }
  return false
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
