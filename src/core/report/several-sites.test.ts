import { expect, test } from 'vitest'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { check } from '../pipeline/check.ts'

const folder = new MemoryFolder({
  'index.html':
    '<!doctype html><script type=module src="/crossings/a.js"></script><img src="/crossings/gone.png">',
  'a.js': 'fetch("http://localhost:3000/v1/sailings")',
})
const addresses = ['https://skerryline.example/crossings/', 'https://skerryline.test/', 'https://pr.test/17/']

test('one folder at several addresses: each has its verdict, and a cause they share is one finding', async () => {
  const report = await check(folder, { sites: addresses.map(parseSite) })
  expect(report.verdict).toBe('held')
  expect(report.sites.map(({ address }) => address)).toEqual(addresses)
  const bySite = (code: string) =>
    report.findings.filter((each) => each.code === code).map(({ sites }) => sites)
  expect(bySite('endpoint/loopback')).toEqual([addresses])
  expect(bySite('asset/missing')).toEqual([addresses.slice(0, 1)])
  expect(bySite('base/wrong-path')).toEqual([[addresses[1]], [addresses[2]]])
  expect(report.endpoints).toHaveLength(1)
  expect(new Set(report.routes.map(({ site }) => site))).toEqual(new Set(addresses))
  expect(report.sites.map(({ blockers }) => blockers)).toEqual([2, 2, 2])
})

test('an address alone is a report like any other', async () => {
  const [first = ''] = addresses
  const alone = await check(folder, { site: parseSite(first) })
  const listed = await check(folder, { sites: [parseSite(first)] })
  expect({ ...listed, timings: {} }).toEqual({ ...alone, timings: {} })
})

test('a waiver that covers a finding at one address is used', async () => {
  const sites = addresses.slice(0, 2).map(parseSite)
  const { waivers } = await check(folder, { sites, waivers: [{ code: 'asset/missing', reason: 'known' }] })
  expect(waivers.map(({ state }) => state)).toEqual(['used'])
})

test('two addresses: one that is clear does not speak for the other', async () => {
  const sites = addresses.slice(0, 2).map(parseSite)
  const clear = new MemoryFolder({ 'index.html': '<script src="/crossings/a.js"></script>', 'a.js': '' })
  const report = await check(clear, { sites })
  expect(report.sites.map(({ verdict }) => verdict)).toEqual(['clear', 'held'])
  expect(report.verdict).toBe('held')
})
