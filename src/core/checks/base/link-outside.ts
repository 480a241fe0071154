import { follow } from '../../host/answer.ts'
import { counted, groupedBy } from '../../model/text.ts'
import type { Link } from '../../requests/links.ts'
import { type Cause, type CauseFix, defineCheck, type Evidence, rebuild } from '../check.ts'
import { correctByHand } from './by-hand.ts'

/** Links that leave the base path out lead to another site of the same host, or to nothing. */
export const linkOutside = defineCheck({
  code: 'base/link-outside',
  severity: 'blocker',
  title: 'Links leave out the base path',
  keywords: ['absolute link', 'href', 'sub-path', '404'],
  after: ['base/wrong-path', 'base/another-address', 'project/needs-server', 'project/not-built'],
  run,
})

async function run(evidence: Evidence): Promise<Cause[]> {
  const { requested, site } = evidence
  if (site.base === '/') return []
  // A build for another base path has all its links there: that is one cause, and not this one.
  if (requested.observed !== null && requested.observed.base !== site.base) return []
  const meant = [...requested.beside.values()].filter((link) => isBelow(link, evidence))
  // What only a feed lists is a matter of the whole build's address.
  const pages = new Set(evidence.facts.filter(({ kind }) => kind !== 'feed').map(({ path }) => path))
  const links = meant.filter(({ places }) => places.some(({ file }) => pages.has(file)))
  // The top of the host may be meant, so that another one tells more.
  const first = links.find(({ pathname }) => pathname !== '/') ?? links[0]
  if (!first) return []
  const count = links.reduce((sum, link) => sum + link.count, 0)
  const place = first.places[0]
  const source = place ? evidence.sources.find(place.reference.raw) : null
  const write = site.base + first.pathname.slice(1)
  const kind = /\.(?!html?$)\w+$/.test(first.pathname) ? 'file' : 'page'
  return [
    {
      key: 'links',
      // The top of the host may be meant: the page that this site belongs to.
      severity: links.every(({ pathname }) => pathname === '/') ? 'caution' : undefined,
      impact: `${counted(count, 'link')} ${count === 1 ? 'leads' : 'lead'} out of this site: ${first.pathname} is not below ${site.base}, and is answered by somebody else or by nobody.`,
      cause: `${links.length === 1 ? `It is a ${kind}` : `They are ${kind}s`} of this folder: ${first.pathname} is ${write} here.`,
      places: links.flatMap(({ pathname, places }) =>
        places.map(({ file, reference: { offset, length } }) => ({
          file,
          offset,
          length,
          request: site.origin + pathname,
        })),
      ),
      count,
      source,
      fix: (await byHand(links, evidence)) ?? [
        `${source ? `In ${source.file}, line ${source.line}, write` : 'Write'} the link with the base path, ${write}, or relative to the page; where a framework has a link component or a helper for the base path, use that.`,
        rebuild(evidence),
      ],
    },
  ]
}

/** The element that a browser follows; a component of the same attribute may add the base path by itself. */
const plainLink = /<(?:a|area|form|link)\s(?:[^<>]|=>)*\b(?:href|action)\s*=\s*(?:["']?|\{\s*["'`])$/

/** Null where one of the links is written in another way, so that there is more to do than these edits. */
async function byHand(links: readonly Link[], evidence: Evidence): Promise<CauseFix | null> {
  const written = links.flatMap(({ places }) =>
    places.map(({ file, reference: { raw } }) => ({ file, url: raw })),
  )
  const correct = (urls: typeof written): Promise<CauseFix> =>
    correctByHand(urls, '/', evidence, (before) => plainLink.test(before))
  for (const [url, own] of groupedBy(written, ({ url }) => url))
    if (!url.startsWith('/') || ((await correct(own)).edits ?? []).length === 0) return null
  return correct(written)
}

/** Files that stand at the top of a host for all of its sites. */
const ofHost =
  /^\/(?:(?:robots|humans|(?:app-)?ads|security|llms)\.txt|favicon\.ico|sitemap[\w-]*\.xml(?:\.gz)?|\.well-known\/.*)$/

/** Whether the same path below the base path is a page or file of its own here. */
function isBelow({ pathname }: Link, { host, site, requested, survey }: Evidence): boolean {
  const { answer } = follow(host, site, requested.index, site.base + pathname.slice(1))
  if (answer.status >= 400 || answer.file === null) return false
  if (answer.by !== 'fallback') return !ofHost.test(pathname)
  return survey.routes.some(({ pattern }) => pattern === pathname)
}
