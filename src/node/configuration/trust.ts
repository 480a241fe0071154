import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { isProject } from '../../core/project/recognise.ts'
import { DiskFolder } from '../disk-folder.ts'
import { isBelow, real, repositoryOf } from '../opening/above.ts'

/**
 * Whether a configuration that is code may be run without being named: it is in a project, in the directory that a person
 * stands in or in the repository that holds it. What is anywhere else is somebody else's.
 * @param directory where the configuration is
 * @param here where the person stands
 */
export async function mayRun(directory: string, here: string): Promise<boolean> {
  const isInstalled = real(directory).split(/[/\\]/).includes('node_modules')
  if (isInstalled || !(await isProject(await DiskFolder.open(directory)))) return false
  if (real(directory) === real(here)) return true
  const repository = repositoryOf(here)
  return repository !== null && isBelow(directory, repository) && repositoryOf(directory) === repository
}

/** The first of these names that a directory holds. */
export function firstOf(directory: string, names: readonly string[]): string | null {
  return names.find((name) => existsSync(join(directory, name))) ?? null
}
