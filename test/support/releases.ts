import { presetNamed } from '../../src/core/host/presets.ts'
import type { Folder } from '../../src/core/model/folder.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { check } from '../../src/core/pipeline/check.ts'
import { readRecord, recordOf, writeRecord } from '../../src/core/release/record.ts'
import { type Release, releaseOf, type Shipped } from '../../src/core/release/release.ts'

const site = parseSite('https://skerryline.example/crossings/')

/** How a release was judged, for its record. */
export const judged = { verdict: 'clear', sites: [site.address], program: '0.0.0' } as const

/** What a folder ships, read back from its record. */
export async function recorded(folder: Folder, hostName: string, at = site): Promise<Release> {
  let shipped: Shipped | undefined
  await check(folder, {
    site: at,
    host: presetNamed(hostName),
    onShipped: (each) => {
      shipped = each
    },
  })
  if (!shipped) throw new Error('nothing was shipped')
  return readRecord('a.json', writeRecord(recordOf(await releaseOf(shipped), judged)))
}
