import { isAbsolute, relative, resolve, sep } from 'node:path'
import type { Framework } from '../../core/frameworks/framework.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { type Folder, within } from '../../core/model/folder.ts'
import { type BuildFolder, type Opening, openProject } from '../../core/pipeline/open.ts'
import { hasOwnMark, isProject } from '../../core/project/recognise.ts'
import type { RepositoryAround } from '../../core/project/survey.ts'
import { holdsPage, holdsSite, holdsSources } from '../../core/project/what-is-here.ts'
import { aroundOf, type Workspaces, workspacesOf } from '../../core/project/workspace-packages.ts'
import { DiskFolder } from '../disk-folder.ts'
import { directoriesAbove, real, repositoryOf } from './above.ts'
import { openArchive } from './archive.ts'

/** What a path on this machine turned out to be, ready to be checked. */
export interface Located {
  /** The project, the bare build folder or the archive. */
  readonly folder: Folder
  /** The project's own directory on disk; null for archives. */
  readonly directory: string | null
  /** The build folder, where the path or the caller says which it is. */
  readonly build: BuildFolder | null
  readonly opening: Required<Pick<Opening, 'around' | 'remarks'>> & Pick<Opening, 'project'>
}

/** How a path is looked at. */
export interface Locating {
  /** The build folder, when it is not the one that the project names. */
  readonly folder?: string | undefined
  /** Frameworks beside those that are known. */
  readonly frameworks?: readonly Framework[]
  /** What is known of the repositories around, where several projects of one are looked at. */
  readonly surroundings?: Surroundings | undefined
}

const nothingAround = { around: null, remarks: [] }

/**
 * Opens what a person named, as a part of the repository that holds it: what a project's configuration names beside the
 * project is read as far as the repository goes.
 * @throws {FolderError} when it is not there
 */
export async function openPath(path: string): Promise<Folder> {
  const folder = await DiskFolder.open(resolve(path), path)
  const whole = real(resolve(path))
  const repository = repositoryOf(whole)
  if (repository === null || repository === whole) return folder
  const below = relative(repository, whole).split(sep).join('/')
  return within(await DiskFolder.open(repository, path), below, path)
}

/**
 * Finds out what a path is: a project by any sign; a build folder with the project above that writes it; a directory of a
 * project's sources, which means the project; a build folder by itself; an archive. Above the path nothing is read but the
 * nearest project, the manifest, lockfile and list of workspaces of its repository, and, where the project depends on packages of
 * the same repository, those. Beside it, nothing else is.
 * @throws {FolderError} when there is nothing at the path, or it can't be read.
 */
export async function locate(
  path: string,
  { folder: given, frameworks = [], surroundings }: Locating = {},
): Promise<Located> {
  const archive = await openArchive(path)
  if (archive) {
    const build = given === undefined ? null : { folder: within(archive, given), path: given }
    return { folder: archive, directory: null, build, opening: nothingAround }
  }
  const folder = await openPath(path)
  const whole = real(resolve(path))
  if (given !== undefined) {
    const build = await openBuildFolder(folder, path, given)
    return { folder, directory: whole, build, opening: await openingAt(whole, surroundings) }
  }
  if (await isProject(folder, frameworks))
    return { folder, directory: whole, build: null, opening: await openingAt(whole, surroundings) }
  const above = await projectAbove(whole, frameworks)
  return (
    (above && (await partOf(above, folder, path))) ?? {
      folder,
      directory: whole,
      build: null,
      opening: nothingAround,
    }
  )
}

interface Above {
  readonly project: Folder
  readonly directory: string
  readonly around: RepositoryAround | null
  /** Where it publishes, as far as that is known. */
  readonly writes: string | null
}

/** The nearest directory above that is a project itself. */
async function projectAbove(directory: string, own: readonly Framework[]): Promise<Above | null> {
  for (const above of directoriesAbove(directory)) {
    const project = await openPath(relative(process.cwd(), above) || '.')
    if (!(await hasOwnMark(project, own))) continue
    const { around } = await openingAt(above)
    const found = await quietly(() => openProject(project, { around, frameworks: own, itself: true }))
    return { project, directory: above, around, writes: found?.survey.publishDirectory?.value ?? null }
  }
  return null
}

/** What a folder is to the project above it: its build, or its sources; null when it is neither. */
async function partOf(
  { project, directory, around, writes }: Above,
  folder: Folder,
  path: string,
): Promise<Located | null> {
  const shown = relative(directory, real(resolve(path)))
    .split(sep)
    .join('/')
  if (shown === writes)
    // Whoever names its build means the project itself, and none below it.
    return {
      folder: project,
      directory,
      build: { folder, path: shown },
      opening: { around, remarks: [], project: '.' },
    }
  const isOutput = writes !== null && (`${shown}/`.startsWith(`${writes}/`) || writes.startsWith(`${shown}/`))
  if (isOutput || !(await isPartOfSources(folder, shown))) return null
  const where = project.label === '.' ? 'here' : `in ${project.label}`
  const remark = `${path} is a directory of the project ${where}, and the project is what is looked at.`
  return { folder: project, directory, build: null, opening: { around, remarks: [remark] } }
}

/** Names of directories that builds write. */
const outputs = /^(?:\..*|dist|build|out|output|public|_site|www|docs|site|release|target|node_modules)$/

async function isPartOfSources(folder: Folder, shown: string): Promise<boolean> {
  const [sources, page] = [await holdsSources(folder), await holdsPage(folder)]
  if (shown.split('/').some((step) => outputs.test(step))) return sources && !page
  return sources || (!page && (await holdsSite(folder)))
}

/** The repositories around directories, each read once for all of its projects. */
export type Surroundings = Map<string, Promise<Workspaces | null>>

/** The repository that a directory is a workspace of. */
async function openingAt(directory: string, known: Surroundings = new Map()): Promise<Located['opening']> {
  for (const above of directoriesAbove(directory)) {
    const workspaces = known.get(above) ?? quietly(async () => workspacesOf(await DiskFolder.open(above)))
    known.set(above, workspaces)
    const around = aroundOf(await workspaces, relative(above, directory).split(sep).join('/'))
    if (around) return { around, remarks: [] }
  }
  return nothingAround
}

/** The build folder a person named: below the project, or anywhere when the path is absolute. */
async function openBuildFolder(project: Folder, path: string, folder: string): Promise<BuildFolder> {
  const whole = resolve(path, folder)
  const below = relative(resolve(path), whole)
  const inside = below !== '..' && !below.startsWith(`..${sep}`) && !isAbsolute(below)
  const shown = inside ? below.split(sep).join('/') || '.' : folder
  try {
    return {
      folder: inside ? await entered(project, shown) : await DiskFolder.open(whole, folder),
      path: shown,
    }
  } catch (error) {
    if (error instanceof FolderError && error.reason === 'missing') return { folder: null, path: shown }
    throw error
  }
}

async function entered(project: Folder, path: string): Promise<Folder> {
  const folder = within(project, path)
  await folder.list('')
  return folder
}

/** A directory above that can't be read, or holds a broken manifest, is not the one that was meant. */
async function quietly<T>(look: () => Promise<T>): Promise<T | null> {
  try {
    return await look()
  } catch (error) {
    if (error instanceof FolderError || error instanceof UsageError) return null
    throw error
  }
}
