import { readFile } from 'node:fs/promises'
import { check } from '../../core/check.ts'
import type { Host } from '../../core/host/host.ts'
import { presetNamed, presets } from '../../core/host/presets.ts'
import type { Report } from '../../core/model/report.ts'
import { parseSite, UsageError } from '../../core/model/site.ts'
import type { BuildFolder } from '../../core/open.ts'
import { cacheDirectory } from '../../node/cache-directory.ts'
import type { DiskFolder } from '../../node/disk-folder.ts'
import { historyBelow } from '../../node/git/history.ts'
import { parallelReader } from '../../node/reading/parallel-reader.ts'
import { buildFirst } from '../build.ts'
import { type FoundConfiguration, fromConfiguration, loadConfiguration } from '../configuration.ts'
import { knownFormat, unknown, writeOut } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { enclosingProject, openBuildFolder, openPath } from '../target.ts'
import { renderReport } from '../terminal/report.ts'
import { styleFor } from '../terminal/style.ts'
import { version } from '../version.ts'

/** The options of `check`, as the command line gives them. */
export interface CheckFlags {
  readonly site?: string
  readonly folder?: string
  readonly project?: string
  readonly host?: string
  readonly route?: readonly string[]
  readonly format: string
  readonly out?: string
  readonly config?: string
  readonly cache: boolean
  readonly routes?: boolean
  readonly variables?: boolean
  readonly build?: boolean
  readonly color: boolean
}

/** May this ship? */
export async function checkCommand(path: string, flags: CheckFlags, streams: Streams): Promise<ExitStatus> {
  const configuration = await loadConfiguration(flags.config, path)
  const { site: address, host: hostName, routes = [], samples = {}, folder: directory } = configuration.values
  const said = flags.site ?? address
  const site = said === undefined ? null : parseSite(said)
  const host = await chosenHost(flags.host, hostName, configuration)
  const format = knownFormat(flags.format)
  if (flags.build === true) await buildFirst(await openPath(path), flags.project ?? null, streams)
  const { folder, build } = await openBoth(path, flags.folder ?? directory)
  const progress = progressOn(streams.err, 'reading files')
  const report = await check(folder, {
    site,
    host,
    build,
    project: flags.project ?? null,
    routes: [...(flags.route ?? []), ...routes],
    samples,
    environment: process.env,
    history: historyBelow(folder.origin.root),
    reader: parallelReader({ cache: flags.cache ? cacheDirectory() : null, version }),
    onProgress: progress.report,
  }).finally(progress.end)
  await deliver(report, format, flags, streams)
  return report.verdict === 'clear' ? exit.clear : exit.held
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
  const { parseHostFile } = await import('../../core/host/host-file.ts')
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

async function deliver(
  report: Report,
  format: string,
  flags: CheckFlags,
  { out, err }: Streams,
): Promise<void> {
  const toFile = flags.out !== undefined
  const text =
    format === 'json'
      ? `${JSON.stringify(report, null, 2)}\n`
      : renderReport(report, toFile ? styleFor({}, false) : styleFor(out, flags.color), {
          routes: flags.routes === true,
          variables: flags.variables === true,
        })
  await writeOut(text, flags.out, { out, err })
}
