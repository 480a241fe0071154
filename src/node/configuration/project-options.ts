import { basename, dirname, join, resolve } from 'node:path'
import { checks } from '../../core/checks/index.ts'
import { acceptedName, parseAccepted } from '../../core/configuration/accepted.ts'
import type { Host } from '../../core/host/host.ts'
import { presetNamed, presets } from '../../core/host/presets.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import { parseSite, type Site } from '../../core/model/site.ts'
import { unknown } from '../../core/model/unknown.ts'
import type { CheckOptions } from '../../core/pipeline/options.ts'
import { includesBeside } from '../../core/project/declared/server-files.ts'
import type { Waiver } from '../../core/release/waivers.ts'
import { DiskFolder } from '../disk-folder.ts'
import { readNamed } from '../regular-file.ts'
import { type FoundConfiguration, fromConfiguration } from './load.ts'

/** What somebody says beside the configuration, and over it. */
export interface Said {
  /** The configuration file, when it is not in the project. */
  readonly config?: string | undefined
  /** Where the person stands: a configuration that is code is run only if it is of the same repository. */
  readonly here?: string
  readonly site?: string | readonly string[] | undefined
  /** A preset, a file that describes a host, or a host. */
  readonly host?: string | Host | undefined
}

/** What a project's configuration says of how it is checked. */
export interface ProjectOptions {
  /** The build folder, when the configuration names one. */
  readonly folder: string | undefined
  readonly options: CheckOptions
  /** What a person should know of how the configuration was found; one sentence each. */
  readonly remarks: readonly string[]
}

/** What a configuration says, and what is said over it, as options of a check. */
export async function optionsOf(
  configuration: FoundConfiguration,
  said: Pick<Said, 'site' | 'host'>,
): Promise<ProjectOptions> {
  const { values, own } = configuration
  const sites = sitesOf(said.site, values)
  const known = [...checks, ...own.checks].map(({ code }) => code)
  return {
    folder: values.folder,
    remarks: configuration.remarks,
    options: {
      site: sites[0] ?? null,
      sites,
      host: await chosenHost(said.host, values.host, configuration),
      routes: values.routes ?? [],
      samples: values.samples ?? {},
      limits: values.limits ?? {},
      waivers: [
        ...knownWaivers(values.waivers ?? [], known, configuration.shown),
        ...knownWaivers(
          acceptedIn(configuration.directory),
          known,
          join(configuration.directory, acceptedName),
        ),
      ],
      ...(values.holdOn && { holdOn: values.holdOn }),
      checks: own.checks,
      frameworks: own.frameworks,
    },
  }
}

function sitesOf(said: Said['site'], { site, sites }: FoundConfiguration['values']): Site[] {
  const texts = said === undefined ? (sites ?? site ?? []) : said
  const parsed = [texts].flat().map((text) => parseSite(text))
  return [...new Map(parsed.map((each) => [each.address, each])).values()]
}

/** What was accepted as it stood, in the file beside the configuration. */
function acceptedIn(directory: string): Waiver[] {
  const file = join(directory, acceptedName)
  try {
    return parseAccepted(file, readNamed(file, largestText).toString('utf8'))
  } catch (error) {
    if (error instanceof FolderError && error.reason === 'missing') return []
    throw error instanceof FolderError ? new UsageError(error.message) : error
  }
}

/** @throws {UsageError} when a waiver names a code that there is none of. */
function knownWaivers(waivers: readonly Waiver[], codes: readonly string[], file: string): readonly Waiver[] {
  for (const { code } of waivers)
    if (!codes.includes(code))
      throw new UsageError(`A waiver in ${file} can't be used. ${unknown('finding code', code, codes)}`)
  return waivers
}

/** The host that is said, from where one stands; else the configuration's, from where that is. */
async function chosenHost(
  flag: Said['host'],
  configured: string | undefined,
  configuration: FoundConfiguration,
): Promise<Host | null> {
  if (typeof flag === 'object') return flag
  if (flag !== undefined) return hostOf(flag)
  if (configured === undefined) return null
  return hostOf(/[./\\]/.test(configured) ? fromConfiguration(configured, configuration) : configured)
}

/** A preset, or a file that describes a host. @throws {UsageError} when it is neither. */
async function hostOf(name: string): Promise<Host> {
  if (!/[./\\]/.test(name)) return hostNamed(name)
  const { parseHostFile } = await import('../../core/host/host-file.ts')
  try {
    const text = readNamed(name, largestText).toString('utf8')
    if (name.endsWith('.json') || text.trimStart().startsWith('{')) return parseHostFile(name, text)
    const { serverHost } = await import('../../core/host/server-host.ts')
    return serverHost({ file: name, text }, { include: await includesOnDisk(name) })
  } catch (error) {
    if (error instanceof UsageError) throw error
    throw new UsageError(
      `The host file ${name} could not be read: ${reasonOf(error)} Name a preset (${presets.map((each) => each.name).join(', ')}) or a file.`,
    )
  }
}

/** The files beside a configuration that is named by its path. */
async function includesOnDisk(name: string): Promise<ReturnType<typeof includesBeside>> {
  const directory = dirname(resolve(name))
  const beside = includesBeside(await DiskFolder.open(directory, directory), basename(name))
  return async (pattern) =>
    (await beside(pattern)).map(({ file, text }) => ({ file: join(dirname(name), file), text }))
}

function reasonOf(error: unknown): string {
  return error instanceof FolderError ? error.message : 'it is not understood.'
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
