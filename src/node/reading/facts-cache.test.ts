import { mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from 'vitest'
import { Texts } from '../../core/model/reference-list.ts'
import { FactsCache } from './facts-cache.ts'

const directory = mkdtempSync(join(tmpdir(), 'wardoscope-cache-'))
afterAll(() => rmSync(directory, { recursive: true, force: true }))

const search = { names: [], values: [], paths: [], traces: [], secrets: [] }
const open = (): FactsCache => FactsCache.open(directory, '/srv/site', search, '1')
const file = (): string => {
  const name = readdirSync(directory).find((each) => each.endsWith('.bin'))
  return join(directory, name ?? 'none')
}

function filled(): void {
  const facts = new Map([['key', { numbers: new Uint32Array(), rest: null }]])
  open().write(facts, new Map([['a.js', { key: 'key', stamp: 's' }]]), new Texts())
}

test('what was written is found again', () => {
  filled()
  expect(open().keys).toEqual(['key'])
  expect(open().get('key')).toMatchObject({ rest: null })
})

test('whatever is changed of it, all of it is as if it had never been there', () => {
  filled()
  const whole = readFileSync(file())
  let tried = 0
  for (let at = 0; at < whole.length; at++)
    for (const bit of [1, 128]) {
      const changed = Buffer.from(whole)
      changed[at] = (changed[at] ?? 0) ^ bit
      writeFileSync(file(), changed)
      expect(open().keys, `byte ${at}`).toEqual([])
      tried++
    }
  for (const length of [0, 1, 31, 32, 33, whole.length - 1]) {
    writeFileSync(file(), whole.subarray(0, length))
    expect(open().keys).toEqual([])
  }
  writeFileSync(file(), Buffer.concat([whole, Buffer.from('x')]))
  expect(open().keys).toEqual([])
  expect(tried).toBeGreaterThan(300)
})

test('what another user wrote is not taken', () => {
  filled()
  writeFileSync(join(directory, 'salt'), 'another')
  const whole = readFileSync(file())
  filled()
  const own = readdirSync(directory).filter((each) => each.endsWith('.bin'))
  for (const name of own) writeFileSync(join(directory, name), whole)
  expect(open().keys).toEqual([])
})

test('a run that ends in the middle leaves nothing for ever', () => {
  const left = join(directory, 'facts-a-b.bin.1')
  writeFileSync(left, 'half')
  filled()
  // Another run may be writing it.
  expect(readdirSync(directory)).toContain('facts-a-b.bin.1')
  utimesSync(left, 0, 0)
  filled()
  expect(readdirSync(directory)).not.toContain('facts-a-b.bin.1')
})
