// Writes the table of a corpus run for the docs.
import { readFile, writeFile } from 'node:fs/promises'

export async function writeTable(path, results, notes) {
  const projects = [...new Set(results.map(({ project }) => project))]
  const rows = projects.map((project) => {
    const own = results.filter((result) => result.project === project)
    const sum = (key) => own.reduce((total, result) => total + (result[key] ?? 0), 0)
    const falseAlarms = own
      .flatMap(({ wrong }) => wrong)
      .filter((line) => line.includes('false alarm')).length
    const missed = own.flatMap(({ wrong }) => wrong).filter((line) => line.includes('was missed')).length
    const removed = own.find((result) => result.removed)?.removed
    const turn = removed ? `${removed.found} of ${removed.requested}` : ''
    const pending = [...new Set(own.flatMap((result) => result.pending))].join(', ')
    const version = own.find((result) => result.version)?.version ?? ''
    const median = (key) =>
      own.map((result) => result[key] ?? 0).sort((a, b) => a - b)[Math.floor(own.length / 2)] ?? 0
    return `| ${own[0].title} | ${version} | ${own.length} | ${sum('readingsRight')} of ${sum('readings')} | ${missed} | ${falseAlarms} | ${turn} | ${pending || 'none'} | ${median('buildSeconds').toFixed(1)} | ${median('checkSeconds').toFixed(2)} |`
  })
  const details = results.map(
    ({ project, variant, found, pending, wrong }) =>
      `| ${project} | ${variant} | ${found.join(', ') || 'clear'} | ${pending.join(', ')} | ${wrong.length === 0 ? 'as expected' : 'not as expected'} |`,
  )
  const before = await readFile(path, 'utf8').catch(() => '')
  const all = keepOthers(rowsBelow(before, '| framework |'), rows, 1)
  const allDetails = keepOthers(rowsBelow(before, '| project |'), details, 2)
  const dates = [...new Set(results.map(({ date }) => date))].sort()
  const nodes = [...new Set(results.map(({ node }) => node))].join(', ')
  await writeFile(
    path,
    `${[
      '# Frameworks',
      '',
      'Every row is a small project of our own in `corpus/`, built for real by the framework named, in several variants:',
      'sound, and with the faults people ship. `npm run corpus` builds all of them, `npm run corpus -- --table` writes this page.',
      '',
      `Last built: ${dates.join(' to ')}, Node ${nodes}. Seconds are medians over the variants, on two cores.`,
      '',
      '| framework | version | variants | readings right | missed | false alarms | taken away and missed by name | checks still to come | build s | check s |',
      '| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |',
      ...all,
      '',
      'Every file of each sound build, up to 60, is taken away in turn: one that is needed must be missed by name, and of one',
      'that nothing requests them for nothing may be said.',
      '',
      '## Notes',
      '',
      ...[...notes].sort().map(([title, note]) => `- ${title}: ${note}`),
      '',
      'Installed versions are the ones pinned in each project; what they depend on in turn is whatever the registry gives.',
      '',
      '## Variants',
      '',
      '| project | variant | found | check still to come | result |',
      '| --- | --- | --- | --- | --- |',
      ...allDetails,
    ].join('\n')}\n`,
  )
}

/** The rows of the table that begins with this head, in a page written before. */
function rowsBelow(page, head) {
  const [, table = ''] = page.split(`\n${head}`)
  const [, , ...lines] = table.split('\n')
  const end = lines.findIndex((line) => !line.startsWith('|'))
  return end < 0 ? lines : lines.slice(0, end)
}

/** New rows in place of the old ones of the same first cells; what was not built this time keeps its row. */
function keepOthers(before, now, cells) {
  const keyOf = (row) =>
    row
      .split('|')
      .slice(1, cells + 1)
      .join('|')
  const rows = new Map([...before, ...now].map((row) => [keyOf(row), row]))
  return [...rows].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, row]) => row)
}
