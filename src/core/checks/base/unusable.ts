import { markerIn } from '../../model/marker.ts'
import type { Reference } from '../../model/reference.ts'
import { requestsIn } from '../../model/reference-list.ts'
import { counted, groupedBy } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** The first `<base>` of a page is of a scheme that no file of a site has. */
export const unusable = defineCheck({
  code: 'base/unusable',
  severity: 'blocker',
  title: "A page's relative URLs start from nowhere",
  keywords: ['<base>', 'base href', 'about:blank', 'file:'],
  run,
})

/** Browsers take these, or pass over them, and start from the page's own address (HTML standard, 4.2.3). */
const usual = /^(?:https?|data|javascript):$/

/** More places tell nobody more. */
const mostShown = 20

function run(evidence: Evidence): Cause[] {
  const { facts, site } = evidence
  const found = facts.flatMap(({ path, kind, baseHref, references }) => {
    const scheme = kind === 'page' ? schemeOf(baseHref, site.address) : null
    if (scheme === null || !hasRelative(requestsIn(references))) return []
    const base = [...references].find((each) => each.kind === 'base')
    return base ? [{ scheme, place: { file: path, offset: base.offset, length: base.length } }] : []
  })
  return [...groupedBy(found, ({ scheme }) => scheme)].map(([scheme, pages]) => ({
    key: scheme,
    impact: 'A bare page: what it names by relative URLs is not requested from this site.',
    cause: `${counted(pages.length, 'page')} ${pages.length === 1 ? 'begins its' : 'begin their'} relative URLs at an address of ${scheme}, by <base href>.`,
    places: pages.slice(0, mostShown).map(({ place }) => place),
    count: pages.length,
    fix: [`Write <base href="${site.base}"> there, or take the element away.`, rebuild(evidence)],
  }))
}

function schemeOf(baseHref: string | null, address: string): string | null {
  if (baseHref === null || markerIn(baseHref) !== null || !URL.canParse(baseHref, address)) return null
  const { protocol } = new URL(baseHref, address)
  return usual.test(protocol) ? null : protocol
}

/** A text that only looks like a file's name is requested by nobody. */
function hasRelative(references: Iterable<Pick<Reference, 'kind' | 'raw'>>): boolean {
  for (const { kind, raw } of references) if (kind !== 'named' && !URL.canParse(raw)) return true
  return false
}
