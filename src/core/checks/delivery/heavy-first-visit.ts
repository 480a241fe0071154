import { bytesInWords, counted } from '../../model/text.ts'
import { downloaded } from '../../release/weight.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** Opening a route downloads more than a visitor waits for. */
export const heavyFirstVisit = defineCheck({
  code: 'delivery/heavy-first-visit',
  severity: 'caution',
  title: 'A first visit downloads a great deal',
  keywords: ['bundle size', 'performance', 'first load'],
  run,
})

/** Texts shrink to a third and less on their way; where nobody compressed them, so much more is let pass. */
function boundOf({ gzip }: { readonly gzip: number | null }, bound: number): number {
  return gzip === null ? bound * 3 : bound
}

function run({ delivery: { firstVisit }, limits }: Evidence): Cause[] {
  const heavy = firstVisit
    .filter((visit) => downloaded(visit) > boundOf(visit, limits.firstVisit))
    .sort((a, b) => downloaded(b) - downloaded(a))
  const [first] = heavy
  if (!first) return []
  const parts = [...first.kinds].sort((a, b) => downloaded(b) - downloaded(a)).slice(0, 2)
  const reported = parts.map(
    (part) => `${bytesInWords(downloaded(part))} in ${counted(part.files, `${part.kind} file`)}`,
  )
  const how = first.gzip === null ? '' : ' compressed'
  return [
    {
      key: 'first visit',
      impact: `A long wait: opening ${first.route} downloads ${bytesInWords(downloaded(first))}${how}.`,
      cause: `${counted(first.files, 'file')} load before anybody does anything, ${reported.join(' and ')}; the bound is ${bytesInWords(boundOf(first, limits.firstVisit))}.`,
      places: heavy.map(({ entryFile }) => entryFile),
      fix: [
        'Let what is not seen at once load when it is needed: loading="lazy" on pictures, import() for parts of the program.',
        'If this weight is meant, set limits.firstVisit in wardoscope.config.json, in bytes.',
      ],
    },
  ]
}
