import { bytesInWords, grouped } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** The folder has more files, or more bytes, than hosts take. */
export const tooManyFiles = defineCheck({
  code: 'delivery/too-many-files',
  severity: 'caution',
  title: 'The folder holds more than hosts commonly take',
  keywords: ['number of files', 'limit'],
  run,
})

function run({ facts, limits, folder, delivery }: Evidence): Cause[] {
  const over = [
    facts.length > limits.files
      ? `${grouped(facts.length)} files, and ${grouped(limits.files)} are the bound`
      : '',
    delivery.bytes > limits.total
      ? `${bytesInWords(delivery.bytes)}, and ${bytesInWords(limits.total)} are the bound`
      : '',
  ].filter((text) => text !== '')
  if (over.length === 0) return []
  const [directory, count] = fullest(facts.map(({ path }) => path))
  return [
    {
      key: 'folder',
      impact: 'The site of before, or half of the new one, when the host refuses what is above its bound.',
      cause: `${folder.name} has ${over.join('; and ')}. ${grouped(count)} of the files are in ${directory || 'its top directory'}.`,
      places: [directory || folder.path],
      fix: [
        `See whether all of ${directory || folder.path} belongs to the site, and keep what does not elsewhere.`,
        'If your host takes more, set limits.files or limits.total in wardoscope.config.json.',
      ],
    },
  ]
}

/** The first directory of the paths that holds most of them. */
function fullest(paths: readonly string[]): [directory: string, files: number] {
  const counts = new Map<string, number>()
  for (const path of paths) {
    const top = path.includes('/') ? path.slice(0, path.indexOf('/')) : ''
    counts.set(top, (counts.get(top) ?? 0) + 1)
  }
  return [...counts].reduce((most, each) => (each[1] > most[1] ? each : most), ['', 0])
}
