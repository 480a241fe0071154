import { counted } from '../../model/text.ts'
import type { Cause, Check, Evidence } from '../check.ts'

/** Open pages of the earlier release request code that is gone. */
export const chunksGone: Check = {
  code: 'delivery/chunks-gone',
  severity: 'caution',
  title: 'Open pages will request code that is gone',
  keywords: ['chunk load error', 'ChunkLoadError', 'lazy chunk', 'open tab'],
  meaning:
    'A page that was opened before this release still runs the earlier program. When its visitor goes on, it requests a chunk by its old ' +
    'name, and the folder no longer has it. A service worker, and a page in a cache, do the same.',
  example:
    'A tab that was opened in the morning requests /assets/Sailings-BTVAno3I.js; since noon the folder has Sailings-Dk20xP1a.js.',
  fixes: {
    any: 'Keep the chunks of the last few releases beside the new ones, or load the page anew when a chunk does not arrive.',
    vite: 'Keep the old chunks, or listen for vite:preloadError on window and reload the page.',
  },
  after: [],
  run,
}

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
      fix: {
        steps: [
          'Leave the files of the last releases where they are for as long as people keep pages open: upload beside them, and clear away later.',
          'Or load the page anew when a chunk does not arrive.',
        ],
      },
    },
  ]
}
