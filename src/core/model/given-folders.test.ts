import { zipSync } from 'fflate'
import { expect, test } from 'vitest'
import { folderOfFiles } from './blob-folder.ts'
import { FolderError } from './errors.ts'
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

test.each<[string, string]>([
  ['../../x.html', 'holds a name that leads out of it, ../../x.html'],
  ['/etc/y', 'holds a name that leads out of it, /etc/y'],
  ['a/../../z', 'holds a name that leads out of it, a/../../z'],
  ['c:/x', 'holds a name that leads out of it, c:/x'],
])('an archive that holds %s is refused', (path, why) => {
  expect(() => folderOfZip(zipSync({ [path]: text('x') }), 'site.zip')).toThrow(`site.zip ${why}.`)
})

/** Changes the numbers of an archive's directory; offsets are those of its entries (APPNOTE 4.3.12). */
function changed(archive: Uint8Array, change: (view: DataView, entries: number[]) => void): Uint8Array {
  const copy = Uint8Array.from(archive)
  const view = new DataView(copy.buffer)
  const entries: number[] = []
  for (let at = 0; at + 4 <= copy.length; at++) if (view.getUint32(at, true) === 0x02014b50) entries.push(at)
  change(view, entries)
  return copy
}

const two = zipSync({ 'a.txt': text('tide '.repeat(100)), 'b.txt': [text('quay'), { level: 0 }] })

test.each<[string, (view: DataView, entries: number[]) => void, string]>([
  ['encrypted', (view, [at = 0]) => view.setUint16(at + 8, 1, true), 'holds a.txt encrypted'],
  ['a link', (view, [at = 0]) => view.setUint32(at + 38, 0o120777 << 16, true), 'holds a link, a.txt'],
  ['of another size', (view, [at = 0]) => view.setUint32(at + 24, 499, true), 'holds another a.txt'],
  ['of another checksum', (view, [, at = 0]) => view.setUint32(at + 16, 1, true), 'holds another b.txt'],
  [
    'packed in another way',
    (view, [at = 0]) => view.setUint16(at + 10, 12, true),
    'in a way that is not read',
  ],
  [
    'somewhere else',
    (view, [, at = 0]) => view.setUint32(at + 42, 0, true),
    'does not hold b.txt where its directory says',
  ],
  [
    'of the large form',
    (view, [at = 0]) => view.setUint32(at + 24, 0xffffffff, true),
    'of the large form (zip64)',
  ],
])('an archive with a file that is %s is refused', (_, change, why) => {
  expect(() => folderOfZip(changed(two, change), 'site.zip')).toThrow(why)
})

test('a byte that is changed anywhere is refused, or changes no file', async () => {
  const whole = folderOfZip(two, 'site.zip')
  const contentOf = async (folder: typeof whole): Promise<string[]> => {
    const found: string[] = []
    for (const path of await pathsOf(folder)) found.push(path, String(await folder.read(path)))
    return found
  }
  const sound = await contentOf(whole)
  for (let at = 0; at < two.length; at++) {
    for (const bit of [1, 4, 128]) {
      const copy = Uint8Array.from(two)
      copy[at] = (copy[at] ?? 0) ^ bit
      let folder: typeof whole
      try {
        folder = folderOfZip(copy, 'site.zip')
      } catch (error) {
        expect(error).toBeInstanceOf(FolderError)
        continue
      }
      expect(await contentOf(folder)).toEqual(sound)
    }
  }
})

test('an archive that unpacks to more than it says is not unpacked to its end', () => {
  const bomb = zipSync({ 'a.txt': new Uint8Array(50_000_000) })
  const small = changed(bomb, (view, [at = 0]) => view.setUint32(at + 24, 1_000, true))
  expect(() => folderOfZip(small, 'site.zip')).toThrow('holds another a.txt than its directory says')
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
