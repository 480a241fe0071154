import { gzipSync } from 'node:zlib'
import { type Header, pack } from 'tar-stream'
import { expect, test } from 'vitest'
import { walk } from '../../core/model/folder.ts'
import { folderOfTar } from './tar.ts'

type Headers = Pick<Header, 'name'> & Partial<Header>

async function packed(entries: readonly (readonly [Headers, string?])[]): Promise<Buffer> {
  const archive = pack()
  for (const [header, content = ''] of entries) archive.entry(header, content)
  archive.finalize()
  const parts: Buffer[] = []
  for await (const part of archive) parts.push(part as Buffer)
  return Buffer.concat(parts)
}

async function pathsOf(archive: Uint8Array): Promise<string[]> {
  const found: string[] = []
  for await (const path of walk(await folderOfTar(archive, 'site.tgz'))) found.push(path)
  return found
}

const long = `${'harbour/'.repeat(40)}a.js`

test.each<[string, (archive: Buffer) => Buffer]>([
  ['plain', (archive) => archive],
  ['packed with gzip', (archive) => gzipSync(archive)],
])('the files of an archive, %s', async (_, wrap) => {
  const archive = await packed([
    [{ name: './dist/', type: 'directory' }],
    [{ name: './dist/index.html' }, '<!doctype html>'],
    [{ name: `./dist/${long}` }, 'a()'],
  ])
  expect(await pathsOf(wrap(archive))).toEqual([long, 'index.html'])
  const folder = await folderOfTar(wrap(archive), 'site.tgz')
  expect(new TextDecoder().decode(await folder.read('index.html'))).toBe('<!doctype html>')
})

test.each<[string, Headers[], string]>([
  ['a link', [{ name: 'a', type: 'symlink', linkname: '/etc/passwd' }], 'site.tgz holds a link, a.'],
  ['a hard link', [{ name: 'a' }, { name: 'b', type: 'link', linkname: 'a' }], 'site.tgz holds a link, b.'],
  ['a name that climbs', [{ name: '../a' }], 'site.tgz holds a name that leads out of it, ../a.'],
  ['a file twice', [{ name: 'a' }, { name: './a' }], 'site.tgz holds a twice.'],
  ['a pipe', [{ name: 'a', type: 'fifo' }], 'site.tgz holds a, which is no file.'],
])('an archive with %s is refused in one sentence', async (_, headers, message) => {
  const archive = await packed(headers.map((header) => [header]))
  await expect(folderOfTar(archive, 'site.tgz')).rejects.toThrow(message)
})

test.each<[string, (archive: Buffer) => Buffer]>([
  ['cut off', (archive) => gzipSync(archive).subarray(0, 60)],
  ['of a changed header', (archive) => Buffer.from(archive.map((byte, at) => (at === 20 ? byte ^ 1 : byte)))],
  ['of something else', () => Buffer.from('this is no archive'.repeat(100))],
])('one %s is refused too', async (_, change) => {
  const archive = change(await packed([[{ name: 'index.html' }, '<!doctype html>'.repeat(100)]]))
  await expect(folderOfTar(archive, 'site.tgz')).rejects.toThrow('is no tar archive that can be read')
})
