// How the work grows with its input: each construction at three sizes, each twice the one before, by processor time.
// npm run growth [part of a name]. An exponent above 1.2 at two doublings is a defect.
import { check, MemoryFolder, parseSite, presetNamed } from '../dist/core/index.js'
import { constructions } from './inputs/constructions.mjs'

const wanted = process.argv[2] ?? ''
const least = 20
const slowest = 20_000
const steepest = 1.2
let defects = 0

for (const [name, { size, folder }] of Object.entries(constructions)) {
  if (!name.includes(wanted)) continue
  const { times, broken } = await measured(size, folder)
  const last = times.at(-1) ?? 0
  const isMeasured = last > 4 * least
  const exponent = Math.log2(last / times[0]) / (times.length - 1)
  const isDefect = broken !== null || last > slowest || (isMeasured && exponent > steepest)
  if (isDefect) defects++
  const shown = times.map((time) => `${Math.round(time)} ms`.padStart(9)).join('')
  const said = broken ?? (isMeasured ? exponent.toFixed(2) : '-')
  console.log(`${isDefect ? 'DEFECT' : 'ok    '} ${name.padEnd(46)} ${shown}  ${said}`)
}
console.log(`${defects} defects`)
process.exitCode = defects > 0 ? 1 : 0

async function measured(size, folder) {
  const times = []
  try {
    for (const factor of [1, 2, 4]) {
      const files = folder(size * factor)
      times.push(Math.min(await timed(files), await timed(files)))
      if (times.at(-1) > slowest) break
    }
    return { times, broken: null }
  } catch (error) {
    return { times, broken: `${error.name}: ${error.message.slice(0, 60)}` }
  }
}

/** Processor time of one check of a folder in memory; milliseconds. */
async function timed(files) {
  const started = process.cpuUsage()
  await check(new MemoryFolder(files), {
    site: parseSite('https://skerryline.example/b/'),
    host: presetNamed('fallback'),
  })
  const { user, system } = process.cpuUsage(started)
  return (user + system) / 1000
}
