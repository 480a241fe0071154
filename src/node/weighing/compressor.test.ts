import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { MemoryFolder } from '../../core/model/memory-folder.ts'
import { compressor } from './compressor.ts'

const text = 'Skerry Line sails at dawn. '.repeat(2_000)
const folder = new MemoryFolder({ 'a.js': text, 'b.js': text, 'c.js': 'short' })

test('sizes are those of real compression, and one that is not there is left out', async () => {
  const sizes = await compressor(null)(folder)(['a.js', 'c.js', 'gone.js'])
  expect([...sizes.keys()].sort()).toEqual(['a.js', 'c.js'])
  const { gzip = 0, brotli = 0 } = sizes.get('a.js') ?? {}
  expect(gzip).toBeGreaterThan(50)
  expect(brotli).toBeGreaterThan(20)
  expect(gzip).toBeLessThan(text.length / 50)
  expect(brotli).toBeLessThan(gzip)
})

test('what was compressed is known again by its content; a broken cache is written anew', async () => {
  const cache = mkdtempSync(join(tmpdir(), 'compressed-'))
  const file = join(cache, 'compressed.json')
  const first = await compressor(cache)(folder)(['a.js', 'b.js', 'c.js'])
  const kept: unknown = JSON.parse(readFileSync(file, 'utf8'))
  expect(kept).toHaveLength(2)
  // Another size under the same content shows that it is read and not compressed again.
  writeFileSync(file, readFileSync(file, 'utf8').replaceAll(String(first.get('a.js')?.gzip), '77777'))
  expect((await compressor(cache)(folder)(['a.js'])).get('a.js')?.gzip).toBe(77_777)
  writeFileSync(file, '[["x"')
  expect(await compressor(cache)(folder)(['a.js', 'c.js'])).toEqual(
    new Map([...first].filter(([path]) => path !== 'b.js').reverse()),
  )
})
