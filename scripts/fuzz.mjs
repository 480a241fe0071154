// Checks folders with random changes for a while: npm run fuzz -- --minutes 10 --seed 1
// What fails is made as small as it goes and kept in test/hostile/found, which the tests run from then on.
import { createHash } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import * as core from '../dist/core/index.js'
import { walk } from '../dist/core/model/folder.js'
import { FolderIndex } from '../dist/core/requests/folder-index.js'
import { respond } from '../dist/rehearse/respond.js'
import { folders } from '../test/hostile/folders.mjs'
import { faultIn } from '../test/hostile/judge.mjs'
import { mutated, shrunk } from '../test/hostile/mutate.mjs'
import { archiveFaultIn, requestFaultIn } from '../test/hostile/others.mjs'

const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '1' },
    seed: { type: 'string', default: String(Date.now() % 1_000_000_000) },
  },
})
const kept = new URL('../test/hostile/found/', import.meta.url)
const until = Date.now() + Number(values.minutes) * 60_000
let seed = Number(values.seed)
let inputs = 0
const faults = new Map()
const [served] = folders
const stage = {
  host: core.presetNamed('fallback'),
  site: core.parseSite('https://skerryline.example/b/'),
  files: new FolderIndex(Object.keys(served).map((path) => ({ path }))),
  folder: new core.MemoryFolder(served),
}

/** Archives and requests are named by their seed: that makes them again. */
async function othersOf(seed) {
  const found = [
    ['archive', await archiveFaultIn({ ...core, walk }, folders, seed)],
    ['request', await requestFaultIn(respond, stage, served, seed)],
  ]
  for (const [kind, fault] of found) {
    if (fault === null || faults.has(fault)) continue
    faults.set(fault, kind)
    console.log(`${kind} of seed ${seed}: ${fault}`)
  }
}

for (; Date.now() < until; seed++, inputs++) {
  await othersOf(seed)
  const files = mutated(folders, seed)
  const fault = await faultIn(core, files)
  if (fault === null || faults.has(fault)) continue
  const least = await shrunk(files, async (each) => (await faultIn(core, each)) === fault)
  const text = `${JSON.stringify(least, null, 2)}\n`
  const name = `${createHash('sha1').update(text).digest('hex').slice(0, 8)}.json`
  mkdirSync(kept, { recursive: true })
  writeFileSync(new URL(name, kept), text)
  faults.set(fault, name)
  console.log(`seed ${seed}: ${fault}, kept as ${name}`)
}
console.log(
  `${inputs} folders, archives and requests, seeds ${values.seed} to ${seed - 1}: ${faults.size} faults`,
)
process.exitCode = faults.size > 0 ? 1 : 0
