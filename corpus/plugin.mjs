// Builds some projects of the corpus with the plugin in their configuration: it must look at what each framework publishes, once, and
// say what a check of the same folder says. With a faulty source it must say so too.
// node corpus/plugin.mjs             all of them, after npm run build
// node corpus/plugin.mjs astro       some of them
import { spawnSync } from 'node:child_process'
import { cp, mkdir, readdir, readFile, rm, symlink, writeFile } from 'node:fs/promises'
import { homedir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { environmentOfBuilds } from './environment.mjs'

const corpus = dirname(fileURLToPath(import.meta.url))
const cache = process.env.WARDOSCOPE_CORPUS ?? join(homedir(), '.cache', 'wardoscope-corpus')

/** Where each takes plugins: a text of its configuration, and what stands there with the plugin. */
const places = {
  'vite-vue': ['vite.config.js', 'plugins: [', 'plugins: [wardoscope(AT), '],
  sveltekit: ['vite.config.js', 'plugins: [sveltekit()]', 'plugins: [sveltekit(), wardoscope(AT)]'],
  astro: ['astro.config.mjs', 'vite: {', 'vite: { plugins: [wardoscope(AT)],'],
  nuxt: ['nuxt.config.ts', 'telemetry: false,', 'telemetry: false, vite: { plugins: [wardoscope(AT)] },'],
  'react-router': ['vite.config.js', 'plugins: [reactRouter()]', 'plugins: [reactRouter(), wardoscope(AT)]'],
  qwik: ['vite.config.js', 'qwikVite()]', 'qwikVite(), wardoscope(AT)]'],
  // Not SolidStart 1: it bundles in processes that end before its pages are written.
  'vue-cli': ['vue.config.js', 'module.exports = {', ''],
}

const wanted = process.argv.slice(2)
let failed = 0
let passed = 0
for (const [name, place] of Object.entries(places)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue
  const problem = await tried(name, place)
  if (problem === null) passed++
  else failed++
  console.log(`${problem === null ? 'ok  ' : 'FAIL'} ${name}${problem === null ? '' : `\n${problem}`}`)
}
console.log(`${passed} passed, ${failed} failed`)
process.exitCode = failed > 0 || passed === 0 ? 1 : 0

/** Null when all is as it should be. */
async function tried(name, [file, before, after]) {
  const spec = JSON.parse(await readFile(join(corpus, name, 'corpus.json'), 'utf8'))
  const home = join(cache, name)
  await mkdir(home, { recursive: true })
  for (const entry of await readdir(home))
    if (entry !== 'node_modules' && entry !== 'package-lock.json')
      await rm(join(home, entry), { recursive: true, force: true })
  await cp(join(corpus, name, 'project'), home, { recursive: true })
  const config = (await readdir(home)).find((each) => each.startsWith(file.replace(/\.\w+$/, '.')))
  if (config === undefined) return `${file} is not there`
  // As it is where it was installed.
  await rm(join(home, 'node_modules/wardoscope'), { force: true })
  await symlink(join(corpus, '..'), join(home, 'node_modules/wardoscope'), 'dir')
  const text = await readFile(join(home, config), 'utf8')
  if (!text.includes(before)) return `${config} does not hold ${before}`
  const at = `{ site: '${spec.site}', host: '${spec.host}', hold: true }`
  const with_ =
    name === 'vue-cli'
      ? vueConfig(text, at)
      : `import { wardoscope } from 'wardoscope/vite'\n${text.replace(before, after.replace('AT', at))}`
  await writeFile(join(home, config), with_)
  const sound = build(home, spec)
  if (sound.status !== 0) return `a sound build failed:\n${sound.out.slice(-1500)}`
  const said = sound.out.match(/^.*\b(?:CLEAR|HELD)\b.*$/gm) ?? []
  if (said.length !== 1 || !said[0].includes('CLEAR'))
    return `it said ${JSON.stringify(said)}:\n${sound.out.slice(-1500)}`
  if (!said[0].includes(spec.site)) return `it was looked at elsewhere: ${said[0]}`
  await writeFile(join(home, config), with_.replace(spec.site, 'https://skerryline.example/elsewhere/'))
  const faulty = build(home, spec)
  if (!/\bHELD\b/.test(faulty.out)) return `a build for elsewhere was not held:\n${faulty.out.slice(-1500)}`
  if (faulty.status === 0) return `a held build did not fail:\n${faulty.out.slice(-1500)}`
  return null
}

/** A configuration of modules of the older kind: the plugin is loaded when the bundler begins. */
function vueConfig(text, at) {
  return text.replace(
    'module.exports = {',
    `module.exports = {\n  configureWebpack: { plugins: [{ apply: (compiler) => compiler.hooks.beforeRun.tapPromise('load', async () => new (await import('wardoscope/webpack')).WardoscopePlugin(${at}).apply(compiler)) }] },`,
  )
}

function build(home, { readings = {}, build: own }) {
  const command = own ?? readings.buildCommand ?? 'npm run build'
  const ran = spawnSync('sh', ['-c', `PATH="$PWD/node_modules/.bin:$PATH" ${command}`], {
    cwd: home,
    encoding: 'utf8',
    env: { ...environmentOfBuilds(), NO_COLOR: '1' },
    timeout: 600_000,
  })
  return { status: ran.status, out: `${ran.stdout}${ran.stderr}` }
}
