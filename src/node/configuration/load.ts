import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, isAbsolute, join, resolve } from 'node:path'
import type { Configuration } from '../../core/configuration/configuration.ts'
import type { Judge } from '../../core/judge/judge.ts'
import { UsageError } from '../../core/model/site.ts'
import type { Framework } from '../../core/survey/frameworks/framework.ts'

/** The name that is looked for in the project's directory, and written to. */
export const configurationName = 'wardoscope.config.json'

/** The same as a module, which may bring code. */
const moduleNames = ['wardoscope.config.js', 'wardoscope.config.mjs', 'wardoscope.config.ts']

/** What only a module can bring. */
export interface OwnCode {
  readonly judges: readonly Judge[]
  readonly frameworks: readonly Framework[]
}

/** A configuration, and the directory that its paths start from. */
export interface FoundConfiguration {
  readonly values: Configuration
  readonly own: OwnCode
  readonly directory: string
}

/** The configuration module in a directory, when it has no configuration that a program can write to. */
export function moduleIn(directory: string): string | null {
  if (existsSync(join(directory, configurationName))) return null
  return moduleNames.find((name) => existsSync(join(directory, name))) ?? null
}

const noCode: OwnCode = { judges: [], frameworks: [] }

/**
 * The configuration of a project: the file that is named, else the one in its directory, else nothing. A module is run: it
 * is the reader's own, as their test files are.
 * @throws {UsageError} when the named file is not there, or a file can't be read or has another shape
 */
export async function loadConfiguration(
  named: string | undefined,
  path: string,
): Promise<FoundConfiguration> {
  for (const file of named === undefined
    ? [configurationName, ...moduleNames].map((name) => join(path, name))
    : [named]) {
    const text = await readIfThere(file, named !== undefined)
    if (text === null) continue
    const shown = named ?? file.slice(join(path, 'x').length - 1)
    const directory = dirname(file)
    if (!/\.[cm]?[jt]s$/.test(file)) {
      const { parseConfiguration } = await import('../../core/configuration/configuration.ts')
      return { values: parseConfiguration(shown, text), own: noCode, directory }
    }
    return { ...(await fromModule(file, shown)), directory }
  }
  return { values: {}, own: noCode, directory: path }
}

async function fromModule(file: string, shown: string): Promise<Omit<FoundConfiguration, 'directory'>> {
  const { checkConfiguration } = await import('../../core/configuration/configuration.ts')
  const found = exported(file, shown)
  if (typeof found !== 'object' || found === null) {
    throw new UsageError(`The configuration ${shown} exports no object. Write: export default { site: '…' }`)
  }
  const { judges = [], frameworks = [], ...values } = found as Record<string, unknown>
  return {
    values: checkConfiguration(shown, values),
    own: {
      judges: listOf<Judge>(judges, shown, 'judges', ['code', 'title', 'meaning', 'remedies', 'judge']),
      frameworks: listOf<Framework>(frameworks, shown, 'frameworks', ['name', 'markers', 'commands', 'read']),
    },
  }
}

function exported(file: string, shown: string): unknown {
  try {
    const module: unknown = createRequire(resolve(file))(resolve(file))
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

/** A list whose members have what such a thing must have. */
function listOf<T>(list: unknown, shown: string, key: string, needed: readonly string[]): readonly T[] {
  if (!Array.isArray(list)) throw new UsageError(`In ${shown}, ${key} is no list.`)
  for (const [index, each] of list.entries()) {
    const missing = needed.find((name) => typeof each !== 'object' || each === null || !(name in each))
    if (missing !== undefined) throw new UsageError(`In ${shown}, ${key}[${index}] has no ${missing}.`)
  }
  return list as readonly T[]
}

async function readIfThere(file: string, must: boolean): Promise<string | null> {
  try {
    return await readFile(file, 'utf8')
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? String(error.code) : 'unknown error'
    if (!must && (code === 'ENOENT' || code === 'ENOTDIR')) return null
    throw new UsageError(
      `The configuration ${file} could not be read: ${code === 'ENOENT' ? 'it is not there' : code}.`,
    )
  }
}

/** A path of the configuration, from where it lies. */
export function fromConfiguration(
  path: string,
  { directory }: Pick<FoundConfiguration, 'directory'>,
): string {
  return isAbsolute(path) ? path : join(directory, path)
}
