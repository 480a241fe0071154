import { expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { readDeployFiles } from './deploy-files.ts'
import { deployVariables } from './deploy-variables.ts'

async function namesIn(files: Readonly<Record<string, string>>): Promise<string[]> {
  const folder = new MemoryFolder(files)
  const found = deployVariables(await readDeployFiles(folder))
  return found.flatMap(({ names }) => [...names].map(([name, { file, line }]) => `${name} ${file}:${line}`))
}

test.each<[string, Record<string, string>, string[]]>([
  [
    'a map of a step',
    { '.pipelines/site.yml': 'jobs:\n  build:\n    env:\n      VITE_API: https://x.test\n    steps: []' },
    ['VITE_API .pipelines/site.yml:4'],
  ],
  [
    'a list of assignments',
    { 'site.yaml': 'environment:\n  - VITE_API=1\n  - VITE_KEY' },
    ['VITE_API site.yaml:2', 'VITE_KEY site.yaml:3'],
  ],
  [
    'a list of names with values',
    { 'site.yml': 'env:\n  - name: VITE_API\n    value: x' },
    ['VITE_API site.yml:2'],
  ],
  ['a table', { 'site.toml': '[build.environment]\nVITE_API = "x"' }, ['VITE_API site.toml:2']],
  ['of an object', { 'site.json.json': '{"build":{"env":{"VITE_API":"x"}}}' }, ['VITE_API site.json.json:1']],
  ['a map of something else', { 'site.yml': 'labels:\n  VITE_API: x' }, []],
  ['names that are none', { 'site.yml': 'env:\n  node: 20\n  "x y": 1' }, []],
  [
    'arguments of a container',
    { Dockerfile: 'FROM x\nARG VITE_API\nENV VITE_KEY=1 VITE_B="2 3"\nENV VITE_OLD value' },
    ['VITE_API Dockerfile:2', 'VITE_KEY Dockerfile:3', 'VITE_B Dockerfile:3', 'VITE_OLD Dockerfile:4'],
  ],
  ['a file that is broken', { 'site.json': '{"env":{"VITE_API"' }, []],
])('%s', async (_, files, expected) => {
  expect(await namesIn(files)).toEqual(expected)
})
