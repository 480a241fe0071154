import { readFile } from 'node:fs/promises'
import type { CheckOptions } from '../core/check.ts'
import type { Host } from '../core/host/host.ts'
import { presetNamed, presets } from '../core/host/presets.ts'
import { judges } from '../core/judge/judges.ts'
import { parseSite, UsageError } from '../core/model/site.ts'
import type { BuildFolder } from '../core/open.ts'
import type { Waiver } from '../core/waivers/waivers.ts'
import { cacheDirectory } from '../node/cache-directory.ts'
import type { DiskFolder } from '../node/disk-folder.ts'
import { historyBelow } from '../node/git/history.ts'
import { parallelReader } from '../node/reading/parallel-reader.ts'
import { compressor } from '../node/weighing/compressor.ts'
import { buildFirst } from './build.ts'
import { type FoundConfiguration, fromConfiguration, loadConfiguration } from './configuration.ts'
import { unknown } from './output.ts'
import type { Streams } from './streams.ts'
import { enclosingProject, openBuildFolder, openPath } from './target.ts'
import { version } from './version.ts'

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
): Promise<{ folder: DiskFolder; options: CheckOptions }> {
  const configuration = await loadConfiguration(flags.config, path)
  const {
    site: address,
    sites: addresses,
    host: hostName,
    routes = [],
    samples = {},
    folder: directory,
    waivers = [],
    limits = {},
  } = configuration.values
  const said = flags.site ?? addresses ?? (address === undefined ? [] : [address])
  const sites = [...new Map(said.map((text) => parseSite(text)).map((site) => [site.address, site])).values()]
  const host = await chosenHost(flags.host, hostName, configuration)
  if (flags.build === true) await buildFirst(await openPath(path), flags.project ?? null, streams)
  const { folder, build } = await openBoth(path, flags.folder ?? directory)
  const options: CheckOptions = {
    site: sites[0] ?? null,
    sites,
    host,
    build,
    project: flags.project ?? null,
    routes: [...(flags.route ?? []), ...routes],
    samples,
    waivers: knownWaivers(waivers),
    limits,
    compress: compressor(flags.cache ? cacheDirectory() : null),
    holdOn: holdOnOf(flags.holdOn),
    environment: process.env,
    history: historyBelow(folder.origin.root),
    reader: parallelReader({ cache: flags.cache ? cacheDirectory() : null, version }),
  }
  return { folder, options }
}

/** @throws {UsageError} when a waiver names a code that there is none of. */
function knownWaivers(waivers: readonly Waiver[]): readonly Waiver[] {
  const codes = judges.map(({ code }) => code)
  for (const { code } of waivers)
    if (!codes.includes(code))
      throw new UsageError(`A waiver will not do. ${unknown('finding code', code, codes)}`)
  return waivers
}

function holdOnOf(text = 'blocker'): 'blocker' | 'caution' {
  if (text === 'blocker' || text === 'caution') return text
  throw new UsageError(unknown('severity', text, ['blocker', 'caution']))
}

/** The host of the command line, from where one stands; else the configuration's, from where that lies. */
async function chosenHost(
  flag: string | undefined,
  configured: string | undefined,
  configuration: FoundConfiguration,
): Promise<Host | null> {
  if (flag !== undefined) return hostOf(flag)
  if (configured === undefined) return null
  return hostOf(/[./\\]/.test(configured) ? fromConfiguration(configured, configuration) : configured)
}

async function openBoth(
  path: string,
  directory: string | undefined,
): Promise<{ folder: DiskFolder; build: BuildFolder | null }> {
  const folder = await openPath(path)
  if (directory !== undefined) return { folder, build: await openBuildFolder(folder, path, directory) }
  const enclosing = await enclosingProject(path)
  return enclosing ? { folder: enclosing.project, build: enclosing.build } : { folder, build: null }
}

/** A preset, or a file that describes a host. @throws {UsageError} when it is neither. */
async function hostOf(name: string): Promise<Host> {
  if (!/[./\\]/.test(name)) return hostNamed(name)
  const { parseHostFile } = await import('../core/host/host-file.ts')
  try {
    return parseHostFile(name, await readFile(name, 'utf8'))
  } catch (error) {
    if (error instanceof UsageError) throw error
    throw new UsageError(
      `The host file ${name} could not be read. Name a preset (${presets.map((each) => each.name).join(', ')}) or a file.`,
    )
  }
}

function hostNamed(name: string): Host {
  const preset = presetNamed(name)
  if (preset) return preset
  throw new UsageError(
    unknown(
      'host',
      name,
      presets.map((each) => each.name),
    ),
  )
}

/**
 * The options of a command that plays one site.
 * @throws {UsageError} when several addresses are given.
 */
export function atOneSite(options: CheckOptions, command: string): CheckOptions {
  if ((options.sites?.length ?? 0) <= 1) return options
  throw new UsageError(`${command} plays one site at a time. Give one --site.`)
}
