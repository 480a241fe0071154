import type { Framework } from '../frameworks/framework.ts'
import { FolderError, UsageError } from '../model/errors.ts'
import { climbs, type Folder, joinUp, listIfThere, within, without } from '../model/folder.ts'
import { notingFolder, type Unread } from '../model/noting-folder.ts'
import { describeOrigin } from '../model/reading.ts'
import { listed, readText } from '../model/text.ts'
import { declarationsIn } from '../project/declared/declarations.ts'
import { readDeployFiles } from '../project/declared/deploy-files.ts'
import { deployVariables, plainVariables } from '../project/declared/deploy-variables.ts'
import { outputsIn } from '../project/find-output.ts'
import { chooseProject } from '../project/projects.ts'
import { secretsBeside } from '../project/secrets-beside.ts'
import { emptySurvey, type RepositoryAround, type SurveyWithSources } from '../project/survey.ts'
import { holdsSite } from '../project/what-is-here.ts'
import { withSources } from '../project/with-sources.ts'

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
  /** Files of the project that could not be read, by path; grows while the project is looked at. */
  readonly unread: ReadonlyMap<string, Unread>
}

/** Where the build folder is, when the caller knows better than the project. */
export interface BuildFolder {
  readonly folder: Folder | null
  readonly path: string
}

/** Which project, when there are several. */
export type ProjectName = string | null

/** How a folder is opened. */
export interface Opening {
  /** Which project, by name or directory, in a repository of several. */
  readonly project?: ProjectName
  /** Frameworks beside those that are known. */
  readonly frameworks?: readonly Framework[]
  /** The repository that the folder is a workspace of. */
  readonly around?: RepositoryAround | null
  /** No build of it is to be judged: then the sources are not kept. */
  readonly alone?: boolean
  /** Of all other projects in the repository the configuration is read too, and not the manifest alone. */
  readonly all?: boolean
  /** The project in the directory itself is meant, and none below is looked for. Its sources are not read. */
  readonly itself?: boolean
  /** What a person should know of how the folder was found; one sentence each. */
  readonly remarks?: readonly string[]
}

/**
 * Surveys the project that is meant in a folder; null when there is none.
 * @throws {FolderError} when a manifest is not JSON, or a file can't be read.
 * @throws {UsageError} when the name fits no project, or several could be meant.
 */
export async function openProject(
  folder: Folder,
  { project: wanted = null, frameworks: own = [], alone = true, remarks = [], ...choosing }: Opening = {},
): Promise<(SurveyWithSources & Pick<Target, 'project' | 'directory' | 'unread'>) | null> {
  const notes = new Map<string, Unread>()
  const noted = notingFolder(folder, notes)
  const files = await readDeployFiles(noted)
  const handed = plainVariables(files)
  const chosen = await chooseProject(noted, { ...choosing, wanted, own, handed })
  if (!chosen) return null
  const project = within(noted, chosen.entry.directory)
  const workspace = choosing.around?.workspace
  const shared = workspace?.texts && { directory: workspace.directory, texts: workspace.texts }
  const found = choosing.itself
    ? { ...emptySurvey(folder.label), ...chosen }
    : await withSources(project, chosen, { alone, packages: chosen.packages, shared })
  const all = project === noted ? [files] : [files, await readDeployFiles(project)]
  const beside = await secretsBeside(project, found.survey)
  return {
    ...found,
    values: beside ? found.values.withSecretsOf(beside.values) : found.values,
    survey: {
      ...found.survey,
      remarks: [...remarks, ...found.survey.remarks],
      projects: chosen.all,
      choice: chosen.why,
      declarations: all.flatMap(declarationsIn),
      deployVariables: [...all.flatMap(deployVariables), ...(beside?.files ?? [])],
    },
    project,
    directory: chosen.entry.directory,
    unread: notes,
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
  opening: Opening = {},
): Promise<Target> {
  const surveyed = await openProject(folder, { ...opening, alone: false })
  if (!surveyed) return openBare(folder, given, opening.remarks)
  if (given) return { ...surveyed, build: given.folder, path: given.path }
  const { directory, remarks } = await publishDirectory(surveyed)
  const there = (await listIfThere(surveyed.project, directory)) !== null
  const beyond = !there && climbs(directory) ? [outsideRemark(directory)] : []
  const left = directory === '' ? await notShipped(surveyed.project) : []
  const survey = {
    ...surveyed.survey,
    remarks: [...surveyed.survey.remarks, ...remarks, ...beyond, ...leftRemark(left)],
  }
  return {
    ...surveyed,
    survey,
    build: there ? without(within(surveyed.project, directory), new Set(left)) : null,
    path: directory || '.',
  }
}

/** What a developer's copy of a project holds beside a site that is the project itself: packages and the repository. */
async function notShipped(project: Folder): Promise<string[]> {
  const entries = await project.list('')
  const names = entries.flatMap(({ name, kind }) =>
    kind === 'directory' && ofDeveloper.test(name) ? [name] : [],
  )
  const pages = entries.filter(({ name }) => /\.html?$/.test(name)).slice(0, mostPages)
  for (const { name } of names.includes('node_modules') ? pages : []) {
    // Some pages load packages from where they are installed, and then these have to ship.
    if ((await readText(project, name))?.includes('node_modules/'))
      return names.filter((each) => each !== 'node_modules')
  }
  return names
}

const ofDeveloper = /^(?:node_modules|\.(?:git|hg|svn|github|idea|vscode))$/
const mostPages = 50

function leftRemark(names: readonly string[]): string[] {
  return names.length > 0
    ? [
        `The site is the project itself: ${listed(names)} ${names.length > 1 ? 'are' : 'is'} not looked at. See that ${names.length > 1 ? 'they do' : 'it does'} not ship.`,
      ]
    : []
}

async function openBare(
  folder: Folder,
  given: BuildFolder | null,
  remarks: readonly string[] = [],
): Promise<Target> {
  const { survey, ...nothing } = emptySurvey(folder.label)
  const empty = {
    ...nothing,
    survey: { ...survey, remarks },
    project: folder,
    directory: '',
    unread: new Map(),
  }
  if (given) return { ...empty, build: given.folder, path: given.path }
  if (!(await holdsSite(folder))) throw nothingHere(folder)
  return { ...empty, build: folder, path: folder.label }
}

/** Says that a folder holds nothing that could be checked. */
export function nothingHere({ label }: Folder): FolderError {
  return new FolderError(
    'missing',
    `${label} is neither a project nor a build folder: it holds no package.json, no page, no script and no style sheet.`,
  )
}

function outsideRemark(directory: string): string {
  return `The publish directory ${directory} is outside of the project: it is not there, or outside of the repository, where nothing is read.`
}

/**
 * Where the build is: where the project says; where that can't be told, in the only folder that holds a built page.
 * @throws {UsageError} when it is neither
 */
async function publishDirectory({
  survey,
  project,
}: Pick<Target, 'survey' | 'project'>): Promise<{ directory: string; remarks: readonly string[] }> {
  const { publishDirectory: reading } = survey
  if (reading && reading.value !== null) return { directory: joinUp(reading.value), remarks: [] }
  const [only, ...others] = await outputsIn(project)
  const usual = survey.definition?.usualDirectory
  if (
    only === undefined &&
    reading &&
    usual !== undefined &&
    (await project.stat(joinUp(usual, 'index.html')))
  ) {
    const where = `The publish directory is computed at ${describeOrigin(reading.from)}`
    const remark = survey.framework
      ? `${where}; ${survey.definition?.title}'s default is taken: ${usual}.`
      : 'No directory here holds a built page, and the project itself has an index.html: it is taken as the site.'
    return { directory: usual, remarks: [remark] }
  }
  const why =
    reading && survey.framework
      ? `The publish directory is computed at ${describeOrigin(reading.from)}`
      : `No known framework builds ${survey.directory === '.' ? 'this project' : survey.directory}`
  if (only === undefined)
    throw new UsageError(
      `${why}, and no directory here holds a built page. Build it first, or name the directory.`,
      {
        setting: 'folder',
      },
    )
  if (others.length > 0)
    throw new UsageError(
      `${why}, and built pages are in ${listed([only, ...others])}. Name the directory that ships.`,
      { setting: 'folder' },
    )
  return { directory: only, remarks: [`${why}; the only folder that holds a built page is taken: ${only}.`] }
}
