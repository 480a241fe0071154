import { expect, test } from 'vitest'
import { hole } from '../model/reference.ts'
import { FolderIndex } from './folder-index.ts'

const indexOf = (paths: readonly string[]): FolderIndex => new FolderIndex(paths.map((path) => ({ path })))
const index = indexOf(['assets/flag-se.svg', 'assets/flag-no-dark.svg', 'flags/a/b.svg', 'aab.png'])

test.each<[string, string[]]>([
  [`/assets/flag-${hole}.svg`, ['assets/flag-no-dark.svg', 'assets/flag-se.svg']],
  [`flag-${hole}-${hole}.svg`, ['assets/flag-no-dark.svg']],
  [`${hole}/b.svg`, ['flags/a/b.svg']],
  [`flags/${hole}.svg`, []],
  [`a${hole}ab.png`, ['aab.png']],
  [`aa${hole}ab.png`, []],
  [`lag-${hole}.svg`, []],
])('%j may mean %j', (name, files) => {
  expect([...index.fitting(name)].sort()).toEqual(files)
})

test('a name of very many holes is answered too', () => {
  expect(indexOf(['a'.repeat(5_000)]).fitting(`${`a${hole}`.repeat(2_000)}b`)).toEqual([])
})
