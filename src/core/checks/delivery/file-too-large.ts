import { bytesInWords, counted } from '../../model/text.ts'
import type { Cause, Check, Evidence } from '../check.ts'

/** A file is larger than hosts take. */
export const fileTooLarge: Check = {
  code: 'delivery/file-too-large',
  severity: 'caution',
  title: 'A file is larger than hosts commonly take',
  keywords: ['file size', 'limit'],
  meaning:
    'Hosts of static sites refuse a file above a size of theirs, and the upload ends there, with or without a word. ' +
    'The usual bound is 25 MB; limits.file in the configuration sets another.',
  example: 'dist/films/harbour.mp4 has 61 MB.',
  fixes: {
    any: 'Compress the file, split it, or keep it on a storage of its own and link there. If your host takes more, say so with limits.file.',
  },
  after: [],
  run,
}

function run({ facts, limits, folder, site }: Evidence): Cause[] {
  const large = facts.filter(({ size }) => size > limits.file).sort((a, b) => b.size - a.size)
  const [first] = large
  if (!first) return []
  return [
    {
      key: 'file',
      impact: `Nothing of ${site.address} when the host stops the upload at ${first.path}, or a site without it.`,
      cause: `${counted(large.length, 'file')} of ${folder.name} ${large.length === 1 ? 'has' : 'have'} more than ${bytesInWords(limits.file)}: the largest is ${first.path} with ${bytesInWords(first.size)}.`,
      places: large.map(({ path }) => ({ file: path, offset: null, length: 0 })),
      fix: {
        steps: [
          'Compress or split the file, or keep it on a storage of its own.',
          'If your host takes files of this size, set limits.file in wardoscope.config.json, in bytes.',
        ],
      },
    },
  ]
}
