import { isLoopback } from '../../model/address.ts'
import type { ReferenceKind } from '../../model/reference.ts'
import { counted } from '../../model/text.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** What browsers still show of plain http, after requesting it by https first (Mixed Content, W3C, "upgradeable"). */
const upgraded = new Set<ReferenceKind>(['image', 'media', 'icon'])

/** A page of an https site requests parts of itself by plain http. */
export const insecure = defineCheck({
  code: 'asset/insecure',
  severity: 'blocker',
  title: 'Parts of the page are requested by plain http',
  keywords: ['mixed content', 'https', 'http'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const groups = new Map<string, RequestPlace[]>()
  for (const place of evidence.requested.insecure) {
    const url = URL.canParse(place.reference.raw) ? new URL(place.reference.raw) : null
    // The browser trusts its own machine; that nobody else's answers is a finding of its own.
    if (!url || isLoopback(url.hostname)) continue
    const key = `${url.origin} ${upgraded.has(place.reference.kind) ? 'upgraded' : 'blocked'}`
    groups.set(key, [...(groups.get(key) ?? []), place])
  }
  return [...groups].map(([key, places]) => causeOf(key, places, evidence))
}

function causeOf(key: string, places: readonly RequestPlace[], evidence: Evidence): Cause {
  const [origin = '', how] = key.split(' ')
  const source = evidence.sources.find(places[0]?.reference.raw ?? '') ?? evidence.sources.find(origin)
  const where = source ? `In ${source.file}, line ${source.line}, write` : 'Write'
  const secured = origin.replace('http:', 'https:')
  const edits = evidence.sources
    .findAll(origin)
    .map(({ file, line, column }) => ({ file, line, column, instead: origin, write: secured }))
  return {
    key,
    severity: how === 'upgraded' ? 'caution' : undefined,
    impact:
      how === 'upgraded'
        ? 'Pictures or films may stay empty: the browser requests them by https, which nobody may answer.'
        : `The browser blocks ${counted(places.length, 'part')} of the page.`,
    cause: `The site is https, and ${origin} is requested by plain http.`,
    places: places.map(({ file, reference: { offset, length, raw } }) => ({
      file,
      offset,
      length,
      request: raw,
    })),
    source,
    fix: {
      steps: [
        `${where} ${secured}${edits.length > 1 ? `, and so at ${counted(edits.length - 1, 'other place')}` : ''}, once that answers.`,
        rebuild(evidence),
      ],
      edits,
    },
  }
}
