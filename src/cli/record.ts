import type { Report } from '../core/model/report.ts'
import { recordOf, writeRecord } from '../core/release/record.ts'
import { releaseOf, type Shipped } from '../core/release/release.ts'
import { version } from '../node/version.ts'
import { writeOut } from './output.ts'
import type { Streams } from './streams.ts'

/** Keeps what was checked, for `compare` to read when the next release is made. */
export async function keepRecord(
  file: string,
  shipped: Shipped,
  { verdict, sites }: Pick<Report, 'verdict' | 'sites'>,
  streams: Streams,
): Promise<void> {
  const addresses = sites.map(({ address }) => address)
  const record = recordOf(await releaseOf(shipped), { verdict, sites: addresses, program: version })
  await writeOut(writeRecord(record), file, streams)
}
