import { zipSync } from 'fflate'
import { expect, test } from 'vitest'
import { folderOfFiles } from './blob-folder.ts'
import { walk } from './folder.ts'
import { folderOfZip } from './zip-folder.ts'

const text = (content: string): Uint8Array => new TextEncoder().encode(content)

async function pathsOf(folder: ReturnType<typeof folderOfZip>): Promise<string[]> {
  const found: string[] = []
  for await (const path of walk(folder)) found.push(path)
  return found
}

test('files of a browser are read when requested, and know their times', async () => {
  const file = new File(['hello'], 'a.txt', { lastModified: 1_700_000_000_000 })
  const folder = folderOfFiles([{ path: 'b/a.txt', file }], 'dist')
  expect(await pathsOf(folder)).toEqual(['b/a.txt'])
  expect(await folder.stat('b/a.txt')).toEqual({ size: 5, modified: 1_700_000_000_000 })
  expect(new TextDecoder().decode(await folder.read('b/a.txt'))).toBe('hello')
  await expect(folder.read('b')).rejects.toThrow('There is no file b.')
})

test('a file that is gone when it is read is reported so', async () => {
  const file = { size: 1, arrayBuffer: () => Promise.reject(new Error('gone')) }
  await expect(folderOfFiles([{ path: 'a', file }], 'dist').read('a')).rejects.toThrow('a could not be read')
})

test.each<[string, Record<string, string>, string[]]>([
  ['a folder that was packed', { 'dist/index.html': '', 'dist/a/b.js': '' }, ['a/b.js', 'index.html']],
  ['its files alone', { 'index.html': '', 'a/b.js': '' }, ['a/b.js', 'index.html']],
  ['names that climb out', { '../../x.html': '', '/etc/y': '', 'a/../z': '' }, ['etc/y', 'x.html', 'z']],
])('a zip of %s', async (_, files, expected) => {
  const archive = zipSync(
    Object.fromEntries(Object.entries(files).map(([path, content]) => [path, text(content)])),
  )
  expect(await pathsOf(folderOfZip(archive, 'site.zip'))).toEqual(expected)
})

test('the content comes back as it was packed', async () => {
  const archive = zipSync({ 'a.txt': text('tide '.repeat(1_000)) })
  const bytes = await folderOfZip(archive, 'site.zip').read('a.txt')
  expect(new TextDecoder().decode(bytes)).toBe('tide '.repeat(1_000))
})

test.each([
  ['no archive', text('this is no archive')],
  ['one that was cut off', zipSync({ 'a.txt': text('x'.repeat(500)) }).subarray(0, 60)],
])('%s is refused in one sentence', (_, bytes) => {
  expect(() => folderOfZip(bytes, 'site.zip')).toThrow(
    /^site\.zip is no zip archive that can be read, or was cut off\.$/,
  )
})

test('an archive that says it unpacks to more than a site has is refused before it is unpacked', () => {
  const archive = zipSync({ 'a.txt': text('x') })
  const view = new DataView(archive.buffer, archive.byteOffset)
  // The uncompressed size stands at 24 in the entry of the central directory (APPNOTE 4.3.12).
  const entry = archive.findIndex(
    (_, at) => view.byteLength > at + 4 && view.getUint32(at, true) === 0x02014b50,
  )
  view.setUint32(entry + 24, 2_000_000_000, true)
  expect(() => folderOfZip(archive, 'site.zip')).toThrow('unpacks to more than a site has')
})
