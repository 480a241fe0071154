import { resolve } from 'node:path'
import { UsageError } from '../core/model/errors.ts'
import type { Folder } from '../core/model/folder.ts'
import type { Report } from '../core/model/report.ts'
import { check } from '../core/pipeline/check.ts'
import type { CheckOptions } from '../core/pipeline/options.ts'
import { isProject } from '../core/project/recognise.ts'
import { cacheDirectory } from './cache-directory.ts'
import { configurationNames, loadConfiguration } from './configuration/load.ts'
import { optionsOf, type ProjectOptions, type Said } from './configuration/project-options.ts'
import { firstOf } from './configuration/trust.ts'
import { historyBelow } from './git/history.ts'
import { directoriesAbove, isBelow, repositoryOf } from './opening/above.ts'
import { isArchive } from './opening/archive.ts'
import { type Located, locate, openPath, type Surroundings } from './opening/locate.ts'
import { AnswersFile } from './reading/answers-file.ts'
import { parallelReader } from './reading/parallel-reader.ts'
import { version } from './version.ts'
import { compressor } from './weighing/compressor.ts'

/** How a path is checked. What is left out is taken from its configuration, else from the project itself. */
export interface PathOptions
  extends Said,
    Pick<
      CheckOptions,
      | 'project'
      | 'checks'
      | 'frameworks'
      | 'readings'
      | 'routes'
      | 'samples'
      | 'environment'
      | 'reach'
      | 'rehearse'
      | 'limits'
      | 'earlier'
      | 'onShipped'
      | 'onProgress'
      | 'onStage'
      | 'signal'
      | 'waivers'
      | 'today'
      | 'holdOn'
    > {
  /** The build folder, when it is not the one that the project names. */
  readonly folder?: string | undefined
  /** Whether what was read is kept for the next run, in the user's cache directory. */
  readonly cache?: boolean
  /** What is known of the repositories around, where several projects of one are checked. */
  readonly surroundings?: Surroundings
}

/** A folder that was opened, and how it is to be checked. */
export interface Prepared {
  readonly folder: Folder
  readonly options: CheckOptions
}

/**
 * May this ship? The same check for every caller: finds out what the path is, reads its configuration, and checks it.
 * @throws {FolderError} when there is nothing to look at, or it can't be read
 * @throws {UsageError} when an option or the configuration can't be used
 * @throws the reason of `options.signal`, an `AbortError` where nobody gives another, when it is aborted
 */
export async function checkPath(path: string, options: PathOptions = {}): Promise<Report> {
  const prepared = await preparePath(path, options)
  return check(prepared.folder, prepared.options)
}

/** What {@link checkPath} checks, and how, for callers that have something to do in between. */
export async function preparePath(path: string, options: PathOptions = {}): Promise<Prepared> {
  const { located, configured } = await locateConfigured(path, options)
  const cache = options.cache === false ? null : cacheDirectory()
  const answers = cache === null ? null : new AnswersFile(cache)
  const remarks = [...(located.opening.remarks ?? []), ...configured.remarks]
  return {
    folder: located.folder,
    options: {
      environment: process.env,
      compress: compressor(cache),
      reader: parallelReader({ cache, version, onRead: answers?.begin }),
      ...(answers && { answers }),
      history: located.folder.origin ? historyBelow(located.folder.origin.root) : null,
      ...configured.options,
      ...located.opening,
      remarks,
      build: located.build,
      ...given({ ...options, project: options.project ?? located.opening.project ?? null }),
      routes: [...(options.routes ?? []), ...(configured.options.routes ?? [])],
      checks: [...(options.checks ?? []), ...(configured.options.checks ?? [])],
      frameworks: ownFrameworks(options, configured),
    },
  }
}

/** A path with its configuration: what only the command line would know is left to it. */
export async function locateConfigured(
  path: string,
  options: PathOptions = {},
): Promise<{ located: Located; configured: ProjectOptions }> {
  const { config: named, here } = options
  const directory = await configurationDirectory(path)
  const load = async (at: string): Promise<ProjectOptions> =>
    optionsOf(await loadConfiguration({ named, directory: at, ...(here ? { here } : {}) }), options)
  const configured = await load(directory)
  const isOwn = directory === resolve(path)
  const folder = options.folder ?? (isOwn ? ownFolder(path, configured) : undefined)
  const located = await locate(path, {
    folder,
    frameworks: ownFrameworks(options, configured),
    surroundings: options.surroundings,
  })
  // The configuration of a project above counts when the folder turned out to be part of that project.
  const counts = isOwn || named !== undefined || located.directory === directory
  return { located, configured: counts ? configured : await load(resolve(path)) }
}

function ownFrameworks(
  options: PathOptions,
  { options: configured }: ProjectOptions,
): NonNullable<CheckOptions['frameworks']> {
  return [...(options.frameworks ?? []), ...(configured.frameworks ?? [])]
}

/** The build folder that the configuration names. @throws {UsageError} when it leads out of the repository. */
function ownFolder(path: string, { folder }: ProjectOptions): string | undefined {
  if (folder === undefined) return undefined
  const whole = resolve(path)
  if (isBelow(resolve(whole, folder), repositoryOf(whole) ?? whole)) return folder
  throw new UsageError(
    `The configuration names the folder ${folder}, which is outside the project's repository. Only a person who runs the check may name such a folder.`,
  )
}

/** Where the configuration of a path is: with it, or with the nearest project above a folder that is none itself. */
async function configurationDirectory(path: string): Promise<string> {
  const whole = resolve(path)
  if (isArchive(path) || firstOf(whole, configurationNames) !== null) return whole
  if (await isProject(await openPath(path))) return whole
  for (const above of directoriesAbove(whole)) {
    if (firstOf(above, [...configurationNames, 'package.json']) !== null) return above
  }
  return whole
}

/** What was said; an option that was left out must not hide that of the configuration. */
function given({
  site: _site,
  host: _host,
  config: _config,
  here: _here,
  folder: _folder,
  cache: _cache,
  surroundings: _surroundings,
  ...options
}: PathOptions): Partial<CheckOptions> {
  return Object.fromEntries(Object.entries(options).filter(([, value]) => value !== undefined))
}
