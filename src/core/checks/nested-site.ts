import type { FileFacts } from '../model/facts.ts'
import { directoryOf } from '../model/folder.ts'
import { requestsIn } from '../model/reference-list.ts'
import type { FolderIndex } from '../requests/folder-index.ts'

/** The directories nearest to the top that hold an entry page, when the folder itself holds no page at all. */
export function nestedSites(facts: readonly FileFacts[], index: FolderIndex): string[] {
  const pages = facts.filter(({ kind }) => kind === 'page')
  if (pages.some(({ path }) => !path.includes('/'))) return []
  const entries = pages.filter(({ path }) => /\/index\.html?$/.test(path))
  const depthOf = ({ path }: FileFacts): number => path.split('/').length
  const least = Math.min(...entries.map(depthOf))
  const nearest = entries.filter((entry) => depthOf(entry) === least)
  return nearest
    .filter((entry) => !leansOnFilesAbove(entry, index))
    .map(({ path }) => directoryOf(path))
    .sort()
}

/** A page that requests files outside its directory is one page of a larger site, whose entry page is gone. */
function leansOnFilesAbove({ path, references }: FileFacts, index: FolderIndex): boolean {
  const directory = `${directoryOf(path)}/`
  return [...requestsIn(references)].some(({ raw, kind }) => {
    if (kind === 'page' || kind === 'named') return false
    const from = `http://site.invalid/${directory}`
    const url = URL.canParse(raw, from) ? new URL(raw, from) : null
    const file = url?.hostname === 'site.invalid' ? index.tailOf(url.pathname)?.file : undefined
    return file !== undefined && !file.startsWith(directory)
  })
}
