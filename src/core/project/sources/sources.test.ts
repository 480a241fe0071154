import { expect, test } from 'vitest'
import { type Folder, within } from '../../model/folder.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { readSources, Sources } from './sources.ts'

const files = {
  'docs/index.md': '# Sailings',
  'docs/.vitepress/config.ts': 'export default {}',
  'docs/.vitepress/theme/index.ts': 'fetch(import.meta.env.VITE_SAILINGS_API)',
  'docs/.vitepress/cache/deps/vue.js': 'import.meta.env.VITE_SAILINGS_API',
  'docs/.vitepress/dist/app.js': 'import.meta.env.VITE_SAILINGS_API',
  'docs/.other/theme.ts': 'import.meta.env.VITE_SAILINGS_API',
  'src/cache/index.ts': 'import.meta.env.VITE_SAILINGS_API',
}

test.each([
  ['docs/.vitepress/config.ts', ['docs/.vitepress/theme/index.ts', 'src/cache/index.ts']],
  ['vite.config.ts', ['src/cache/index.ts']],
  [null, ['src/cache/index.ts']],
])('with the configuration %s, the sources are %j', async (config, expected) => {
  const { texts } = await readSources(new MemoryFolder(files), { output: 'docs/.vitepress/dist', config })
  expect([...texts.keys()].filter((path) => !path.endsWith('.md')).sort()).toEqual(expected)
})

test('what a bundler wrote beside the sources is no source', async () => {
  const bundled = `/* A library. */\n${'a(import.meta.env.VITE_SAILINGS_API);'.repeat(1_000)}`
  const { files } = await readSources(
    new MemoryFolder({
      'admin/assets/index-AbCdEf12.js': bundled,
      'src/table.js': `${'[54.1, 10.2],\n'.repeat(5_000)}`,
      'src/app.js': 'start()',
      'src/App.vue': bundled,
    }),
    { output: 'dist', config: null },
  )
  expect(files.toSorted()).toEqual(['src/App.vue', 'src/app.js', 'src/table.js'])
})

test('sources are read up to what memory holds, and how many are left is told', async () => {
  const line = `export const fares = "${'x'.repeat(60)}"\n`
  const large = line.repeat(20_000)
  const many = Object.fromEntries(Array.from({ length: 120 }, (_, at) => [`src/f${at}.ts`, large]))
  const found = await readSources(new MemoryFolder(many), { output: null, config: null })
  const size = [...found.texts.values()].reduce((sum, text) => sum + text.length, 0)
  expect(size).toBeLessThan(100_000_000)
  expect(found.files.length + found.left).toBe(120)
  expect(found.left).toBeGreaterThan(30)
})

test('what holds NUL is no source', async () => {
  const { files } = await readSources(new MemoryFolder({ 'src/a.ts': 'a\u0000b', 'src/b.ts': 'start()' }), {
    output: null,
    config: null,
  })
  expect(files).toEqual(['src/b.ts'])
})

test('data of the site is a source, and what tools and translators read is none', async () => {
  const data = ['src/boats.json', 'data/tides.json', 'public/boats.json', 'public/locales/en.json']
  const others = [
    'package.json',
    'tides.json',
    'packages/ui/package.json',
    'src/tsconfig.app.json',
    'src/theme.config.json',
    'src/locales/en.json',
    'src/mocks/tides.json',
  ]
  const text = '{ "image": "/images/holm.svg" }'
  const folder = new MemoryFolder(Object.fromEntries([...data, ...others].map((path) => [path, text])))
  const sources = await readSources(folder, { output: null, config: null })
  expect([...sources.files].sort()).toEqual([...data].sort())
})

test('any number of data leaves no code out', async () => {
  const files = Object.fromEntries(Array.from({ length: 3_000 }, (_, at) => [`a/${at}.json`, '{}']))
  const folder = new MemoryFolder({ ...files, 'src/main.ts': 'start()' })
  const sources = await readSources(folder, { output: null, config: null })
  expect(sources.files[0]).toBe('src/main.ts')
  expect({ files: sources.files.length, left: sources.left }).toEqual({ files: 2_001, left: 0 })
})

test('data is found in a line of any length', async () => {
  const text = `[${'{"name":"Holm"},'.repeat(300)}{"image":"/images/holm.svg"}]`
  const sources = new Sources(new Map([['src/boats.json', text]]))
  expect(sources.find('/images/holm.svg')?.file).toBe('src/boats.json')
})

test('what several projects import is read once for all of them', async () => {
  const files = {
    'apps/site/src/main.js': 'site()',
    'apps/desk/src/main.js': 'desk()',
    'packages/ui/src/ui.js': 'ui()',
  }
  const folder = new MemoryFolder(files)
  const asked: string[] = []
  const counting: Folder = {
    ...folder,
    label: folder.label,
    list: (path) => folder.list(path),
    stat: (path) => folder.stat(path),
    read: (path, most) => {
      asked.push(path)
      return folder.read(path, most)
    },
  }
  const texts = new Map<string, string | null>()
  for (const directory of ['apps/site', 'apps/desk']) {
    const around = {
      output: null,
      config: null,
      packages: ['../../packages/ui'],
      shared: { directory, texts },
    }
    const sources = await readSources(within(counting, directory), around)
    expect(sources.texts.get('../../packages/ui/src/ui.js')).toBe('ui()')
  }
  expect(asked.filter((path) => path === 'packages/ui/src/ui.js')).toHaveLength(1)
  expect(asked).toContain('apps/desk/src/main.js')
})
