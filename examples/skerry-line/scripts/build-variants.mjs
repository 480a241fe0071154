// Builds the demo site for real, once sound and once with each fault people ship, into dist/demo of the package.
// Every variant is a project of its own, sources beside the build, so that a check can name the line to change.
import { cp, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'vite'

const site = join(dirname(fileURLToPath(import.meta.url)), '..')
const out = process.argv[2] ?? join(site, '../../dist/demo')
const address = 'https://skerryline.example/crossings/'
const sources = [
  'index.html',
  'package.json',
  'vite.config.ts',
  'tsconfig.json',
  '.env.production',
  'src',
  'public',
]

const variants = [
  {
    name: 'sound',
    about: 'Built for its address, with its environment. Nothing to say.',
    host: 'fallback',
    routes: ['/sailings', '/sailings/hl-0710', '/harbours/holm', '/tickets/new'],
  },
  {
    name: 'wrong-base',
    about: 'Built for /, served under /crossings/.',
    host: 'fallback',
    routes: ['/sailings'],
    prepare: (folder) => replaceIn(join(folder, 'vite.config.ts'), "  base: '/crossings/',\n", ''),
  },
  {
    name: 'environment-absent',
    about: 'Built where .env.production is not: it was never pushed.',
    host: 'fallback',
    routes: ['/sailings'],
    prepare: (folder) => rm(join(folder, '.env.production')),
  },
  {
    name: 'endpoint-left',
    about: "The sailings service still at the developer's own address.",
    host: 'fallback',
    routes: ['/sailings'],
    prepare: (folder) =>
      replaceIn(join(folder, '.env.production'), 'https://api.skerryline.example', 'http://localhost:8787'),
  },
  {
    name: 'file-removed',
    about: 'A chunk is gone from the folder: an upload that stopped half way.',
    host: 'fallback',
    routes: ['/sailings'],
    finish: async (folder) => {
      const assets = join(folder, 'dist/assets')
      const chunk = (await readdir(assets)).find((name) => /^Harbour-.*\.js$/.test(name))
      await rm(join(assets, chunk))
    },
  },
  {
    name: 'no-fallback',
    of: 'sound',
    about: 'The sound build, on a host that serves plain files: deep links have no answer.',
    host: 'files',
    routes: ['/sailings', '/sailings/hl-0710', '/harbours/holm', '/tickets/new'],
  },
]

await rm(out, { recursive: true, force: true })
for (const variant of variants) await make(variant)
const plan = variants.map(({ name, about, host, routes }) => ({ name, about, site: address, host, routes }))
await writeFile(join(out, 'demo.json'), `${JSON.stringify(plan, null, 2)}\n`)
// The package holds them in one archive, in which equal files are kept once.
const { packDemoBuilds } = await import('../../../dist/node/demo-builds.js')
await writeFile(`${out}.zip`, await packDemoBuilds(out))

async function make({ name, of, prepare, finish }) {
  const folder = join(out, name)
  await mkdir(folder, { recursive: true })
  if (of) {
    await cp(join(out, of), folder, { recursive: true })
    return
  }
  for (const path of sources) await cp(join(site, path), join(folder, path), { recursive: true })
  await prepare?.(folder)
  await build({ root: folder, logLevel: 'warn' })
  await finish?.(folder)
  process.stderr.write(`built ${name}\n`)
}

async function replaceIn(file, before, after) {
  const text = await readFile(file, 'utf8')
  if (!text.includes(before)) throw new Error(`${file} does not hold ${JSON.stringify(before)}`)
  await writeFile(file, text.replace(before, after))
}
