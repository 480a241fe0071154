import type { RouteAnswer } from '../../model/report.ts'
import { counted, listed, safeDecode } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { fallbackRules } from '../fallback-rules.ts'
import { routePlace } from '../route-place.ts'
import { areUnclear, mayBeAnswered } from '../server-rules.ts'

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

async function run(evidence: Evidence): Promise<Cause[]> {
  const { unanswered, site, host, folder, requested } = evidence
  if (!folder.present || evidence.facts.length === 0) return []
  const root = unanswered.find(({ path }) => path === site.base)
  if (root && !requested.index.has(host.directoryIndex))
    return [isLibrary(evidence) ? noPage(root, evidence) : noEntry(root, evidence)]
  const [first] = unanswered
  return first ? [await noRule(first, unanswered, evidence)] : []
}

async function noRule(
  first: RouteAnswer,
  routes: readonly RouteAnswer[],
  evidence: Evidence,
): Promise<Cause> {
  const { host, hostGiven } = evidence
  const paths = routes.map(({ path }) => path)
  const these = routes.length === 1 ? 'this route' : 'these routes'
  return {
    key: 'routes',
    severity:
      hostGiven && !areUnclear(paths, evidence) && !mayBeAnswered(evidence, first) ? 'blocker' : 'caution',
    impact: `An error page (${first.status}) when ${first.path} is opened directly, shared or reloaded${routes.length > 1 ? `, and on ${counted(routes.length - 1, 'other route')}` : ''}.`,
    cause: host.server
      ? `The host "${host.name}" answers ${first.path} with ${first.status}: ${first.answeredBy.replace(/^nothing: /, '')}.${mayBeAnswered(evidence, first) ? ' The configuration of the server itself is not at hand, and may say more.' : ''}`
      : `The host "${host.name}" has no file for ${these} and no rule for unknown paths${hostGiven ? '' : '; no host was named, so plain files are assumed'}.${withoutEnding(routes, evidence)}`,
    places: routes.map((route) => routePlace(route, evidence)),
    fix: await fallbackRules(evidence),
  }
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

/** What a build without pages is: code for other programs to import. */
function isLibrary({ facts }: Evidence): boolean {
  return facts.some(({ kind }) => kind === 'script') && !facts.some(({ kind }) => kind === 'page')
}

function noPage(root: RouteAnswer, evidence: Evidence): Cause {
  const { folder } = evidence
  return {
    key: 'library',
    title: 'The folder holds no page',
    impact: `Nothing but an error page (${root.status}): there is no page to open.`,
    cause: `${folder.name} holds scripts and no HTML file: it looks like the build of a library, which other programs import.`,
    places: [routePlace(root, evidence)],
    fix: [
      'Check the folder that holds the pages of the site: name it as the path.',
      `Where ${folder.name} should hold them: have the build write ${folder.prefix}index.html. ${rebuild(evidence)}`,
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
