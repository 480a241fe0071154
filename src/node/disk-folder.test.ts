import { mkdirSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { folderWith } from '../../test/support/folders.ts'
import { walk } from '../core/model/folder.ts'
import { DiskFolder } from './disk-folder.ts'

async function walked(folder: DiskFolder): Promise<string[]> {
  const found: string[] = []
  for await (const path of walk(folder)) found.push(path)
  return found
}

test('files come sorted, with their sizes', async () => {
  const folder = await DiskFolder.open(folderWith({ 'b.txt': 'bb', 'a/z.txt': '', 'a/y.txt': '' }))
  expect(await walked(folder)).toEqual(['a/y.txt', 'a/z.txt', 'b.txt'])
  expect(await folder.stat('b.txt')).toMatchObject({ size: 2 })
  expect(await folder.stat('a')).toBeNull()
  expect(await folder.stat('nowhere/x')).toBeNull()
})

test('links are followed only as far as they stay inside', async () => {
  const outside = folderWith({ 'secret.txt': 'secret', 'deep/secret.txt': 'secret' })
  const inside = folderWith({ 'real.txt': 'real' })
  symlinkSync(join(inside, 'real.txt'), join(inside, 'good.txt'))
  symlinkSync(join(outside, 'secret.txt'), join(inside, 'bad.txt'))
  symlinkSync(outside, join(inside, 'away'))
  symlinkSync(inside, join(inside, 'circle'))
  symlinkSync(join(inside, 'nothing'), join(inside, 'broken.txt'))
  const folder = await DiskFolder.open(inside)
  expect(await walked(folder)).toEqual(['good.txt', 'real.txt'])
  await expect(folder.read('bad.txt')).rejects.toThrow('bad.txt leads out of')
  await expect(folder.read('away/secret.txt')).rejects.toThrow('leads out of')
  await expect(folder.list('away/deep')).rejects.toThrow('leads out of')
  await expect(folder.read('broken.txt')).rejects.toThrow('There is no file at broken.txt.')
  // Not the file of that name inside.
  await expect(folder.read('../real.txt')).rejects.toThrow('../real.txt is outside of')
})

test('a link to a directory inside is followed once, and none leads back up', async () => {
  const path = folderWith({ 'b/x.js': '1', 'b/deep/y.js': '2' })
  symlinkSync('b', join(path, 'a'))
  symlinkSync('..', join(path, 'b/up'))
  symlinkSync('deep', join(path, 'b/near'))
  const folder = await DiskFolder.open(path)
  expect(await walked(folder)).toEqual(['a/deep/y.js', 'a/x.js', 'b/deep/y.js', 'b/near/y.js', 'b/x.js'])
  expect(new TextDecoder().decode(await folder.read('a/x.js'))).toBe('1')
  const kinds = Object.fromEntries((await folder.list('a')).map(({ name, kind }) => [name, kind]))
  expect(kinds).toEqual({ deep: 'directory', near: 'other', up: 'other', 'x.js': 'file' })
})

test('what is not there, and what is no directory, is said in one sentence', async () => {
  const path = folderWith({ 'a.txt': '' })
  await expect(DiskFolder.open(join(path, 'no'), 'no')).rejects.toThrow('There is no directory at no.')
  await expect(DiskFolder.open(join(path, 'a.txt'), 'a.txt')).rejects.toThrow(
    'a.txt is a file, not a directory.',
  )
  const folder = await DiskFolder.open(path)
  await expect(folder.list('a.txt/b')).rejects.toThrow('There is no directory at a.txt/b.')
})

test('a file that vanishes between listing and reading is missing, not a defect', async () => {
  const path = folderWith({ 'a.txt': 'a' })
  const folder = await DiskFolder.open(path)
  await folder.list('')
  const { rmSync } = await import('node:fs')
  rmSync(join(path, 'a.txt'))
  await expect(folder.read('a.txt')).rejects.toMatchObject({ name: 'FolderError', reason: 'missing' })
})

test('names of every kind are only names', async () => {
  const path = folderWith({})
  mkdirSync(join(path, ' '))
  for (const name of ['-rf', '$(x)', 'a\nb', '%2e%2e', '..x']) writeFileSync(join(path, name), name)
  const folder = await DiskFolder.open(path)
  expect((await walked(folder)).sort()).toEqual(['$(x)', '%2e%2e', '-rf', '..x', 'a\nb'].sort())
})
