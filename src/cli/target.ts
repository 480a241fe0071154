import { isAbsolute, relative, resolve, sep } from 'node:path'
import { type Folder, FolderError, within } from '../core/model/folder.ts'
import type { BuildFolder } from '../core/open.ts'
import { DiskFolder } from '../node/disk-folder.ts'

/** Opens what a person named on the command line. @throws {FolderError} when it is not there. */
export function openPath(path: string): Promise<DiskFolder> {
  return DiskFolder.open(resolve(path), path)
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
