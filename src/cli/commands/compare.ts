import { stat } from 'node:fs/promises'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestFile } from '../../core/model/folder.ts'
import { unknown } from '../../core/model/unknown.ts'
import { check } from '../../core/pipeline/check.ts'
import type { CheckOptions } from '../../core/pipeline/options.ts'
import { readRecord } from '../../core/release/record.ts'
import { type Release, releaseOf, type Shipped } from '../../core/release/release.ts'
import { preparePath } from '../../node/check-path.ts'
import { isArchive } from '../../node/opening/archive.ts'
import { readNamed } from '../../node/regular-file.ts'
import { renderComparison } from '../../terminal/comparison.ts'
import { deliver } from '../deliver.ts'
import { atOneSite, type FolderFlags, folderOptions } from '../options.ts'
import { type ReportDestination, writeOut } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `compare`, as the command line gives them. */
export interface CompareFlags extends FolderFlags {
  readonly deliveries: readonly ReportDestination[]
  readonly print?: string
  readonly color: boolean
}

/** A larger record is none that was written by us; bytes. */
const largestRecord = largestFile

/** What can be printed by itself, a line each. */
const printable = ['purge', 'gone', 'added', 'chunks-gone'] as const

/** What does this release change? */
export async function compareCommand(
  earlierPath: string,
  path: string,
  flags: CompareFlags,
  streams: Streams,
): Promise<ExitStatus> {
  const print = printedOf(flags.print)
  const { folder, ...found } = await folderOptions(path, flags, streams)
  const options = atOneSite(found.options, 'compare')
  const progress = progressOn(streams.err, 'reading files')
  const earlier = await releaseAt(earlierPath, options, flags)
  const { report: onProgress, stage: onStage } = progress
  const report = await check(folder, { ...options, earlier, onProgress, onStage }).finally(progress.end)
  const { comparison } = report
  if (!comparison) throw new Error('a comparison was requested and not made')
  if (print !== null) {
    const lists = {
      purge: comparison.purge,
      gone: comparison.gone.map((file) => file.path),
      added: comparison.added.map((file) => file.path),
      'chunks-gone': comparison.chunksGone,
    }
    await writeOut(lists[print].map((line) => `${line}\n`).join(''), undefined, streams)
    return exit.clear
  }
  await deliver(report, flags.deliveries, streams, options, flags.color, (style) =>
    renderComparison(report, earlierPath, style),
  )
  return report.verdict === 'clear' ? exit.clear : exit.held
}

function printedOf(name: string | undefined): (typeof printable)[number] | null {
  if (name === undefined) return null
  const known = printable.find((each) => each === name)
  if (known) return known
  throw new UsageError(unknown('list', name, printable))
}

/** A release from its record, or from the folder itself. */
export async function releaseAt(
  path: string,
  options: CheckOptions,
  flags: Pick<FolderFlags, 'cache'>,
): Promise<Release> {
  const found = await stat(path).catch(() => null)
  if (found === null) {
    throw new FolderError('missing', `There is no release record and no folder at ${path}.`)
  }
  if (found.isFile() && !isArchive(path))
    return readRecord(path, readNamed(path, largestRecord).toString('utf8'))
  const { folder, options: own } = await preparePath(path, { cache: flags.cache })
  let shipped: Shipped | null = null
  await check(folder, {
    ...options,
    ...(own.around ? { around: own.around } : {}),
    build: own.build ?? null,
    project: null,
    history: null,
    onShipped: (each) => {
      shipped = each
    },
  })
  if (shipped === null) throw new Error('a folder was looked at and nothing was shipped')
  return releaseOf(shipped)
}
