import { expect, test } from 'vitest'
import { checkAlone, codesOf, page } from '../../../../test/support/cases.ts'
import { FolderError } from '../../model/errors.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'

/** A folder of which some files can't be read. */
class Guarded extends MemoryFolder {
  override read(path: string, most?: number): Promise<Uint8Array> {
    if (path.startsWith('locked/'))
      return Promise.reject(new FolderError('unreadable', `${path} could not be read: permission denied.`))
    return super.read(path, most)
  }
}

test.each<[string, Record<string, string>, string[]]>([
  [
    'a script that a page starts',
    { 'index.html': page('<script src="/locked/a.js"></script>'), 'locked/a.js': '' },
    ['project/not-read blocker ×1'],
  ],
  ['a page', { 'index.html': page(''), 'locked/about.html': '' }, ['project/not-read blocker ×1']],
  [
    'a text that no page requests',
    { 'index.html': page(''), 'locked/notes.txt': '' },
    ['project/not-read caution ×1'],
  ],
  ['nothing', { 'index.html': page('') }, []],
])('what could not be read: %s', async (_, files, expected) => {
  const report = await checkAlone(['project/not-read'], new Guarded(files), {})
  expect(codesOf(report.findings)).toEqual(expected)
  if (expected.length > 0) {
    expect(report.findings[0]?.cause).toContain('permission denied')
    expect(report.unread).not.toEqual([])
  }
})

test('a script whose addresses could not be followed holds the build, and is listed', async () => {
  const files = {
    'index.html': page('<script src="/a.js"></script>'),
    'a.js': `${'a(1);'.repeat(900_000)}b("http://localhost:3000")`,
  }
  const report = await checkAlone(['project/not-read'], new MemoryFolder(files), {})
  expect(codesOf(report.findings)).toEqual(['project/not-read blocker ×1'])
  expect(report.findings[0]?.title).toBe('What a script requests could not be followed')
  expect(report.unread).toEqual([
    { file: 'a.js', reason: 'a.js is too large, or nested too deeply, for its addresses to be followed.' },
  ])
  const sound = { ...files, 'a.js': `${'a(1);'.repeat(900_000)}b("harbour")` }
  expect((await checkAlone(['project/not-read'], new MemoryFolder(sound), {})).findings).toEqual([])
})

test('so does one whose brackets browsers take, and no parser', async () => {
  const files = {
    'index.html': page('<script src="/a.js"></script>'),
    'a.js': `fetch(${'('.repeat(50_000)}"http://localhost:3000"${')'.repeat(50_000)})`,
  }
  const report = await checkAlone(['project/not-read'], new MemoryFolder(files), {})
  expect(report.unread.map(({ file }) => file)).toEqual(['a.js'])
})
