// Builds the corpus for real and checks every variant: are the readings right, are the findings exactly those expected?
// npm run corpus                 all frameworks
// npm run corpus -- vite-react   some of them
//   --ci        the frameworks and variants that continuous integration builds
//   --browser  visits every build in a real browser too: nothing else may be found than without it
//   --minutes=N starts no build after so many minutes, and says how many were left out
//   --rebuild   builds again what was built before; without it, a variant whose sources are the same is only checked
//   --fixes     makes the edits of every faulty variant, builds it again and checks it
//   --table     builds nothing: writes docs/frameworks.md from the last result of every project
// Packages are installed into a cache outside the tree (WARDOSCOPE_CORPUS, else below the user's cache directory).
import { execFile, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync } from 'node:fs'
import { cp, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { homedir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { presetNamed } from '../dist/core/host/presets.js'
import { within } from '../dist/core/model/folder.js'
import { parseSite } from '../dist/core/model/site.js'
import { behindBase } from '../dist/core/pipeline/behind-base.js'
import { check } from '../dist/core/pipeline/check.js'
import { openProject } from '../dist/core/pipeline/open.js'
import { DiskFolder } from '../dist/node/disk-folder.js'
import { apply } from './apply.mjs'
import { keepBuilt, restoreBuilt } from './built.mjs'
import { environmentOfBuilds } from './environment.mjs'
import { followFixes, writeFixTable } from './fixes.mjs'
import { endBrowser, rehearsing } from './rehearsal.mjs'
import { removeInTurn } from './removals.mjs'
import { compare, failedResult, print } from './result.mjs'
import { writeTable } from './table.mjs'

const corpus = dirname(fileURLToPath(import.meta.url))
const cache = process.env.WARDOSCOPE_CORPUS ?? join(homedir(), '.cache', 'wardoscope-corpus')
const args = process.argv.slice(2)
const wanted = args.filter((arg) => !arg.startsWith('--'))

const started = performance.now()
const minutes = Number(
  args.find((arg) => arg.startsWith('--minutes='))?.split('=')[1] ?? Number.POSITIVE_INFINITY,
)
const results = []
let skipped = 0
const installations = new Map()
await mkdir(cache, { recursive: true })
if (args.includes('--table')) {
  const all = await keepResults([])
  await writeTable(join(corpus, '../docs/frameworks.md'), all, await readNotes())
  await writeFixTable(join(corpus, '../docs/fixes.md'), all)
  process.exit(0)
}
const projects = await projectsToRun()
for (const [index, { name, spec }] of projects.entries()) {
  const problem = await installing(name, spec)
  // Packages are waited for, and building needs the processor: the next project's come meanwhile.
  const next = projects[index + 1]
  if (next) installing(next.name, next.spec)
  const found = await runProject(name, spec, problem)
  await keepResults(found)
  results.push(...found)
}
if (skipped > 0) console.log(`\n${skipped} variants were left out: the ${minutes} minutes were over`)
await endBrowser()
const failed = results.filter(({ wrong }) => wrong.length > 0)
console.log(
  `\n${results.length} variants of ${new Set(results.map(({ project }) => project)).size} projects, ${failed.length} not as expected`,
)
console.log(`${results.length - failed.length} passed, ${failed.length} failed`)
process.exitCode = failed.length > 0 || results.length === 0 ? 1 : 0

/** What a reader of the table should know of a project. */
async function readNotes() {
  const notes = new Map()
  for (const name of await corpusNames()) {
    const { title, note } = JSON.parse(await readFile(join(corpus, name, 'corpus.json'), 'utf8'))
    if (note) notes.set(title, note)
  }
  return notes
}

/** Keeps the last result of every variant, as JSON, beside the packages. */
async function keepResults(fresh) {
  const file = join(cache, 'results.json')
  const known = JSON.parse(await readFile(file, 'utf8').catch(() => '[]'))
  const date = new Date().toISOString().slice(0, 10)
  const isOf = (one) => (other) => other.project === one.project && other.variant === one.variant
  const all = [
    ...known.filter((one) => !fresh.some(isOf(one))),
    // What was found out with fixes stays until they are followed again.
    ...fresh.map((one) => ({
      fixes: args.includes('--fixes') ? undefined : known.find(isOf(one))?.fixes,
      ...one,
      date,
      node: process.versions.node,
    })),
  ].sort((a, b) => (a.project < b.project ? -1 : a.project > b.project ? 1 : 0))
  await writeFile(file, `${JSON.stringify(all, null, 2)}\n`)
  return all
}

async function corpusNames() {
  const entries = await readdir(corpus, { withFileTypes: true })
  return entries
    .filter((entry) => entry.isDirectory() && existsSync(join(corpus, entry.name, 'corpus.json')))
    .map(({ name }) => name)
    .sort()
}

async function projectsToRun() {
  const all = (await corpusNames()).map(async (name) => ({
    name,
    spec: JSON.parse(await readFile(join(corpus, name, 'corpus.json'), 'utf8')),
  }))
  return (await Promise.all(all)).filter(({ name, spec }) =>
    wanted.length > 0 ? wanted.includes(name) : !args.includes('--ci') || spec.ci,
  )
}

/** The installation of a project, which is begun once; what went wrong, or null. */
function installing(name, spec) {
  const begun = installations.get(name) ?? (isOver() ? null : install(name, join(cache, name), spec))
  installations.set(name, begun)
  return begun
}

async function runProject(name, spec, problem) {
  const home = join(cache, name)
  const found = []
  const only = process.env.WARDOSCOPE_VARIANT
  for (const [variant, change] of Object.entries(spec.variants)) {
    if ((only && only !== variant) || (args.includes('--ci') && !spec.ci.includes(variant))) continue
    if (isOver()) {
      skipped++
      continue
    }
    const result = problem ? failedResult(problem) : await runVariant(name, home, spec, change)
    const line = { project: name, title: spec.title, variant, ...result }
    found.push(line)
    print(line)
  }
  return found
}

/** Whether the time given is up; what has begun is finished. */
function isOver() {
  return performance.now() - started > minutes * 60_000
}

/** Installs the project's packages once, and again when its manifest changes. */
async function install(name, home, spec) {
  if (spec.tool && spawnSync('sh', ['-c', `command -v ${spec.tool}`]).status !== 0)
    return `${spec.tool} is not installed`
  const manifest = join(corpus, name, 'project/package.json')
  const text = await readFile(manifest, 'utf8').catch(() => null)
  await mkdir(home, { recursive: true })
  if (text === null) return null
  const stamp = createHash('sha256').update(dependenciesOf(text)).digest('hex')
  const known = await readFile(join(home, 'node_modules/.corpus-stamp'), 'utf8').catch(() => '')
  if (known === stamp) return null
  await clean(home)
  await rm(join(home, 'node_modules'), { recursive: true, force: true })
  // The package manager links workspaces that are there.
  if (JSON.parse(text).workspaces) await cp(join(corpus, name, 'project'), home, { recursive: true })
  else await cp(manifest, join(home, 'package.json'))
  process.stderr.write(`installing ${name}\n`)
  // While a package of many parts is being released, a registry has some of them and not the others.
  const first = await installIn(home)
  const ran = /\bnotarget\b/.test(first.stderr) ? await installIn(home, `--before=${daysAgo(3)}`) : first
  if (ran.status !== 0) return `not installed: ${ran.stderr.trim().split('\n').slice(-3).join(' ')}`
  // A project without dependencies gets no such directory from the package manager.
  await mkdir(join(home, 'node_modules'), { recursive: true })
  await writeFile(join(home, 'node_modules/.corpus-stamp'), stamp)
  return null
}

function installIn(home, ...more) {
  const words = ['install', '--no-audit', '--no-fund', '--legacy-peer-deps', '--loglevel=error', ...more]
  return new Promise((resolve) =>
    execFile('npm', words, { cwd: home, maxBuffer: 64_000_000 }, (error, _, stderr) =>
      resolve({ status: error === null ? 0 : 1, stderr: stderr || String(error ?? '') }),
    ),
  )
}

function daysAgo(days) {
  return new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10)
}

function dependenciesOf(text) {
  const { dependencies, devDependencies, overrides } = JSON.parse(text)
  return JSON.stringify({ dependencies, devDependencies, overrides })
}

async function clean(home) {
  for (const entry of await readdir(home)) {
    if (entry !== 'node_modules' && entry !== 'package-lock.json')
      await rm(join(home, entry), { recursive: true, force: true })
  }
}

async function runVariant(name, home, spec, change) {
  const sources = join(corpus, name, 'project')
  const kept = { store: join(cache, '.built', name), sources, home, change, command: spec.build }
  const seconds = args.includes('--ci') || args.includes('--rebuild') ? null : await restoreBuilt(kept, clean)
  if (seconds !== null) return lookAt(name, home, spec, change, seconds)
  await clean(home)
  await cp(sources, home, { recursive: true })
  await apply(home, change)
  const folder = await DiskFolder.open(home, name)
  const surveyed = await openProject(folder)
  const command = change.build ?? spec.build ?? surveyed?.survey.build?.command.value
  if (!command) return failedResult('no build command was found')
  const started = performance.now()
  const built =
    change.build === ''
      ? { status: 0 }
      : spawnSync('sh', ['-c', `PATH="$PWD/node_modules/.bin:$PATH" ${command}`], {
          cwd: home,
          encoding: 'utf8',
          env: environmentOfBuilds(),
          timeout: 600_000,
        })
  const buildSeconds = (performance.now() - started) / 1000
  if (built.status !== 0 && !change.buildFails) {
    return {
      ...failedResult(
        `the build failed: ${`${built.stdout}${built.stderr}`.trim().split('\n').slice(-12).join(' | ')}`,
      ),
      buildSeconds,
    }
  }
  await keepBuilt(kept, buildSeconds)
  return lookAt(name, home, spec, change, buildSeconds)
}

async function lookAt(name, home, ofProject, change, buildSeconds) {
  await afterBuild(home, change)
  // The built folder by itself, as somebody has it who has no sources: it gives no readings of a project.
  const spec = change.bare ? { ...ofProject, readings: {} } : ofProject
  const folder = await DiskFolder.open(change.bare ? join(home, change.bare) : home, name)
  const checkStarted = performance.now()
  const report = await look(folder, spec, change)
  const checkSeconds = (performance.now() - checkStarted) / 1000
  const rehearsed = await rehearse(folder, spec, change)
  const compared = compare(args.includes('--browser') ? rehearsed : report, spec, change)
  const fixes =
    args.includes('--fixes') && !change.after && !change.bare && report.findings.length > 0
      ? await followFixes(home, {
          base: optionsFor(folder, spec, change).site.base,
          byWords: change.byWords,
          report,
          hidden: await behindBase(folder, optionsFor(folder, spec, change), report),
          directory: (await openProject(folder))?.project.origin?.directory ?? '.',
          command: change.build ?? spec.build ?? report.survey.buildCommand?.value,
          again: (environment) => check(folder, { ...optionsFor(folder, spec, change), environment }),
        })
      : undefined
  const removed =
    change === spec.variants.sound && report.folder.files > 0 ? await removals(folder, spec, change) : null
  return {
    ...compared,
    ...(removed ? { removed } : {}),
    ...(fixes ? { fixes } : {}),
    wrong: [
      ...compared.wrong,
      ...(removed?.missed ?? []).map((path) => `${path} was taken away and not missed`),
      ...(removed?.falseAlarms ?? []),
      ...(fixes ?? [])
        .filter(({ state, because }) => state !== 'proved' && (state !== 'words' || !because))
        .map(({ code, state, why }) => `the fix of ${code} is ${state}${why ? `: ${why}` : ''}`),
      ...(rehearsed.rehearsal?.differences ?? []).slice(0, 5),
    ],
    buildSeconds,
    checkSeconds,
  }
}

function look(folder, spec, change) {
  return check(folder, optionsFor(folder, spec, change))
}

/** The same, served and visited: every answer must be as predicted, and nothing else may be found. */
function rehearse(folder, spec, change) {
  const rehearse = rehearsing({ inBrowser: args.includes('--browser') })
  return check(folder, { ...optionsFor(folder, spec, change), rehearse })
}

function removals(folder, spec, change) {
  return removeInTurn(folder, optionsFor(folder, spec, change), spec)
}

function optionsFor(folder, spec, change) {
  return {
    site: parseSite(change.site ?? spec.site),
    host: presetNamed(change.host ?? spec.host),
    routes: change.routes ?? spec.routes ?? [],
    ...(change.folder ? { build: { folder: within(folder, change.folder), path: change.folder } } : {}),
  }
}

/** Faults that are made in the output, or in the sources after it was built. */
async function afterBuild(home, { after }) {
  if (after) await apply(home, after)
}
