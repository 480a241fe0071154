import { directoryOf, joinPath, joinUp } from './folder.ts'

/**
 * Stands for the project's own directory in folded paths, so that they can be distinguished from paths elsewhere.
 * No real path begins so.
 */
export const projectRoot = '/\u0001project'

/** A path below the project, from an absolute or relative one; null when it is elsewhere. */
export function belowProject(path: string): string | null {
  if (path === projectRoot) return ''
  if (path.startsWith(`${projectRoot}/`)) return path.slice(projectRoot.length + 1)
  return path.startsWith('/') || /^[A-Za-z]:[\\/]/.test(path) ? null : path
}

/** The directory of a file, as the code in it would know it. */
export function directoryInCode(file: string): string {
  const directory = directoryOf(file)
  return directory === '' ? projectRoot : `${projectRoot}/${directory}`
}

/** Joins paths as `path.resolve` does: from the last absolute one on. A path of the project may climb out of it. */
export function resolvePaths(parts: readonly string[]): string {
  const start = Math.max(
    0,
    parts.findLastIndex((part) => part.startsWith('/')),
  )
  const [first = '', ...more] = parts.slice(start)
  const inProject = first === projectRoot || first.startsWith(`${projectRoot}/`)
  if (inProject) {
    const below = joinUp(first.slice(projectRoot.length), ...more)
    return below === '' ? projectRoot : `${projectRoot}/${below}`
  }
  return first.startsWith('/') ? `/${joinPath(first, ...more)}` : joinUp(first, ...more)
}
