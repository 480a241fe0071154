// What people build first: the starters that frameworks hand out, made by their own scaffolding from the registry and built
// untouched. Each must be read rightly, be clear at "/", and be held below a path that it was not built for.
// npm run starters                all of them
// npm run starters -- vite-react  some of them
//   --fixes   follows the fix of each below that path: made in a copy, built and checked
// Made and built once, in the corpus's cache (WARDOSCOPE_CORPUS, else below the user's cache directory).
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises'
import { homedir } from 'node:os'
import { join } from 'node:path'
import { fixable } from '../dist/core/edits/outcome.js'
import { presetNamed } from '../dist/core/host/presets.js'
import { parseSite } from '../dist/core/model/site.js'
import { behindBase } from '../dist/core/pipeline/behind-base.js'
import { check } from '../dist/core/pipeline/check.js'
import { openProject } from '../dist/core/pipeline/open.js'
import { freshCommand } from '../dist/core/project/build-command.js'
import { DiskFolder } from '../dist/node/disk-folder.js'
import { tryFixes } from '../dist/node/fixing/try-fixes.js'
import { apply } from './apply.mjs'
import { environmentOfBuilds } from './environment.mjs'
import { endBrowser, rehearsing } from './rehearsal.mjs'
import { compare, failedResult, print } from './result.mjs'

const cache = join(
  process.env.WARDOSCOPE_CORPUS ?? join(homedir(), '.cache', 'wardoscope-corpus'),
  '.starters',
)
const wanted = process.argv.slice(2).filter((word) => !word.startsWith('--'))
const fixesToo = process.argv.includes('--fixes')
const belowPath = 'https://skerryline.example/line/'
const starters = JSON.parse(await readFile(new URL('starters.json', import.meta.url), 'utf8'))
const usualReadings = {
  framework: 'vite',
  buildCommand: 'npm run build',
  publishDirectory: 'dist',
  basePath: '/',
}
const results = []

await mkdir(cache, { recursive: true })
for (const [name, starter] of Object.entries(starters)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue
  const problem = await made(name, starter)
  for (const [variant, site] of [
    ['at the root', 'https://skerryline.example/'],
    ['below a path', belowPath],
  ]) {
    const result = problem ? failedResult(problem) : await looked(name, starter, site)
    results.push({ project: name, variant, ...result })
    print(results.at(-1))
  }
  if (!fixesToo || problem) continue
  results.push({ project: name, variant: 'with its fix', ...(await fixed(name, starter)) })
  print(results.at(-1))
}
await endBrowser()
const failed = results.filter(({ wrong }) => wrong.length > 0).length
console.log(`${results.length - failed} passed, ${failed} failed`)
process.exitCode = failed > 0 || results.length === 0 ? 1 : 0

/** Makes and builds a starter once. Says why it could not. */
async function made(name, { make, change = {}, build }) {
  const home = join(cache, name)
  if (existsSync(join(home, 'node_modules/.starter-built'))) return null
  await rm(home, { recursive: true, force: true })
  const failed =
    run(make.replaceAll('{}', name), cache) ??
    (await changed(home, change)) ??
    run('npm install --no-audit --no-fund --loglevel=error', home) ??
    (change.add ? run(`npm install --no-audit --no-fund --loglevel=error ${change.add}`, home) : null)
  if (failed) return failed
  const surveyed = await openProject(await DiskFolder.open(home, name))
  const command = build ?? surveyed?.survey.build?.command.value
  const unbuilt = command ? run(command, home) : 'no build command was found'
  if (unbuilt === null) await writeFile(join(home, 'node_modules/.starter-built'), command)
  return unbuilt
}

/** A starter of another day may not hold what is changed. */
async function changed(home, change) {
  try {
    await apply(home, change)
    return null
  } catch (error) {
    return error.message
  }
}

/** Runs a command; null when it succeeds, else its last lines. */
function run(command, cwd) {
  process.stderr.write(`${command}\n`)
  const { status, stdout, stderr } = spawnSync('sh', ['-c', command], {
    cwd,
    encoding: 'utf8',
    env: { ...environmentOfBuilds(), npm_config_yes: 'true' },
    stdio: ['ignore', 'pipe', 'pipe'],
    timeout: 600_000,
  })
  return status === 0 ? null : `${command}: ${`${stdout}${stderr}`.trim().split('\n').slice(-8).join(' | ')}`
}

/** The fix of what holds it below a path, followed to the letter. */
async function fixed(name, starter) {
  const root = join(cache, name)
  const options = { site: parseSite(belowPath), host: presetNamed(starter.host ?? 'fallback') }
  const lookAt = async (at) => check(await DiskFolder.open(at, name), options)
  const started = performance.now()
  const report = await lookAt(root)
  const hidden = await behindBase(await DiskFolder.open(root, name), options, report)
  const reported = report.findings.filter(
    ({ code, severity }) => severity !== 'note' && code.startsWith('base/'),
  )
  const fixes = fixable(reported)
  const words = reported.filter((finding) => !fixes.some((fix) => fix.finding === finding))
  const outcome =
    fixes.length === 0
      ? { states: new Map(), fresh: [], failure: null }
      : await tryFixes(fixes, {
          root,
          directory: '.',
          output: report.survey.publishDirectory?.value ?? null,
          command: await commandIn(root, name),
          before: [...report.findings, ...hidden],
          check: async (copy) => (await lookAt(copy)).findings,
          onOutput: () => {},
          onStep: () => {},
          signal: new AbortController().signal,
        })
  const notProved = fixes.filter(({ finding }) => outcome.states.get(finding.fingerprint) !== 'proved')
  return {
    ...compare(
      report,
      { readings: {} },
      { findings: report.findings.filter(({ severity }) => severity !== 'note').map(({ code }) => code) },
    ),
    wrong: [
      ...words.map(({ code, fix: { steps } }) => `${code} is by words alone: ${steps[0]}`),
      ...notProved.map(
        ({ finding: { code, fingerprint } }) => `the fix of ${code} is ${outcome.states.get(fingerprint)}`,
      ),
      ...outcome.fresh.map(({ code, cause }) => `new: ${code}: ${cause}`),
      ...(outcome.failure ? [outcome.failure.split('\n').slice(-5).join(' | ')] : []),
    ],
    checkSeconds: (performance.now() - started) / 1000,
  }
}

/** What builds a starter, with what makes it build anew. */
async function commandIn(root, name) {
  return freshCommand((await openProject(await DiskFolder.open(root, name))).survey) ?? ''
}

async function looked(name, starter, site) {
  const folder = await DiskFolder.open(join(cache, name), name)
  const started = performance.now()
  const report = await check(folder, {
    site: parseSite(site),
    host: presetNamed(starter.host ?? 'fallback'),
    rehearse: rehearsing({ inBrowser: false }),
  })
  const readings = Object.entries({ ...usualReadings, ...starter.readings }).map(([key, value]) => [
    key,
    value?.replaceAll('{}', name) ?? null,
  ])
  // A build of relative URLs stands anywhere, and one without a page nowhere.
  const { findings: usual = [], below = [], top = [], alike = false } = starter
  const isBelow = site.endsWith('/line/') && !alike
  const findings = [...usual, ...(isBelow ? [...below, 'base/wrong-path'] : top)]
  const result = compare(report, { readings: Object.fromEntries(readings) }, { findings })
  const differences = (report.rehearsal?.differences ?? []).slice(0, 5)
  return {
    ...result,
    wrong: [...result.wrong, ...differences],
    checkSeconds: (performance.now() - started) / 1000,
  }
}
