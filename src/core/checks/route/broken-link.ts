import { follow } from '../../host/answer.ts'
import { directoryOf } from '../../model/folder.ts'
import type { RouteAnswer } from '../../model/report.ts'
import { counted, groupedBy, safeDecode } from '../../model/text.ts'
import type { Link } from '../../requests/links.ts'
import { formOf } from '../../requests/routes.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { isThereWithOne } from '../merged-slashes.ts'

/** A link leads to nothing. */
export const brokenLink = defineCheck({
  code: 'route/broken-link',
  severity: 'blocker',
  title: 'A link leads to an error page',
  keywords: ['dead link', '404', 'link'],
  after: ['base/wrong-path', 'project/site-nested', 'project/needs-server', 'route/error-status'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { requested, host, site } = evidence
  const known = evidence.survey.routes.map(({ pattern }) => formOf(pattern))
  const isRoute = ({ pathname }: Link): boolean => {
    const path = `/${safeDecode(pathname.slice(site.base.length))}`
    return known.some((form) => form.test(path))
  }
  const broken = [...requested.links.values()].filter((link) => {
    if (link.pathname === site.base || isRoute(link) || isThereWithOne(link.pathname, evidence)) return false
    // A directory without its slash is sent on first, and may have no page then.
    return follow(host, site, requested.index, link.pathname).answer.status >= 400
  })
  const byPath = groupedBy(requested.routes, ({ path }) => path)
  const claimsOf = ({ pathname }: Link): readonly RouteAnswer[] => byPath.get(pathname) ?? []
  const grouped = groupedBy(broken, ({ pathname }) => directoryOf(pathname.replace(/\/$/, '')))
  return [...grouped].flatMap(([directory, links]): Cause[] => {
    const causes = links.map((link) => causeOf(link, evidence, claimsOf(link)))
    return links.length > many ? [together(`${directory}/`, causes)] : causes
  })
}

/** So many links below one path do not go wrong one by one. */
const many = 20

/** One cause of many: pages of a directory that were not built, or that are where their links do not lead. */
function together(directory: string, causes: readonly Cause[]): Cause {
  const [first] = causes
  if (!first) throw new RangeError('a cause is of one link at least')
  const count = causes.reduce((sum, cause) => sum + (cause.count ?? 0), 0)
  return {
    ...first,
    key: directory,
    title: 'Many links below one path lead to error pages',
    impact: `Error pages on the way to ${counted(causes.length, 'path')} below ${directory}, from ${counted(count, 'link')}. The first: ${first.impact}`,
    cause: `${first.cause} The others are like it.`,
    places: causes.flatMap(({ places = [] }) => places),
    count,
    claims: causes.flatMap(({ claims = [] }) => claims),
  }
}

function causeOf(
  { pathname, places, count }: Link,
  evidence: Evidence,
  claims: readonly RouteAnswer[],
): Cause {
  const { requested, host, site, folder } = evidence
  const { status } = follow(host, site, requested.index, pathname).answer
  const path = safeDecode(pathname.slice(site.base.length)).replace(/\/$/, '')
  const page = [`${path}.html`, `${path}/index.html`].find((file) => requested.index.has(file))
  const first = places[0]
  const source = first ? evidence.sources.find(first.reference.raw) : null
  return {
    // The same link is broken below every base path.
    key: `/${path}${pathname.endsWith('/') ? '/' : ''}`,
    severity: evidence.hostGiven ? 'blocker' : 'caution',
    impact: `An error page (${status}) on the way to ${pathname}, from ${counted(count, 'link')}.`,
    cause: page
      ? `${folder.name} holds ${page}, and the host "${host.name}" does not answer ${pathname} with it.`
      : `${folder.name} holds no page for ${pathname}.`,
    places: places.map(({ file, reference: { offset, length } }) => ({
      file,
      offset,
      length,
      request: site.origin + pathname,
      status,
    })),
    count,
    source,
    fix: page
      ? [
          'Link to the page as the host answers it, or serve it without its ending: then check with the host clean-urls.',
        ]
      : [
          `${source ? `In ${source.file}, line ${source.line}, correct` : 'Correct'} the link, or build the page it means.`,
          rebuild(evidence),
        ],
    claims,
  }
}
