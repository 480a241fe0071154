import { expect, test } from 'vitest'
import { UsageError } from '../model/errors.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { surveyProject } from '../project/survey-project.ts'
import { defineFramework, type Framework } from './framework.ts'
import { frameworks, registered } from './index.ts'

const own = (name: string, over: readonly string[] = [], general?: true): Framework =>
  defineFramework({
    name,
    title: name.toUpperCase(),
    over,
    markers: [name],
    commands: [name],
    ...(general ? { general } : {}),
    settings: { publishDirectory: { default: 'out' }, basePath: { default: '/' } },
    fixes: { setBase: (base) => base, environmentFile: null },
  })

test('each stands before those it is over, general ones after all others', () => {
  const names = registered([own('c', [], true), own('b'), own('a', ['b'])]).map(({ name }) => name)
  expect(names).toEqual(['a', 'b', 'c'])
  const all = frameworks.map(({ name }) => name)
  for (const { name, over } of frameworks)
    for (const under of over)
      expect(all.indexOf(name), `${name} over ${under}`).toBeLessThan(all.indexOf(under))
})

test.each<[string, readonly Framework[], string]>([
  ['the same name twice', [own('a'), own('a')], 'Two frameworks have the name a: "A" and "A".'],
  [
    'a name that there is none of',
    [own('vite'), own('a', ['vit'])],
    'The framework a is over vit. There is no framework "vit". Did you mean vite?',
  ],
  ['a circle', [own('a', ['b']), own('b', ['a'])], 'The frameworks go in a circle: a is under b is under a.'],
])('%s is an error that names both', (_, list, message) => {
  expect(() => registered(list)).toThrow(UsageError)
  expect(() => registered(list)).toThrow(message)
})

test.each<[string, Record<string, string>, string]>([
  [
    'a root with the output beside it',
    {
      'vite.config.js': "export default { root: 'app', build: { outDir: '../dist' } }",
      'package.json': manifest('vite'),
    },
    'dist',
  ],
  [
    'pages in a directory with the output beside it',
    {
      'docs/.vitepress/config.mjs': "export default { outDir: '../site' }",
      'package.json': manifest('vitepress'),
    },
    'site',
  ],
])('%s', async (_, files, directory) => {
  const found = await surveyProject(new MemoryFolder(files))
  expect(found?.survey.publishDirectory?.value).toBe(directory)
})

test('a base on another origin is no path of this one, but where the whole address is written', async () => {
  const baseOf = async (files: Record<string, string>): Promise<unknown> =>
    (await surveyProject(new MemoryFolder(files)))?.survey.basePath?.value
  const cdn = "export default { base: 'https://cdn.example/x/' }"
  expect(await baseOf({ 'vite.config.js': cdn, 'package.json': manifest('vite') })).toBe(
    'https://cdn.example/x/',
  )
  expect(await baseOf({ 'hugo.toml': 'baseURL = "https://skerryline.example/x/"' })).toBe('/x/')
})

function manifest(framework: string): string {
  const build = framework === 'vitepress' ? 'vitepress build docs' : `${framework} build`
  return JSON.stringify({ scripts: { build }, devDependencies: { [framework]: '1' } })
}
