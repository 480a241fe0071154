import { readFile } from 'node:fs/promises'
import { dirname, isAbsolute, relative, resolve, sep } from 'node:path'
import { type Folder, FolderError, within } from '../core/model/folder.ts'
import { UsageError } from '../core/model/site.ts'
import { type BuildFolder, openProject } from '../core/open.ts'
import { DiskFolder } from '../node/disk-folder.ts'

/** Opens what a person named on the command line. @throws {FolderError} when it is not there. */
export function openPath(path: string): Promise<DiskFolder> {
  return DiskFolder.open(resolve(path), path)
}

/** A zip archive as a folder; null when the path names none. @throws {FolderError} when it can't be read. */
export async function openArchive(path: string): Promise<Folder | null> {
  if (!/\.zip$/i.test(path)) return null
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'EISDIR') return null
    const missing = error.code === 'ENOENT'
    const why = missing ? `There is no file at ${path}.` : `${path} could not be read: ${error.code}.`
    throw new FolderError(missing ? 'missing' : 'unreadable', why)
  })
  if (bytes === null) return null
  const { folderOfZip } = await import('../core/model/zip-folder.ts')
  return folderOfZip(bytes, path)
}

/** The build folder a person named: below the project, or anywhere when the path is absolute. */
export async function openBuildFolder(project: Folder, path: string, folder: string): Promise<BuildFolder> {
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

/** How many directories above a build folder its project is looked for. */
const highest = 4

/**
 * The project that writes the folder at this path, when a directory above it is one: so that a build folder named by
 * itself is judged with its sources. Null when the path is a project itself, or nothing above it writes it.
 */
export async function enclosingProject(
  path: string,
): Promise<{ project: DiskFolder; build: BuildFolder } | null> {
  const whole = resolve(path)
  if (await isProject(await openPath(path))) return null
  let above = dirname(whole)
  for (let step = 0; step < highest && above !== dirname(above); step++, above = dirname(above)) {
    const project = await DiskFolder.open(above)
    const survey = (await quietly(() => openProject(project, null)))?.survey
    if (survey?.publishDirectory?.value == null) continue
    const shown = relative(above, whole).split(sep).join('/')
    if (shown === survey.publishDirectory.value)
      return { project, build: { folder: await openPath(path), path: shown } }
    return null
  }
  return null
}

async function isProject(folder: Folder): Promise<boolean> {
  return (await folder.stat('package.json')) !== null
}

/** A directory above that can't be read, or holds several projects, is not the one that was meant. */
async function quietly<T>(look: () => Promise<T>): Promise<T | null> {
  try {
    return await look()
  } catch (error) {
    if (error instanceof FolderError || error instanceof UsageError) return null
    throw error
  }
}
