// Writes the table of a corpus run for the docs.
import { writeFile } from 'node:fs/promises'

export async function writeTable(path, results) {
  const projects = [...new Set(results.map(({ project }) => project))]
  const rows = projects.map((project) => {
    const own = results.filter((result) => result.project === project)
    const sum = (key) => own.reduce((total, result) => total + (result[key] ?? 0), 0)
    const falseAlarms = own
      .flatMap(({ wrong }) => wrong)
      .filter((line) => line.includes('false alarm')).length
    const missed = own.flatMap(({ wrong }) => wrong).filter((line) => line.includes('was missed')).length
    const pending = [...new Set(own.flatMap((result) => result.pending))].join(', ')
    const version = own.find((result) => result.version)?.version ?? ''
    const median = (key) =>
      own.map((result) => result[key] ?? 0).sort((a, b) => a - b)[Math.floor(own.length / 2)] ?? 0
    return `| ${own[0].title} | ${version} | ${own.length} | ${sum('readingsRight')} of ${sum('readings')} | ${missed} | ${falseAlarms} | ${pending || 'none'} | ${median('buildSeconds').toFixed(1)} | ${median('checkSeconds').toFixed(2)} |`
  })
  const details = results.map(
    ({ project, variant, found, pending, wrong }) =>
      `| ${project} | ${variant} | ${found.join(', ') || 'clear'} | ${pending.join(', ')} | ${wrong.length === 0 ? 'as expected' : 'not as expected'} |`,
  )
  const date = new Date().toISOString().slice(0, 10)
  await writeFile(
    path,
    `${[
      '# Frameworks',
      '',
      'Every row is a small project of our own in `corpus/`, built for real by the framework named, in several variants:',
      'sound, and with the faults people ship. `npm run corpus -- --docs` runs all and writes this page.',
      '',
      `Last full run: ${date}, Node ${process.versions.node}. Seconds are medians over the variants, on two cores.`,
      '',
      '| framework | version | variants | readings right | missed | false alarms | judges still to come | build s | check s |',
      '| --- | --- | --- | --- | --- | --- | --- | --- | --- |',
      ...rows,
      '',
      '## Variants',
      '',
      '| project | variant | found | judge still to come | result |',
      '| --- | --- | --- | --- | --- |',
      ...details,
    ].join('\n')}\n`,
  )
}
