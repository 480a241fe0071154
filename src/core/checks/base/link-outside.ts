import { follow } from '../../host/answer.ts'
import { withoutQuery } from '../../model/reference.ts'
import { counted, groupedBy } from '../../model/text.ts'
import type { Link } from '../../requests/links.ts'
import { type Cause, type CauseFix, defineCheck, type Evidence, rebuild } from '../check.ts'
import { correctByHand, type WrittenUrl } from './by-hand.ts'

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
  const meant = [...requested.beside.values()].filter((link) => isBelow(link, evidence))
  // What only a feed lists is a matter of the whole build's address.
  const pages = new Set(evidence.facts.filter(({ kind }) => kind !== 'feed').map(({ path }) => path))
  const leading = meant.filter(({ places }) => places.some(({ file }) => pages.has(file)))
  // A build for another base path has all its links there: but for those that stay as they are written, that is one cause.
  const isForAnother = requested.observed !== null && requested.observed.base !== site.base
  const links = isForAnother ? await keptLinks(leading, evidence) : await ofProject(leading, evidence)
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

/** The element that a browser follows, a link of Markdown, or what sends a visitor on; a component of the same attribute may add the base path by itself. */
const plainLink =
  /<(?:a|area|form|link)\s(?:[^<>]|=>)*\b(?:href|action)\s*=\s*(?:["']?|\{\s*["'`])$|\]\(\s*<?$|\]:\s*<?$|\blocation(?:\.href)?\s*=\s*["'`]$|\blocation\.(?:assign|replace)\(\s*["'`]$|\bopen\(\s*["'`]$/

/** Of links in a build for another base path, those that a build for the right one leaves as they are. */
async function keptLinks(links: readonly Link[], evidence: Evidence): Promise<Link[]> {
  if (evidence.survey.definition?.fixes.rebasesLinks) return []
  const written = linksWritten(evidence)
  const kept: Link[] = []
  for (const link of links) {
    if (kept.length >= mostKept) break
    const isWritten = writtenIn([link], evidence).every(({ url }) => written.has(withoutQuery(url)))
    if (isWritten && (await byHand([link], evidence))) kept.push(link)
  }
  return kept
}

/** Libraries send visitors on as well: where only scripts do, a source of the project has to write it. */
async function ofProject(links: readonly Link[], evidence: Evidence): Promise<Link[]> {
  const pages = new Set(evidence.facts.filter(({ kind }) => kind !== 'script').map(({ path }) => path))
  const own: Link[] = []
  for (const link of links) {
    const isShown = link.places.some(({ file }) => pages.has(file))
    if (isShown || (own.length < mostKept && (await byHand([link], evidence)))) own.push(link)
  }
  return own
}

/** More are a matter of a search: each is looked for in all sources. */
const mostKept = 100

/** The URLs of links as pages write them; what only a feed lists follows the address of the whole build. */
function writtenIn(links: readonly Link[], { facts }: Evidence): WrittenUrl[] {
  const feeds = new Set(facts.filter(({ kind }) => kind === 'feed').map(({ path }) => path))
  return links.flatMap(({ places }) =>
    places.flatMap(({ file, reference: { raw } }) => (feeds.has(file) ? [] : [{ file, url: raw }])),
  )
}

/** Links from the top of the host that sources write out, in markup or in Markdown. */
function linksWritten({ sources }: Evidence): ReadonlySet<string> {
  const found = new Set<string>()
  for (const text of sources.texts.values()) for (const [, url = ''] of text.matchAll(anyLink)) found.add(url)
  return found
}

const anyLink =
  /(?:\b(?:href|action|location)\s{0,3}=\s{0,3}(?:\{\s{0,3})?["'`]?|\b(?:assign|replace|open)\(\s{0,3}["'`]|\]\(<?|\]:[ \t]<?)(\/[^\s"'`<>?#)}]*)/g

/** Null where one of the links is written in another way, so that there is more to do than these edits. */
async function byHand(links: readonly Link[], evidence: Evidence): Promise<CauseFix | null> {
  const written = writtenIn(links, evidence)
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
