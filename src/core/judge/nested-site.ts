import type { FileFacts } from '../model/facts.ts'
import { directoryOf } from '../model/folder.ts'

/** The directories nearest to the top that hold an entry page, when the folder itself holds no page at all. */
export function nestedSites(facts: readonly Pick<FileFacts, 'path' | 'kind'>[]): string[] {
  const pages = facts.filter(({ kind }) => kind === 'page').map(({ path }) => path)
  if (pages.some((path) => !path.includes('/'))) return []
  const directories = pages.filter((path) => /\/index\.html?$/.test(path)).map(directoryOf)
  const depthOf = (path: string): number => path.split('/').length
  const least = Math.min(...directories.map(depthOf))
  return directories.filter((path) => depthOf(path) === least).sort()
}
