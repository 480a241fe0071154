import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { zipSync } from 'fflate'
import { expect, test } from 'vitest'
import { presetNamed } from '../../src/core/host/presets.ts'
import { MemoryFolder } from '../../src/core/model/memory-folder.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { folderOfZip } from '../../src/core/model/zip-folder.ts'
import { check } from '../../src/core/pipeline/check.ts'
import { checkPath } from '../../src/node/check-path.ts'
import { folderWith } from '../support/folders.ts'
import { folders } from './folders.mjs'
import { mutated } from './mutate.mjs'

const site = 'https://skerryline.example/b/'

/** A report without what differs from run to run. */
function told(report: object): unknown {
  const { timings: _, freshness: __, ...rest } = report as Record<string, unknown>
  return JSON.parse(JSON.stringify(rest).replace(/"path":"[^"]*site[^"]*"/g, '"path":""'))
}

/** Names that a disk takes as they are. */
const isPlain = (files: Readonly<Record<string, string>>): boolean => {
  const names = Object.keys(files)
  return names.every(
    (name) =>
      /^[\w.@[\]-]+(?:\/[\w.@[\]-]+)*$/.test(name) &&
      !/(?:^|\/)\.{1,2}(?:\/|$)/.test(name) &&
      !names.some((other) => other.startsWith(`${name}/`)),
  )
}

/** Changed folders that a disk can hold, of many. */
const seeds = Array.from({ length: 400 }, (_, seed) => seed)
  .filter((seed) => isPlain(mutated(folders.slice(0, 2), seed)))
  .slice(0, 24)

test('there are enough folders that a disk can hold', () => {
  expect(seeds).toHaveLength(24)
})

test.each(seeds)(
  'from memory in any order, a zip, a disk and its cache: folder %i gives one report',
  async (seed) => {
    const files = mutated(folders.slice(0, 2), seed)
    const options = { site: parseSite(site), host: presetNamed('fallback') }
    const bytes = Object.fromEntries(
      Object.entries(files).map(([name, text]) => [name, new TextEncoder().encode(text)]),
    )
    const turned = Object.fromEntries(Object.entries(files).reverse())
    const expected = told(await check(new MemoryFolder(files, 'site'), options))
    expect(told(await check(new MemoryFolder(turned, 'site'), options))).toEqual(expected)
    const zip = zipSync(
      Object.fromEntries(Object.entries(bytes).map(([name, each]) => [`site/${name}`, each])),
    )
    expect(told(await check(folderOfZip(zip, 'site'), options))).toEqual(expected)
    const root = folderWith(files)
    const cache = mkdtempSync(join(tmpdir(), 'wardoscope-same-'))
    process.env.XDG_CACHE_HOME = cache
    const onDisk = async () => told(await checkPath(root, { site, host: 'fallback' }))
    const first = await onDisk()
    expect(await onDisk()).toEqual(first)
    expect(codesOf(first)).toEqual(codesOf(expected))
    rmSync(cache, { recursive: true, force: true })
  },
)

function codesOf(report: unknown): unknown {
  const { findings, assets, routes } = report as Record<string, { code?: string; severity?: string }[]>
  return [findings?.map(({ code, severity }) => `${code} ${severity}`), assets, routes]
}
