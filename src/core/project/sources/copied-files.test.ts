import { expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { changedCopies } from './copied-files.ts'

const changed = async (
  files: Readonly<Record<string, string>>,
  build: Readonly<Record<string, string>>,
  path = 'dist',
): Promise<string[]> =>
  (await changedCopies(new MemoryFolder(files), new MemoryFolder(build), path)).map(
    ({ source, built }) => `${source} ${built}`,
  )
const large = 'x'.repeat(40_000)

test.each<[string, Record<string, string>, Record<string, string>, string[]]>([
  ['copied as they are', { 'public/a.txt': '1', 'public/b.txt': '2' }, { 'a.txt': '1', 'b.txt': '2' }, []],
  [
    'one that was changed since',
    { 'public/a.txt': '1', 'public/x/b.txt': '3' },
    { 'a.txt': '1', 'x/b.txt': '2' },
    ['public/x/b.txt x/b.txt'],
  ],
  ['one alone proves nothing', { 'public/a.txt': '1' }, { 'a.txt': '2' }, []],
  [
    'blanks are what a builder may take away',
    { 'static/a.txt': '1', 'static/b.json': '{ "a": 1 }' },
    { 'a.txt': '1', 'b.json': '{"a":1}' },
    [],
  ],
  [
    'pictures, which a builder may rewrite',
    { 'public/a.txt': '1', 'public/b.svg': '<svg><g/></svg>' },
    { 'a.txt': '1', 'b.svg': '<svg/>' },
    [],
  ],
  [
    'pictures, where another arrived as it is',
    { 'public/a.svg': '<svg/>', 'public/b.svg': '<svg><g/></svg>' },
    { 'a.svg': '<svg/>', 'b.svg': '<svg/>' },
    ['public/b.svg b.svg'],
  ],
  [
    'large ones by their size',
    { 'public/a.bin': large, 'public/b.bin': `${large}x` },
    { 'a.bin': large, 'b.bin': large },
    ['public/b.bin b.bin'],
  ],
  [
    'templates and hidden files',
    { 'public/a.txt': '1', 'public/index.html': '%X%', 'public/.well-known/b.txt': '1' },
    { 'a.txt': '1', 'index.html': 'x', '.well-known/b.txt': '2' },
    [],
  ],
  ['a file that is not in the build', { 'public/a.txt': '1', 'public/b.txt': '2' }, { 'a.txt': '1' }, []],
])('%s', async (_, files, build, expected) => {
  expect(await changed(files, build)).toEqual(expected)
})

test('the build folder is not compared with itself', async () => {
  const build = { 'a.txt': '1', 'b.txt': '2' }
  const files = { 'public/a.txt': '1', 'public/b.txt': '3' }
  expect(await changed(files, build, 'public')).toEqual([])
})
