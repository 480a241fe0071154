import { gzipSync } from 'node:zlib'
import {
  check,
  type Folder,
  MemoryFolder,
  parseSite,
  presetNamed,
  type Release,
  recordOf,
  releaseOf,
  type Shipped,
  writeRecord,
} from '../../../src/core/index.ts'
import { addresses, buildOf } from './build.ts'
import { type SampleRelease, sampleReleases } from './releases.ts'

/** A report or a record of a made-up release. */
export interface SampleFile {
  readonly name: string
  readonly text: string
}

/** The reports and records of all made-up releases: each is checked for real, and compared with the one before. */
export async function sampleFiles(): Promise<readonly SampleFile[]> {
  const files: SampleFile[] = []
  const earlier = new Map<string, Release>()
  for (const release of sampleReleases()) {
    const { report, shipped } = await checked(release, earlier.get(release.project) ?? null)
    earlier.set(release.project, shipped)
    const { verdict, sites } = report
    const record = recordOf(shipped, {
      verdict,
      program: '0.1.0',
      sites: sites.map(({ address }) => address),
    })
    const name = `${release.project}-${release.date}`
    files.push({ name: `${name}.report.json`, text: JSON.stringify(report) })
    files.push({ name: `${name}.record.json`, text: writeRecord(record) })
  }
  return files
}

async function checked(release: SampleRelease, earlier: Release | null) {
  let shipped: Shipped | null = null
  const report = await check(new MemoryFolder(buildOf(release)), {
    site: parseSite(addresses[release.project]),
    host: presetNamed('files'),
    earlier,
    today: release.date,
    compress: zipped,
    onShipped: (each) => {
      shipped = each
    },
  })
  if (shipped === null) throw new Error(`${release.project} of ${release.date} was not looked at.`)
  return { report, shipped: await releaseOf(shipped) }
}

function zipped(build: Folder) {
  return async (paths: readonly string[]) => {
    const sizes = new Map<string, { gzip: number; brotli: null }>()
    for (const path of paths) sizes.set(path, { gzip: gzipSync(await build.read(path)).length, brotli: null })
    return sizes
  }
}
