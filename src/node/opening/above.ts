import { existsSync, realpathSync, statSync } from 'node:fs'
import { homedir, tmpdir } from 'node:os'
import { basename, dirname, join, relative, resolve, sep } from 'node:path'

/**
 * The directories above one, the nearest first, that may belong to the same piece of work. It ends with the root of a
 * repository; the home directory, directories for temporary files, another file system and the root of all are never among
 * them.
 */
export function* directoriesAbove(directory: string): Generator<string> {
  const ends = new Set([homedir(), tmpdir(), '/tmp', '/var/tmp'].map(real))
  let at = real(directory)
  while (!isRepository(at) && !ends.has(at)) {
    const above = dirname(at)
    if (above === at || ends.has(above) || dirname(above) === above || device(above) !== device(at)) return
    at = above
    yield at
  }
}

/** The root of the repository that holds a directory, or null. */
export function repositoryOf(directory: string): string | null {
  const start = real(directory)
  if (isRepository(start)) return start
  for (const above of directoriesAbove(start)) if (isRepository(above)) return above
  return null
}

/** Whether a path is a directory or is below it; links are resolved first. */
export function isBelow(path: string, directory: string): boolean {
  const way = relative(real(directory), real(path))
  return way === '' || !(way === '..' || way.startsWith(`..${sep}`) || way.startsWith(sep))
}

/** A path without links, as far as it is there. */
export function real(path: string): string {
  try {
    return realpathSync(path)
  } catch {
    const whole = resolve(path)
    const above = dirname(whole)
    return above === whole ? whole : join(real(above), basename(whole))
  }
}

function isRepository(directory: string): boolean {
  return existsSync(join(directory, '.git'))
}

function device(directory: string): number | null {
  return statSync(directory, { throwIfNoEntry: false })?.dev ?? null
}
