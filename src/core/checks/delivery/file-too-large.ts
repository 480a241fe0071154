import { bytesInWords, counted } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** A file is larger than hosts take. */
export const fileTooLarge = defineCheck({
  code: 'delivery/file-too-large',
  severity: 'caution',
  title: 'A file is larger than hosts commonly take',
  keywords: ['file size', 'limit'],
  run,
})

function run({ facts, limits, folder, site }: Evidence): Cause[] {
  const large = facts.filter(({ size }) => size > limits.file).sort((a, b) => b.size - a.size)
  const [first] = large
  if (!first) return []
  return [
    {
      key: 'file',
      impact: `Nothing of ${site.address} when the host stops the upload at ${first.path}, or a site without it.`,
      cause: `${counted(large.length, 'file')} of ${folder.name} ${large.length === 1 ? 'has' : 'have'} more than ${bytesInWords(limits.file)}: the largest is ${first.path} with ${bytesInWords(first.size)}.`,
      places: large.map(({ path }) => path),
      fix: [
        'Compress or split the file, or keep it on a storage of its own.',
        'If your host takes files of this size, set limits.file in wardoscope.config.json, in bytes.',
      ],
    },
  ]
}
