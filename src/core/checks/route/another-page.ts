import { directoryOf } from '../../model/folder.ts'
import type { RouteAnswer } from '../../model/report.ts'
import { counted, groupedBy, listed, safeDecode } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A route has a page of its own, and the host answers it with another one. */
export const anotherPage = defineCheck({
  code: 'route/another-page',
  severity: 'blocker',
  title: 'A page of its own is answered with another page',
  keywords: ['fallback', 'prerendered', 'home page instead', 'clean urls', 'trailing slash'],
  after: ['project/needs-server', 'project/site-nested', 'project/not-built'],
  run,
})

function run(evidence: Evidence): Cause[] {
  return [...hiddenPages(evidence), ...ofInnerApplications(evidence)]
}

function hiddenPages(evidence: Evidence): Cause[] {
  const { requested, site, host, hostGiven } = evidence
  const hidden = requested.routes.flatMap((route) => {
    const page = ownPageOf(route, evidence)
    return page === null ? [] : [{ route, page }]
  })
  const [first] = hidden
  if (!first) return []
  const { path, entryFile } = first.route
  const several = hidden.length > 1
  return [
    {
      key: 'pages',
      // An application that starts from any page may draw the right one all the same.
      severity: hostGiven && !startsAnApplication(entryFile ?? '', evidence) ? undefined : 'caution',
      impact: `Whoever opens ${path}${several ? ` or ${counted(hidden.length - 1, 'more page')}` : ''} directly gets ${entryFile}, not ${several ? 'that page' : 'the page'}.`,
      cause: `The folder holds ${first.page} for ${path}; the host "${host.name}" does not take ${first.page} for a path without its ending, so its fallback answers with ${entryFile}.`,
      places: hidden.map(({ route, page }) => placeOf(route, page, site)),
      fix: [
        'Serve the folder with a host that lets .html be left out, and check with the host clean-urls; or have the build write each page as a directory with an index.html.',
        rebuild(evidence),
      ],
    },
  ]
}

/**
 * Several builds in one folder, a landing page at the top and `admin/` below: the fallback at the top answers paths that
 * belong to the application below.
 */
function ofInnerApplications(evidence: Evidence): Cause[] {
  const { requested, site, host, hostGiven } = evidence
  const lost = requested.routes.flatMap((route) => {
    const entry = innerEntryOf(route, evidence)
    return entry === null ? [] : [{ route, entry }]
  })
  return [...groupedBy(lost, ({ entry }) => entry)].map(([entry, group]) => {
    const paths = group.map(({ route }) => route.path)
    const directory = `${site.base}${directoryOf(entry)}/`
    return {
      key: `inner ${entry}`,
      severity: hostGiven ? undefined : 'caution',
      title: 'A path of one application is answered with the page of another',
      impact: `Whoever opens ${listed(paths.slice(0, 3))} directly gets ${group[0]?.route.entryFile}, not the application in ${directory}.`,
      cause: `${entry} is the entry page of an application of its own; the fallback of the host "${host.name}" answers what is not a file below it with the page at the top.`,
      places: group.map(({ route }) => placeOf(route, entry, site)),
      fix: [
        `Give the host a rule of its own that answers unknown paths below ${directory} with ${directory}index.html and status 200, before the one for all paths.`,
      ],
    }
  })
}

/** The entry page of the nearest application that a path is below, where the page at the top answers it. */
function innerEntryOf({ path, by, entryFile }: RouteAnswer, evidence: Evidence): string | null {
  const { requested, site } = evidence
  if (by !== 'fallback' || entryFile === null || !path.startsWith(site.base)) return null
  const plain = safeDecode(path.slice(site.base.length))
  for (let at = directoryOf(plain); at !== ''; at = directoryOf(at)) {
    const entry = `${at}/index.html`
    if (requested.index.has(entry)) return isAnother(entry, entryFile, evidence) ? entry : null
  }
  return null
}

/** Whether two pages start different applications: pages of one build load a script that both have. */
function isAnother(entry: string, outer: string, { requested }: Evidence): boolean {
  const scriptsOf = (page: string): string[] =>
    [...(requested.loads.get(page) ?? [])].filter((file) => /\.[cm]?js$/.test(file))
  const [own, others] = [scriptsOf(entry), new Set(scriptsOf(outer))]
  const below = `${directoryOf(entry)}/`
  return own.some((file) => file.startsWith(below)) && !own.some((file) => others.has(file))
}

function placeOf({ path, status }: RouteAnswer, file: string, site: Evidence['site']): CausePlace {
  return { file, offset: null, length: 0, request: site.origin + path, status }
}

/** The page that a path means, where something else answers it. */
function ownPageOf({ path, by, entryFile }: RouteAnswer, { requested, site }: Evidence): string | null {
  if (by !== 'fallback' || !path.startsWith(site.base)) return null
  const plain = safeDecode(path.slice(site.base.length)).replace(/\/$/, '')
  const page = `${plain}.html`
  return plain !== '' && page !== entryFile && requested.index.has(page) ? page : null
}

function startsAnApplication(entry: string, { requested }: Evidence): boolean {
  return [...(requested.loads.get(entry) ?? [])].some((file) => /\.[cm]?js$/.test(file))
}
