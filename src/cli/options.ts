import type { CheckOptions } from '../core/check.ts'
import { type Folder, within } from '../core/model/folder.ts'
import { UsageError } from '../core/model/site.ts'
import { unknown } from '../core/model/unknown.ts'
import type { BuildFolder } from '../core/open.ts'
import { cacheDirectory } from '../node/cache-directory.ts'
import { projectOptions } from '../node/configuration/project-options.ts'
import { historyBelow } from '../node/git/history.ts'
import { parallelReader } from '../node/reading/parallel-reader.ts'
import { version } from '../node/version.ts'
import { compressor } from '../node/weighing/compressor.ts'
import { buildFirst } from './build.ts'
import type { Streams } from './streams.ts'
import { enclosingProject, openArchive, openBuildFolder, openPath } from './target.ts'

/** The options of every command that looks into a build, as the command line gives them. */
export interface FolderFlags {
  readonly site?: readonly string[]
  readonly folder?: string
  readonly project?: string
  readonly host?: string
  readonly route?: readonly string[]
  readonly config?: string
  readonly cache: boolean
  readonly build?: boolean
  readonly holdOn?: string
}

/** What the command line and the configuration say together: the folder to look into, and how. */
export async function folderOptions(
  path: string,
  flags: FolderFlags,
  streams: Streams,
): Promise<{ folder: Folder; options: CheckOptions }> {
  const configured = await projectOptions(path, {
    config: flags.config,
    site: flags.site,
    host: flags.host,
  })
  if (flags.build === true) await buildFirst(await openPath(path), flags.project ?? null, streams)
  const { folder, build } = await openBoth(path, flags.folder ?? configured.folder)
  const options: CheckOptions = {
    ...configured.options,
    build,
    project: flags.project ?? null,
    routes: [...(flags.route ?? []), ...(configured.options.routes ?? [])],
    compress: compressor(flags.cache ? cacheDirectory() : null),
    holdOn: holdOnOf(flags.holdOn),
    environment: process.env,
    history: folder.origin ? historyBelow(folder.origin.root) : null,
    reader: parallelReader({ cache: flags.cache ? cacheDirectory() : null, version }),
  }
  return { folder, options }
}

function holdOnOf(text = 'blocker'): 'blocker' | 'caution' {
  if (text === 'blocker' || text === 'caution') return text
  throw new UsageError(unknown('severity', text, ['blocker', 'caution']))
}

async function openBoth(
  path: string,
  directory: string | undefined,
): Promise<{ folder: Folder; build: BuildFolder | null }> {
  const archive = await openArchive(path)
  if (archive) {
    const build = directory === undefined ? null : { folder: within(archive, directory), path: directory }
    return { folder: archive, build }
  }
  const folder = await openPath(path)
  if (directory !== undefined) return { folder, build: await openBuildFolder(folder, path, directory) }
  const enclosing = await enclosingProject(path)
  return enclosing ? { folder: enclosing.project, build: enclosing.build } : { folder, build: null }
}

/**
 * The options of a command that plays one site.
 * @throws {UsageError} when several addresses are given.
 */
export function atOneSite(options: CheckOptions, command: string): CheckOptions {
  if ((options.sites?.length ?? 0) <= 1) return options
  throw new UsageError(`${command} plays one site at a time. Give one --site.`)
}
