// The table of docs/performance.md: processor time of whole processes, as ratios to public tools on the same bytes in one run.
// npm run bench:table            all rows, medians of three rounds
// npm run bench:table -- 5 small more rounds, and only rows whose name holds a word
// The real builds are those that npm run foreign has fetched; without them their rows are left out.
import { spawnSync } from 'node:child_process'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { homedir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildLibraries } from './inputs/libraries.mjs'
import { makePages, small } from './inputs/pages.mjs'
import { makeProjects } from './inputs/projects.mjs'
import { bin, median, sizeOf } from './measure.mjs'

const here = (file) => fileURLToPath(new URL(file, import.meta.url))
const caches = join(homedir(), '.cache')
const cache = process.env.WARDOSCOPE_BENCH ?? join(caches, 'wardoscope-bench')
const [first, ...words] = process.argv.slice(2)
const rounds = /^\d+$/.test(first ?? '') ? Number(first) : 3
const wanted = /^\d+$/.test(first ?? '') ? words : process.argv.slice(2)
// Below the home directory: compiled code is kept nowhere else.
mkdirSync(caches, { recursive: true })
const own = mkdtempSync(join(caches, 'wardoscope-bench-'))
mkdirSync(cache, { recursive: true })
const isWanted = (name) => wanted.length === 0 || wanted.some((word) => name.includes(word))

console.log(`Node ${process.versions.node}, medians of ${rounds} rounds, processor time of all threads`)
const demo = here('../dist/demo/sound')
row('demo', () => [empty(), check(demo)])
row('small pages, 25,000, cold', () => cold(makePages(cache, 25_000, small)))
row('small pages, 100,000, cold', () => cold(makePages(cache, 100_000, small)))
row('bundled JavaScript, 30 MB, cold', () => cold(buildLibraries(cache)))
row('survey of a repository of 300 projects', () => {
  const root = makeProjects(cache, 300)
  return [
    ['node', here('list.mjs'), root],
    ['node', bin, 'survey', root],
  ]
})
row('check of all of 300 projects', () => {
  const root = makeProjects(cache, 300)
  return [reading(root), ['node', bin, '--all', root, '--no-cache']]
})
for (const { name, folder } of largestBuilds(10)) {
  row(`${name}, cold`, () => cold(folder))
  row(`${name}, warm`, () => [reading(folder), check(folder)])
  row(`${name}, one script changed`, () => changing(folder))
}
rmSync(own, { recursive: true, force: true })

function empty() {
  return ['node', '-e', '0']
}

function reading(folder) {
  return ['node', here('read-and-hash.mjs'), folder]
}

function cold(folder) {
  return [reading(folder), check(folder, '--no-cache')]
}

function check(folder, ...more) {
  return [
    'node',
    bin,
    'check',
    folder,
    '--site',
    'https://skerryline.example/crossings/',
    '--host',
    'files',
    ...more,
  ]
}

/** A copy whose first script is another one before each run. */
function changing(folder) {
  const copy = join(own, 'copy')
  rmSync(copy, { recursive: true, force: true })
  cpSync(folder, copy, { recursive: true })
  const script = readdirSync(copy, { recursive: true }).find((path) => path.endsWith('.js'))
  if (script === undefined) return null
  const text = readFileSync(join(copy, script), 'utf8')
  let turn = 0
  const before = () => writeFileSync(join(copy, script), `${text}\n//${turn++}`)
  return [reading(copy), check(copy), before]
}

/** Runs the unit and the program in turn, and prints their ratio. */
function row(name, make) {
  if (!isWanted(name)) return
  const made = make()
  if (made === null) return
  const [unit, program, before = () => {}] = made
  const times = { unit: [], program: [] }
  let peak = 0
  for (let round = 0; round <= rounds; round++) {
    before()
    const [base, ours] = [seconds(unit), seconds(program)]
    // What is refused is measured by nobody; a repository of several projects is surveyed all the same.
    if (ours.status > 1 && !name.startsWith('survey')) {
      console.log(`${name.padEnd(58)} not measured: exit status ${ours.status}`)
      return
    }
    if (round === 0) continue
    times.unit.push(base.seconds)
    times.program.push(ours.seconds)
    peak = Math.max(peak, ours.megabytes)
  }
  const [base, ours] = [median(times.unit), median(times.program)]
  console.log(
    `${name.padEnd(58)} ${(ours / base).toFixed(1).padStart(6)} ×  ${ours.toFixed(2).padStart(7)} s against ${base.toFixed(2)} s  ${peak.toFixed(0).padStart(5)} MB`,
  )
}

/** Processor seconds and peak memory of a process, by the shell's own count. */
function seconds([command, ...args]) {
  const ran = spawnSync(
    'bash',
    [
      '-c',
      'TIMEFORMAT="%U %S"; time "$0" "$@" >/dev/null 2>"$WARDOSCOPE_ERR"',
      command,
      ...(command === 'node' ? ['--require', here('peak.cjs')] : []),
      ...args,
    ],
    {
      encoding: 'utf8',
      env: {
        ...process.env,
        XDG_CACHE_HOME: own,
        PEAK_FILE: join(own, 'peak'),
        WARDOSCOPE_ERR: join(own, 'err'),
      },
    },
  )
  const [user = Number.NaN, system = Number.NaN] = ran.stderr.trim().split(' ').map(Number)
  if (ran.status === null || ran.status > 3)
    throw new Error(`${command} ${args.join(' ')}: ${readFileSync(join(own, 'err'), 'utf8')}`)
  const peak = command === 'node' ? Number(readFileSync(join(own, 'peak'), 'utf8')) / 1024 : 0
  return { seconds: user + system, megabytes: peak, status: ran.status }
}

/** The largest builds that were fetched from the registry. */
function largestBuilds(count) {
  const kept = join(process.env.WARDOSCOPE_CORPUS ?? join(caches, 'wardoscope-corpus'), '.foreign')
  const builds = JSON.parse(readFileSync(here('../corpus/foreign.json'), 'utf8'))
  return builds
    .map(({ package: name, folder }) => ({ name, folder: join(kept, name.replaceAll('/', '+'), folder) }))
    .filter(({ folder }) => existsSync(folder))
    .map((build) => ({ ...build, bytes: sizeOf(build.folder).bytes }))
    .sort((a, b) => b.bytes - a.bytes)
    .slice(0, count)
}
