import { markerIn } from '../../model/marker.ts'
import { requestsIn } from '../../model/reference-list.ts'
import { counted } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'

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
  const groups = new Map<string, CausePlace[]>()
  for (const { path, kind, baseHref, references } of facts) {
    const scheme = kind === 'page' ? schemeOf(baseHref, site.address) : null
    if (scheme === null || !hasRelative(requestsIn(references))) continue
    const base = [...references].find((each) => each.kind === 'base')
    const place = base ? { file: path, offset: base.offset, length: base.length } : null
    if (place) groups.set(scheme, [...(groups.get(scheme) ?? []), place])
  }
  return [...groups].map(([scheme, places]) => ({
    key: scheme,
    impact: 'A bare page: what it names by relative URLs is not requested from this site.',
    cause: `${counted(places.length, 'page')} ${places.length === 1 ? 'begins its' : 'begin their'} relative URLs at an address of ${scheme}, by <base href>.`,
    places: places.slice(0, mostShown),
    count: places.length,
    fix: [`Write <base href="${site.base}"> there, or take the element away.`, rebuild(evidence)],
  }))
}

function schemeOf(baseHref: string | null, address: string): string | null {
  if (baseHref === null || markerIn(baseHref) !== null || !URL.canParse(baseHref, address)) return null
  const { protocol } = new URL(baseHref, address)
  return usual.test(protocol) ? null : protocol
}

function hasRelative(references: Iterable<{ readonly raw: string }>): boolean {
  for (const { raw } of references) if (!URL.canParse(raw)) return true
  return false
}
