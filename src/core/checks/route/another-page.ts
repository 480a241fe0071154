import type { RouteAnswer } from '../../model/report.ts'
import { counted, safeDecode } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

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
      places: hidden.map(({ route, page }) => ({
        file: page,
        offset: null,
        length: 0,
        request: site.origin + route.path,
        status: route.status,
      })),
      fix: [
        'Serve the folder with a host that lets .html be left out, and check with the host clean-urls; or have the build write each page as a directory with an index.html.',
        rebuild(evidence),
      ],
    },
  ]
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
