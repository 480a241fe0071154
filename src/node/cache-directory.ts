import { homedir } from 'node:os'
import { join } from 'node:path'

/** Where what may be deleted at any time is kept: below the user's cache directory. */
export function cacheDirectory(environment: NodeJS.ProcessEnv = process.env): string {
  const { XDG_CACHE_HOME, LOCALAPPDATA } = environment
  return join(XDG_CACHE_HOME || LOCALAPPDATA || join(homedir(), '.cache'), 'wardoscope')
}
