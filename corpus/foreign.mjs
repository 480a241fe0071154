// Production builds of other people's: packages of the registry that ship a built web interface. Each finding was looked at
// where it stands; foreign.json says which of them are true. What is found beside those, or no more, is printed.
// npm run foreign                 all of them
// npm run foreign -- <words>      those whose name holds one of the words
// Fetched once, into the corpus's cache (WARDOSCOPE_CORPUS, else below the user's cache directory). Nothing of theirs is run.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { mkdir, readFile, rename, rm } from 'node:fs/promises'
import { homedir } from 'node:os'
import { join } from 'node:path'
import { presetNamed } from '../dist/core/host/presets.js'
import { parseSite } from '../dist/core/model/site.js'
import { check } from '../dist/core/pipeline/check.js'
import { DiskFolder } from '../dist/node/disk-folder.js'

const cache = join(
  process.env.WARDOSCOPE_CORPUS ?? join(homedir(), '.cache', 'wardoscope-corpus'),
  '.foreign',
)
const words = process.argv.slice(2)
const builds = JSON.parse(await readFile(new URL('foreign.json', import.meta.url), 'utf8'))
const totals = { blocker: { true: 0, false: 0 }, caution: { true: 0, false: 0 } }
let failed = 0
let looked = 0

await mkdir(cache, { recursive: true })
for (const build of builds) {
  if (words.length > 0 && !words.some((word) => build.package.includes(word))) continue
  looked++
  const wrong = await lookedAt(build)
  if (wrong.length > 0) failed++
  console.log(`${wrong.length > 0 ? 'FAIL' : 'ok  '} ${build.package}`)
  for (const line of wrong) console.log(`       ${line}`)
}
for (const severity of ['blocker', 'caution']) {
  const { true: right, false: wrong } = totals[severity]
  console.log(`${severity}s: ${right} true, ${wrong} false, on ${looked} builds`)
}
console.log(`${looked - failed} passed, ${failed} failed`)
process.exitCode = failed > 0 || looked === 0 ? 1 : 0

/** What is not as reviewed, one line each. */
async function lookedAt({ package: name, folder, site = '/', findings = [], false: known = [] }) {
  const home = join(cache, name.replaceAll('/', '+'))
  const problem = existsSync(home) ? null : await fetched(name, home)
  if (problem) return [problem]
  const report = await check(await DiskFolder.open(join(home, folder), folder), {
    site: parseSite(`https://skerryline.example${site}`),
    host: presetNamed('fallback'),
  })
  const found = report.findings.filter(({ severity }) => severity !== 'note').map(shownFinding)
  for (const each of found) count(each, findings)
  return [
    ...found.filter((each) => ![...findings, ...known].includes(each)).map((each) => `not reviewed: ${each}`),
    ...findings.filter((each) => !found.includes(each)).map((each) => `not found: ${each}`),
    ...known.filter((each) => !found.includes(each)).map((each) => `no more a false alarm: ${each}`),
  ]
}

function count(each, findings) {
  totals[each.split(' ')[0]][findings.includes(each) ? 'true' : 'false']++
}

/** A finding by its code, the file that it stands in and what is requested there. */
function shownFinding({ severity, code, places: [first] }) {
  const request = first?.request && new URL(first.request, 'https://skerryline.example').pathname
  return [severity, code, ...(first ? [first.file] : []), ...(request ? [request] : [])].join(' ')
}

/** Fetches and unpacks a package. Says why it could not. */
async function fetched(name, home) {
  const at = `${home}.part`
  await rm(at, { recursive: true, force: true })
  await mkdir(at, { recursive: true })
  const packed = spawnSync('npm', ['pack', name, '--silent', '--ignore-scripts'], {
    cwd: at,
    encoding: 'utf8',
  })
  const archive = packed.stdout?.trim().split('\n').at(-1)
  if (packed.status !== 0 || !archive) return `not fetched: ${(packed.stderr ?? '').trim().slice(0, 200)}`
  const unpacked = spawnSync('tar', ['xzf', archive, '--strip-components=1'], { cwd: at, encoding: 'utf8' })
  if (unpacked.status !== 0) return `not unpacked: ${(unpacked.stderr ?? '').trim().slice(0, 200)}`
  await rm(join(at, archive))
  await rename(at, home)
  return null
}
