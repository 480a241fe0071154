import { readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { svelte } from '@sveltejs/vite-plugin-svelte'
import vue from '@vitejs/plugin-vue'
import { build, type InlineConfig } from 'vite'
import { beforeAll, describe, expect, test } from 'vitest'
import { presetNamed } from '../src/core/host/presets.ts'
import type { Report } from '../src/core/model/report.ts'
import { parseSite } from '../src/core/model/site.ts'
import { check } from '../src/core/pipeline/check.ts'
import type { CheckOptions } from '../src/core/pipeline/options.ts'
import { DiskFolder } from '../src/node/disk-folder.ts'
import { folderWith, linkPackages } from './support/folders.ts'

const site = parseSite('https://skerryline.example/crossings/')

async function checked(path: string, options: CheckOptions = {}): Promise<Report> {
  return check(await DiskFolder.open(path), { site, host: presetNamed('fallback'), ...options })
}

function codes({ findings }: Report): string[] {
  return findings.map(({ code, severity }) => `${code} ${severity}`)
}

describe('the demo site', () => {
  const routes = ['/sailings', '/sailings/hl-0710', '/harbours/holm', '/tickets/new']

  test('the sound build is clear, without a single finding', async () => {
    const report = await checked('dist/demo/sound', { routes })
    expect(report).toMatchObject({ verdict: 'clear', findings: [], assets: { missing: 0 } })
    expect(report.routes.map(({ status, entryFile }) => `${status} ${entryFile}`)).toEqual(
      // Five that are named, and the two of the router's table that have parameters.
      Array(7).fill('200 index.html'),
    )
    expect(report.assets.requests).toBeGreaterThanOrEqual(17)
  })

  test.each([
    ['wrong-base', 'base/wrong-path blocker', 'vite.config.ts', "base: '/crossings/',"],
    ['environment-absent', 'env/absent blocker', 'src/api.ts', 'VITE_SAILINGS_API'],
    ['endpoint-left', 'endpoint/loopback blocker', '.env.production', 'VITE_SAILINGS_API'],
    ['file-removed', 'asset/answered-with-page blocker', 'src/router.tsx', 'npm run build'],
  ])('%s is held by its own cause alone', async (name, finding, source, fix) => {
    const report = await checked(join('dist/demo', name), { routes })
    expect(codes(report)).toEqual([finding])
    expect(report.verdict).toBe('held')
    expect(report.findings[0]?.source?.file).toBe(source)
    expect(JSON.stringify(report.findings[0]?.fix)).toContain(fix)
  })

  test('plain files answer no deep link', async () => {
    const report = await checked('dist/demo/no-fallback', { routes, host: presetNamed('files') })
    expect(codes(report)).toEqual(['route/no-answer blocker'])
    expect(report.findings[0]?.count).toBe(6)
  })

  test('every file taken away in turn is missed by name, except those nothing requests', async () => {
    const removed = await eachRemoved('dist/demo/sound/dist')
    const silent = removed.filter(({ found }) => found.length === 0).map(({ path }) => path)
    expect(silent).toEqual([])
    for (const { path, found, report } of removed) {
      // Its routes are read from its router, while that is there, and plain files answer none of them but the first.
      const entry = path === 'index.html'
      const gone = report.findings.find(({ code }) => code === 'asset/missing')
      const others = found.filter((code) => code !== 'route/no-answer')
      expect(others, path).toEqual(entry ? [] : ['asset/missing'])
      if (entry) expect(found).toEqual(['route/no-answer'])
      if (!entry) expect(gone?.cause, path).toContain(path)
    }
  })
})

/** Checks the folder once for every file, with that file hidden. */
async function eachRemoved(path: string): Promise<{ path: string; found: string[]; report: Report }[]> {
  const folder = await DiskFolder.open(path)
  const files = readdirSync(path, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name).slice(path.length + 1))
  return Promise.all(
    files.map(async (hidden) => {
      const without = {
        label: folder.label,
        list: async (directory: string) =>
          (await folder.list(directory)).filter(
            ({ name }) => (directory ? `${directory}/${name}` : name) !== hidden,
          ),
        read: (file: string) => folder.read(file),
        stat: (file: string) => folder.stat(file),
      }
      const build = { folder: without, path: folder.label }
      const report = await check(without, { site, host: presetNamed('files'), build })
      return { path: hidden, found: report.findings.map(({ code }) => code), report }
    }),
  )
}

const shared = {
  'src/api.js': 'export const load = () => fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`)\n',
  'src/pic.svg': `<svg xmlns="http://www.w3.org/2000/svg"><!--${'x'.repeat(6_000)}--></svg>`,
  'src/lazy.js': 'export const lazy = "harbours"\n',
  'public/mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
}

const page = (entry: string): string =>
  `<!doctype html><link rel="icon" href="/mark.svg"><div id="app"></div><script type="module" src="${entry}"></script>`

interface Project {
  readonly files: Record<string, string>
  readonly config: InlineConfig
}

const vueProject: Project = {
  files: {
    ...shared,
    'index.html': page('/src/main.js'),
    'src/main.js':
      "import { createApp } from 'vue'\nimport App from './App.vue'\ncreateApp(App).mount('#app')\n",
    'src/App.vue':
      "<script setup>\nimport { load } from './api.js'\nconst more = () => import('./lazy.js').then(load)\n</script>\n" +
      '<template><p class="a" @click="more">It isn\'t late</p><img src="./pic.svg" alt=""></template>\n<style>.a { background: url(./pic.svg) }</style>\n',
  },
  config: { plugins: [vue()] },
}

const svelteProject: Project = {
  files: {
    ...shared,
    'index.html': page('/src/main.js'),
    'src/main.js':
      "import { mount } from 'svelte'\nimport App from './App.svelte'\nmount(App, { target: document.getElementById('app') })\n",
    'src/App.svelte':
      "<script>\nimport { load } from './api.js'\nimport pic from './pic.svg'\nconst more = () => import('./lazy.js').then(load)\n</script>\n" +
      '<button onclick={more}>It isn\'t late</button><img src={pic} alt=""><img src="/crossings/mark.svg" alt="">\n',
  },
  config: { plugins: [svelte()] },
}

const pagesProject: Project = {
  files: {
    ...shared,
    'index.html': `${page('/src/main.js')}<a href="/crossings/about/">About</a>`,
    'about/index.html': page('/src/main.js'),
    'src/main.js':
      "import { load } from './api.js'\nimport pic from './pic.svg'\ndocument.body.append(pic)\nvoid load()\nvoid import('./lazy.js')\n",
  },
  config: { build: { rollupOptions: { input: ['index.html', 'about/index.html'] } } },
}

describe.each([
  ['Vue', vueProject],
  ['Svelte', svelteProject],
  ['several pages', pagesProject],
])('a Vite build with %s', (_, { files, config }) => {
  let root = ''
  const api = 'https://api.skerryline.example'

  /** Builds in a new project that holds what the build used. */
  async function built(base: string | null, environment: string | null): Promise<string> {
    const configText = base === null ? 'export default {}' : `export default {\n  base: '${base}',\n}`
    const project = folderWith({
      ...files,
      'package.json':
        '{"name":"skerry","type":"module","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'vite.config.js': configText,
      ...(environment === null ? {} : { '.env.production': `VITE_SAILINGS_API=${environment}\n` }),
    })
    linkPackages(project)
    // Relative inputs are meant from the project, as they are in a configuration file.
    const input = config.build?.rollupOptions?.input
    const absolute = Array.isArray(input)
      ? { build: { rollupOptions: { input: input.map((each) => join(project, each)) } } }
      : {}
    await build({ root: project, logLevel: 'error', ...config, ...absolute })
    return project
  }

  beforeAll(async () => {
    root = await built('/crossings/', api)
  })

  test('sound: clear, without a single finding', async () => {
    expect(await checked(root)).toMatchObject({ verdict: 'clear', findings: [] })
  })

  test('a bare build folder, sound: clear', async () => {
    expect(await checked(join(root, 'dist'))).toMatchObject({ verdict: 'clear', findings: [] })
  })

  test('built for the root', async () => {
    const report = await checked(await built(null, api))
    expect(codes(report)).toEqual(['base/wrong-path blocker'])
    expect(report.findings[0]?.fix.edits[0]).toMatchObject({
      file: 'vite.config.js',
      write: "base: '/crossings/',",
    })
  })

  test('the environment absent', async () => {
    expect(codes(await checked(await built('/crossings/', null)))).toEqual(['env/absent blocker'])
  })

  test('a loopback endpoint', async () => {
    const report = await checked(await built('/crossings/', 'http://localhost:8787'))
    expect(codes(report)).toEqual(['endpoint/loopback blocker'])
    expect(report.findings[0]?.source).toMatchObject({ file: '.env.production', line: 1 })
  })

  test('every file taken away in turn is missed by name', async () => {
    for (const { path, found, report } of await eachRemoved(join(root, 'dist'))) {
      const entry = path === 'index.html'
      const linkedOnly = path === 'about/index.html'
      expect(found, path).toEqual(
        linkedOnly ? ['route/broken-link'] : [entry ? 'route/no-answer' : 'asset/missing'],
      )
      if (!entry && !linkedOnly) expect(report.findings[0]?.cause, path).toContain(path)
    }
  })

  test('rebuilding after a change of the configuration is requested when only that is left', async () => {
    const project = await built('/harbours/', api)
    const config = readFileSync(join(project, 'vite.config.js'), 'utf8')
    rmSync(join(project, 'vite.config.js'))
    const again = folderWith({ 'vite.config.js': config.replace('/harbours/', '/crossings/') })
    const changed = readFileSync(join(again, 'vite.config.js'), 'utf8')
    const { writeFileSync } = await import('node:fs')
    writeFileSync(join(project, 'vite.config.js'), changed)
    const report = await checked(project)
    expect(codes(report)).toEqual(['base/wrong-path blocker'])
    expect(report.findings[0]?.cause).toContain('this build is older than that')
  })
})
