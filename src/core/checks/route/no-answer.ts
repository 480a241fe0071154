import type { RouteAnswer } from '../../model/report.ts'
import { counted, listed, safeDecode } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { fallbackRules } from '../fallback-rules.ts'
import { routePlace } from '../route-place.ts'
import { areUnclear } from '../server-rules.ts'

/** A route that a visitor can open directly gets an error. */
export const noAnswer = defineCheck({
  code: 'route/no-answer',
  severity: 'blocker',
  title: 'Pages answer an error when opened directly',
  keywords: [
    'refresh on a deep link',
    'single-page fallback',
    'rewrite',
    '404',
    'history router',
    'try_files',
  ],
  after: [
    'project/misplaced',
    'project/needs-server',
    'project/site-nested',
    'route/error-status',
    'route/broken-link',
    'route/redirect-loop',
  ],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { unanswered, site, host, folder } = evidence
  if (!folder.present || evidence.facts.length === 0) return []
  const root = unanswered.find(({ path }) => path === site.base)
  const others = unanswered.filter((route) => route !== root)
  const causes: Cause[] = []
  if (root) causes.push(noEntry(root, evidence))
  else if (others.length > 0) {
    causes.push({
      key: 'routes',
      severity:
        evidence.hostGiven &&
        !areUnclear(
          others.map(({ path }) => path),
          evidence,
        )
          ? 'blocker'
          : 'caution',
      impact: `An error page (${others[0]?.status}) when ${others[0]?.path} is opened directly, shared or reloaded${others.length > 1 ? `, and on ${counted(others.length - 1, 'other route')}` : ''}.`,
      cause: host.server
        ? `The host "${host.name}" answers ${others[0]?.path} with ${others[0]?.status}: ${others[0]?.answeredBy}.`
        : `The host "${host.name}" has no file for ${others.length === 1 ? 'this route' : 'these routes'} and no rule for unknown paths${evidence.hostGiven ? '' : '; no host was named, so plain files are assumed'}.${withoutEnding(others, evidence)}`,
      places: others.map((route) => routePlace(route, evidence)),
      fix: { ...fallbackRules(evidence) },
    })
  }
  return causes
}

/** Pages that are there under their whole name, and only there. */
function withoutEnding(routes: readonly RouteAnswer[], { requested, site, folder }: Evidence): string {
  const page = routes
    .map(({ path }) => `${safeDecode(path.slice(site.base.length)).replace(/\/$/, '')}.html`)
    .find((file) => requested.index.has(file))
  return page
    ? ` ${folder.name} holds ${page}: a host that lets .html be left out would answer with it (the host clean-urls).`
    : ''
}

function noEntry(root: RouteAnswer, evidence: Evidence): Cause {
  const { folder, host, site } = evidence
  const below = sitesBelow(evidence)
  const [first] = below
  const pages = first
    ? `; its pages are in ${listed(below.map((name) => `${name}/`))}, one site for each`
    : ''
  return {
    key: 'entry',
    title: 'The site itself answers an error',
    impact: `An error page (${root.status}) at the site's own address.`,
    cause: `${folder.name} holds no ${host.directoryIndex}${pages}.`,
    places: [routePlace(root, evidence)],
    fix: first
      ? [
          `Have the host send ${site.base} on to ${site.base}${first}/ with status 302, or to the one that fits the visitor's language.`,
          `Where it can't: write ${folder.prefix}${host.directoryIndex} with  <meta http-equiv="refresh" content="0; url=${first}/">`,
        ]
      : [
          `Build so that ${folder.prefix}${host.directoryIndex} is written, or name the directory that holds it as the build folder.`,
          rebuild(evidence),
        ],
  }
}

/** Directories that each hold a site with its own base path, as a build for several languages writes them. */
function sitesBelow({ facts, site, host }: Evidence): string[] {
  return facts.flatMap(({ path, kind, baseHref }) => {
    const [directory = '', name, ...deeper] = path.split('/')
    const isEntry = kind === 'page' && name === host.directoryIndex && deeper.length === 0
    return isEntry && baseHref === `${site.base}${directory}/` ? [directory] : []
  })
}
