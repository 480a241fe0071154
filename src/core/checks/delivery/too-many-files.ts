import { bytesInWords, grouped } from '../../model/text.ts'
import type { Cause, Check, Evidence } from '../check.ts'

/** The folder has more files, or more bytes, than hosts take. */
export const tooManyFiles: Check = {
  code: 'delivery/too-many-files',
  severity: 'caution',
  title: 'The folder holds more than hosts commonly take',
  keywords: ['number of files', 'limit'],
  meaning:
    'Hosts of static sites take so many files of one release, and so many bytes, and refuse the rest. The usual bounds are 20,000 ' +
    'files and 1 GB; limits.files and limits.total in the configuration set others.',
  example: 'dist has 31,400 files, 29,000 of them pictures of chart tiles.',
  fixes: {
    any: 'Keep what is not part of the site on a storage of its own. If your host takes more, say so with limits.files or limits.total.',
  },
  after: [],
  run,
}

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
      places: [{ file: directory || folder.path, offset: null, length: 0 }],
      fix: {
        steps: [
          `See whether all of ${directory || folder.path} belongs to the site, and keep what does not elsewhere.`,
          'If your host takes more, set limits.files or limits.total in wardoscope.config.json.',
        ],
      },
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
