import type { Site } from '../../model/site.ts'
import { safeDecode } from '../../model/text.ts'
import { encodePath } from '../../requests/addresses.ts'
import type { FolderIndex } from '../../requests/folder-index.ts'
import type { Request } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, placesOf } from '../check.ts'
import { effectOf, severityOf } from '../missing-files.ts'
import { setBase } from '../set-base.ts'

/** Relative URLs in a document that is also served deeper down. */
export const relativeAtDepth = defineCheck({
  code: 'base/relative-at-depth',
  severity: 'blocker',
  title: 'Relative URLs break on nested pages',
  keywords: ['relative URL', 'nested page', 'deep link', 'base href'],
  after: ['base/wrong-path', 'asset/withheld'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const withBase = new Set(evidence.facts.filter(({ baseHref }) => baseHref !== null).map(({ path }) => path))
  const broken = evidence.failing.filter((request) => isDisplaced(request, withBase, evidence))
  const first = broken[0]
  if (!first) return []
  const { survey } = evidence
  const from = first.places[0]?.from ?? ''
  const source = survey.basePath && 'file' in survey.basePath.from ? survey.basePath.from : null
  return [
    {
      key: 'relative',
      severity: severityOf(broken),
      impact: `${effectOf(broken)} That is so when ${from} is opened directly or reloaded.`,
      cause: `${first.places[0]?.file} requests its files by relative URLs, and is also served below its own directory.`,
      places: placesOf(broken),
      source,
      fix: setBase(evidence),
      claims: broken,
    },
  ]
}

/** The same URL, resolved where the document is, is a file. */
function isDisplaced(
  { places }: Request,
  withBase: ReadonlySet<string>,
  { requested, site }: Evidence,
): boolean {
  return places.every(({ file, reference: { raw, against } }) => {
    if (raw.startsWith('/') || /^[a-z]+:/i.test(raw) || withBase.has(file)) return false
    // What a script starts from the page is meant from the entry page.
    const own = against === 'page' ? site.address : site.address + encodePath(file)
    return isFile(raw, own, requested.index, site)
  })
}

function isFile(raw: string, base: string, index: FolderIndex, site: Site): boolean {
  const url = URL.canParse(raw, base) ? new URL(raw, base) : null
  return (
    url?.href.startsWith(site.address) === true && index.has(safeDecode(url.pathname.slice(site.base.length)))
  )
}
