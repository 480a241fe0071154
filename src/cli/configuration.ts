import { readFile } from 'node:fs/promises'
import { dirname, isAbsolute, join } from 'node:path'
import type { Configuration } from '../core/configuration/configuration.ts'
import { UsageError } from '../core/model/site.ts'

/** The name that is looked for in the project's directory. */
export const configurationName = 'wardoscope.config.json'

/** A configuration, and the directory that its paths start from. */
export interface FoundConfiguration {
  readonly values: Configuration
  readonly directory: string
}

/**
 * The configuration of a project: the file that is named, else the one in its directory, else nothing.
 * @throws {UsageError} when the named file is not there, or a file can't be read or has another shape
 */
export async function loadConfiguration(
  named: string | undefined,
  path: string,
): Promise<FoundConfiguration> {
  const file = named ?? join(path, configurationName)
  const text = await readIfThere(file, named !== undefined)
  if (text === null) return { values: {}, directory: path }
  const { parseConfiguration } = await import('../core/configuration/configuration.ts')
  return { values: parseConfiguration(named ?? configurationName, text), directory: dirname(file) }
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
export function fromConfiguration(path: string, { directory }: FoundConfiguration): string {
  return isAbsolute(path) ? path : join(directory, path)
}
