import { expect, test } from 'vitest'
import { UsageError } from './errors.ts'
import { fingerprint, isHashed, withoutHash } from './fingerprint.ts'
import { directoryOf, extensionOf, joinPath, nameOf, walk, within } from './folder.ts'
import { MemoryFolder } from './memory-folder.ts'
import { assumedSite, normaliseBase, parseSite } from './site.ts'

test.each([
  ['assets/index-BSKsdRK0.js', 'assets/index-*.js'],
  ['assets/Sailings-D6SMB2-Q.js', 'assets/Sailings-*.js'],
  ['static/js/main.4f7d20aa.js', 'static/js/main.*.js'],
  ['static/js/453.4f7d20aa.chunk.js', 'static/js/453.*.chunk.js'],
  ['assets/figtree-latin-400-normal-g7Dtegnw.woff2', 'assets/figtree-latin-400-normal-*.woff2'],
  ['main-carousel.js', 'main-carousel.js'],
  ['timetable-winter.txt', 'timetable-winter.txt'],
  ['report-20261124.pdf', 'report-20261124.pdf'],
  ['mark.svg', 'mark.svg'],
  ['Hearts-Card--Quayside-Ultimate.svg', 'Hearts-Card--Quayside-Ultimate.svg'],
  ['pier-editor-1.png', 'pier-editor-1.png'],
  ['pier-abcdef12.js', 'pier-*.js'],
  ['pier-Y2522XSH.js', 'pier-*.js'],
])('%s without its hash is %s', (path, expected) => {
  expect(withoutHash(path)).toBe(expected)
  expect(isHashed(path)).toBe(path !== expected)
})

test('fingerprints are stable, and tell parts from their join', () => {
  expect(fingerprint('a', 'b')).toBe(fingerprint('a', 'b'))
  expect(fingerprint('a', 'b')).not.toBe(fingerprint('ab'))
  expect(fingerprint('')).toBe('cbf29ce484222325')
})

test('paths never climb above the folder', () => {
  expect(joinPath('a/../../../b', './c//d')).toBe('b/c/d')
  expect(directoryOf('a/b/c.js')).toBe('a/b')
  expect(nameOf('a/b/c.js')).toBe('c.js')
  expect(extensionOf('a.b/C.HTML')).toBe('html')
  expect(extensionOf('.env')).toBe('')
})

test('a memory folder lists, walks and reads as a disk does', async () => {
  const folder = new MemoryFolder({ 'b.txt': 'b', 'a/x.txt': 'x', 'a/y/z.txt': 'z' })
  expect(await folder.list('')).toEqual([
    { name: 'a', kind: 'directory' },
    { name: 'b.txt', kind: 'file' },
  ])
  const inner = within(folder, 'a')
  const walked: string[] = []
  for await (const path of walk(inner)) walked.push(path)
  expect(walked).toEqual(['x.txt', 'y/z.txt'])
  await expect(folder.read('nowhere')).rejects.toThrow('There is no file nowhere.')
  await expect(folder.list('nowhere')).rejects.toThrow('There is no directory nowhere.')
  expect(await folder.stat('b.txt')).toEqual({ size: 1, modified: null })
})

test.each([
  ['https://skerryline.example', 'https://skerryline.example/', '/'],
  ['https://skerryline.example/crossings', 'https://skerryline.example/crossings/', '/crossings/'],
  ['http://skerryline.example:8080/a/b/?q#f', 'http://skerryline.example:8080/a/b/', '/a/b/'],
  ['https://skerryline.example/häfen/', 'https://skerryline.example/h%C3%A4fen/', '/h%C3%A4fen/'],
])('the site %s', (text, address, base) => {
  expect(parseSite(text)).toMatchObject({ address, base, given: true })
})

test.each(['skerryline.example', 'ftp://skerryline.example/', '/crossings/', ''])('%j is no site', (text) => {
  expect(() => parseSite(text)).toThrow(UsageError)
})

test('bases have a slash at both ends', () => {
  expect(normaliseBase('crossings')).toBe('/crossings/')
  expect(assumedSite('/').address).toBe('https://site.invalid/')
})
