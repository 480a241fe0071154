import { directoryOf } from '../../model/folder.ts'
import { counted, groupedBy, safeDecode } from '../../model/text.ts'
import type { Request } from '../../requests/request.ts'
import { type Cause, type Evidence, placesOf } from '../check.ts'
import { effectOf, severityOf } from '../missing-files.ts'

/**
 * Builds below the top of the folder, as an `admin/` beside a landing page, that request their files at the top: each was made
 * for the top, and is served below its directory.
 */
export function nestedBuilds(failing: readonly Request[], evidence: Evidence): Cause[] {
  const placed = failing.flatMap((request) => {
    const directory = directoryThatHolds(request, evidence)
    return directory === null ? [] : [{ request, directory }]
  })
  return [...groupedBy(placed, ({ directory }) => directory)].map(([directory, group]) => {
    const requests = group.map(({ request }) => request)
    const base = `${evidence.site.base}${directory}/`
    return {
      key: `nested ${directory}`,
      severity: severityOf(requests),
      title: 'A build below the top requests its files at the top',
      impact: `${effectOf(requests)} That is so on the pages below ${base}.`,
      cause: `${counted(requests.length, 'file')} that pages of ${directory}/ request at ${evidence.site.base} ${requests.length === 1 ? 'is' : 'are'} in ${directory}/: that build was made for another base path than the directory it is served from.`,
      places: placesOf(requests),
      fix: [`Build what is in ${directory}/ with the base path ${base}, and put it there again.`],
      claims: requests,
    }
  })
}

/** The directory of the requesting page, where the file is below it; null where it is not, or where pages disagree. */
function directoryThatHolds({ pathname, places }: Request, { site, requested }: Evidence): string | null {
  if (!pathname.startsWith(site.base)) return null
  const path = safeDecode(pathname.slice(site.base.length))
  const found = new Set(
    places.map(({ file, reference }) => {
      if (!reference.raw.startsWith('/') && !/^https?:/i.test(reference.raw)) return null
      for (let at = directoryOf(file); at !== ''; at = directoryOf(at))
        if (requested.index.has(`${at}/index.html`) && requested.index.has(`${at}/${path}`)) return at
      return null
    }),
  )
  const [directory = null] = found
  return found.size === 1 ? directory : null
}
