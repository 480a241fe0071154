import { counted } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** Open pages of the earlier release request code that is gone. */
export const chunksGone = defineCheck({
  code: 'delivery/chunks-gone',
  severity: 'caution',
  title: 'Open pages will request code that is gone',
  keywords: ['chunk load error', 'ChunkLoadError', 'lazy chunk', 'open tab'],
  run,
})

function run({ comparison, site }: Evidence): Cause[] {
  const gone = comparison?.chunksGone ?? []
  const [first] = gone
  if (first === undefined) return []
  return [
    {
      key: 'chunks',
      impact: `Whoever has a page of the earlier release open: a part of it does not open when they go there, as ${first} is gone.`,
      cause: `${counted(gone.length, 'file')} that scripts of the earlier release request later ${gone.length === 1 ? 'is' : 'are'} not in this one.`,
      places: gone.map((file) => ({ file, offset: null, length: 0, request: site.address + file })),
      fix: [
        'Leave the files of the last releases where they are for as long as people keep pages open: upload beside them, and clear away later.',
        'Or load the page anew when a chunk does not arrive.',
      ],
    },
  ]
}
