import { join } from 'node:path'
import { FolderError, UsageError } from '../core/model/errors.ts'
import type { Folder } from '../core/model/folder.ts'
import { printable } from '../core/model/text.ts'
import { openProject } from '../core/pipeline/open.ts'
import { runBuild } from '../node/run-build.ts'
import type { Streams } from './streams.ts'

/**
 * Builds the project that a folder holds, its output going to standard error.
 * @throws {UsageError} when there is no project, or its build command is not known
 * @throws {FolderError} when the build failed
 */
export async function buildFirst(folder: Folder, project: string | null, { err }: Streams): Promise<void> {
  const found = await openProject(folder, { project })
  const command = found?.survey.build?.command.value
  const origin = found?.project.origin
  if (!found || command === undefined || origin === undefined) {
    throw new UsageError(
      'There is no project here whose build command is known. Build it yourself, then check without --build.',
    )
  }
  err.write(`Building: ${printable(command)}\n`)
  const { status, signal } = await runBuild(join(origin.root, origin.directory), command, (text) =>
    err.write(text),
  )
  if (status === 0) return
  const how = status === null ? `was ended by ${signal}` : `ended with status ${status}`
  throw new FolderError('unreadable', `The build failed: ${command} ${how}. Nothing was checked.`)
}
