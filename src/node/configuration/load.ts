import { createRequire } from 'node:module'
import { dirname, isAbsolute, join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { type Check, type CheckDefinition, defineCheck } from '../../core/checks/check.ts'
import type { Configuration } from '../../core/configuration/configuration.ts'
import { defineFramework, type Framework, type FrameworkTable } from '../../core/frameworks/framework.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import { readNamed } from '../regular-file.ts'
import { firstOf, mayRun } from './trust.ts'

/** The name that is looked for in the project's directory, and written to. */
export const configurationName = 'wardoscope.config.json'

/** The same as a module, which may bring code. */
const moduleNames = ['wardoscope.config.js', 'wardoscope.config.mjs', 'wardoscope.config.ts']

/** Every name of a configuration. */
export const configurationNames: readonly string[] = [configurationName, ...moduleNames]

/** What only a module can bring. */
export interface OwnCode {
  readonly checks: readonly Check[]
  readonly frameworks: readonly Framework[]
}

/** A configuration, and the directory that its paths start from. */
export interface FoundConfiguration {
  readonly values: Configuration
  readonly own: OwnCode
  readonly directory: string
  /** Its name, for messages. */
  readonly shown: string
  /** What a person should know: that a module was found and not run. */
  readonly remarks: readonly string[]
}

/** Where a configuration is looked for. */
export interface ConfigurationPlace {
  /** The file that a person named: it is read or run wherever it is. */
  readonly named?: string | undefined
  /** The directory in which it is looked for otherwise. */
  readonly directory: string
  /** Where the person stands, which decides whose code is run. */
  readonly here?: string
}

/** The configuration module in a directory, when it has no configuration that a program can write to. */
export function moduleIn(directory: string): string | null {
  return firstOf(directory, [configurationName]) === null ? firstOf(directory, moduleNames) : null
}

const noCode: OwnCode = { checks: [], frameworks: [] }

/**
 * The configuration of a project: the file that is named, else the one in its directory, else nothing. A module is run when
 * it was named, or is plainly the reader's own: see {@link mayRun}.
 * @throws {UsageError} when the named file is not there, or a file can't be read or has another shape
 */
export async function loadConfiguration(place: ConfigurationPlace): Promise<FoundConfiguration> {
  const { named, directory, here = process.cwd() } = place
  const name = named === undefined ? firstOf(directory, configurationNames) : null
  const file = named ?? (name === null ? null : join(directory, name))
  const nothing = { values: {}, own: noCode, directory, shown: configurationName, remarks: [] }
  if (file === null) return nothing
  const shown = named ?? name ?? file
  const found = { directory: dirname(file), shown, remarks: [] }
  if (!/\.[cm]?[jt]s$/.test(file)) {
    const { parseConfiguration } = await import('../../core/configuration/configuration.ts')
    return { ...found, values: parseConfiguration(shown, textOf(file)), own: noCode }
  }
  if (named === undefined && !(await mayRun(directory, here))) {
    const remark = `${file} was found and not run: it is code, and is not in a project of the repository that you are in. Name it as the configuration to run it.`
    return { ...nothing, remarks: [remark] }
  }
  textOf(file)
  return { ...found, ...(await fromModule(file, shown)) }
}

async function fromModule(file: string, shown: string): Promise<Pick<FoundConfiguration, 'values' | 'own'>> {
  const { checkConfiguration } = await import('../../core/configuration/configuration.ts')
  const found = await exported(file, shown)
  if (typeof found !== 'object' || found === null) {
    throw new UsageError(`The configuration ${shown} exports no object. Write: export default { site: '…' }`)
  }
  const { checks = [], frameworks = [], ...values } = found as Record<string, unknown>
  return {
    values: checkConfiguration(shown, values),
    own: {
      checks: listOf<CheckDefinition>(checks, shown, 'checks', ['code', 'title', 'severity', 'run']).map(
        defineCheck,
      ),
      frameworks: listOf<FrameworkTable | Framework>(frameworks, shown, 'frameworks', [
        'name',
        'markers',
        'commands',
      ]).map((each) => ('read' in each ? each : defineFramework(each))),
    },
  }
}

async function exported(file: string, shown: string): Promise<unknown> {
  try {
    const module = await loaded(resolve(file))
    const { default: main = module } = module as { default?: unknown }
    return main
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? error.code : null
    if (code === 'ERR_UNKNOWN_FILE_EXTENSION' || (error instanceof SyntaxError && /\.[cm]?ts$/.test(file))) {
      throw new UsageError(
        `This Node can't run ${shown}: TypeScript needs Node 22.18 or later. Write it in JavaScript.`,
      )
    }
    throw new UsageError(
      `The configuration ${shown} could not be run: ${error instanceof Error ? error.message.split('\n')[0] : String(error)}`,
    )
  }
}

/**
 * Node 20 warns of an import from the program as it is kept compiled, and 22 of a module that is required: each gets what it
 * takes quietly. What waits for something at its top can only be imported.
 */
async function loaded(file: string): Promise<unknown> {
  const imported = (): Promise<unknown> => import(pathToFileURL(file).href)
  if (!process.version.startsWith('v20.')) return imported()
  try {
    return createRequire(file)(file) as unknown
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? error.code : null
    if (code !== 'ERR_REQUIRE_ASYNC_MODULE' && code !== 'ERR_REQUIRE_ESM') throw error
    return imported()
  }
}

/** A list whose members have what such a thing must have. */
function listOf<T>(list: unknown, shown: string, key: string, needed: readonly string[]): readonly T[] {
  if (!Array.isArray(list)) throw new UsageError(`In ${shown}, ${key} is no list.`)
  for (const [index, each] of list.entries()) {
    const missing = needed.find((name) => typeof each !== 'object' || each === null || !(name in each))
    if (missing !== undefined) throw new UsageError(`In ${shown}, ${key}[${index}] has no ${missing}.`)
  }
  return list as readonly T[]
}

function textOf(file: string): string {
  try {
    return readNamed(file, largestText).toString('utf8')
  } catch (error) {
    if (error instanceof FolderError)
      throw new UsageError(`The configuration can't be read. ${error.message}`)
    throw error
  }
}

/** A path of the configuration, from where it is. */
export function fromConfiguration(
  path: string,
  { directory }: Pick<FoundConfiguration, 'directory'>,
): string {
  return isAbsolute(path) ? path : join(directory, path)
}
