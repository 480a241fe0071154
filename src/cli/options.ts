import { UsageError } from '../core/model/errors.ts'
import { unknown } from '../core/model/unknown.ts'
import { type CheckOptions, type HoldOn, holdable } from '../core/pipeline/options.ts'
import { type PathOptions, type Prepared, preparePath } from '../node/check-path.ts'
import { openPath } from '../node/opening/locate.ts'
import { buildFirst } from './build.ts'
import type { Streams } from './streams.ts'

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
  readonly holdOn?: readonly string[]
}

/** The folder to look into, and how, as the command line and the configuration say together. */
export async function folderOptions(path: string, flags: FolderFlags, streams: Streams): Promise<Prepared> {
  const options = pathOptions(flags)
  if (flags.build === true) await buildFirst(await openPath(path), flags.project ?? null, streams)
  return preparePath(path, options)
}

/** What the command line says of a path. */
export function pathOptions({
  site,
  folder,
  project,
  host,
  route,
  config,
  cache,
  holdOn,
}: FolderFlags): PathOptions {
  return {
    site,
    folder,
    project: project ?? null,
    host,
    routes: route ?? [],
    config,
    cache,
    ...(holdOn && { holdOn: holdOn.map(holdOnOf) }),
  }
}

/** @throws {UsageError} when nothing of that name holds a build */
function holdOnOf(text: string): HoldOn {
  const known = holdable.find((each) => each === text)
  if (known) return known
  throw new UsageError(unknown('word for --hold-on', text, holdable))
}

/**
 * The options of a command that plays one site.
 * @throws {UsageError} when several addresses are given.
 */
export function atOneSite(options: CheckOptions, command: string): CheckOptions {
  if ((options.sites?.length ?? 0) <= 1) return options
  throw new UsageError(`${command} plays one site at a time. Give one --site.`)
}
