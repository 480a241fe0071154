import { expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { readSources } from './sources.ts'

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
