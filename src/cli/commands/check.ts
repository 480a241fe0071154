import { check } from '../../core/pipeline/check.ts'
import { holds } from '../../core/pipeline/report.ts'
import type { Shipped } from '../../core/release/release.ts'
import { renderReport, renderShort } from '../../terminal/report.ts'
import { deliver } from '../deliver.ts'
import { type FolderFlags, folderOptions } from '../options.ts'
import type { ReportDestination } from '../output.ts'
import { progressOn } from '../progress.ts'
import { keepRecord } from '../record.ts'
import { inReview, type ReviewFlags } from '../review.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `check`, as the command line gives them. */
export interface CheckFlags extends FolderFlags, ReviewFlags {
  readonly deliveries: readonly ReportDestination[]
  readonly all?: boolean
  readonly watch?: boolean
  readonly routes?: boolean
  readonly variables?: boolean
  readonly weight?: boolean
  readonly timings?: boolean
  readonly record?: string
  readonly quiet?: boolean
  readonly color: boolean
}

/** May this ship? */
export async function checkCommand(path: string, flags: CheckFlags, streams: Streams): Promise<ExitStatus> {
  const { folder, options } = await folderOptions(path, flags, streams)
  const progress = progressOn(streams.err, 'reading files')
  let shipped: Shipped | null = null
  const onShipped = (each: Shipped): void => {
    shipped ??= each
  }
  const whole = await check(folder, {
    ...options,
    onShipped,
    onProgress: progress.report,
    onStage: progress.stage,
  }).finally(progress.end)
  const report = await inReview(whole, folder.origin?.root ?? null, flags)
  if (flags.record !== undefined && shipped) await keepRecord(flags.record, shipped, report, streams)
  const shown = {
    routes: flags.routes === true,
    variables: flags.variables === true,
    weight: flags.weight === true,
    timings: flags.timings === true,
  }
  await deliver(report, flags.deliveries, streams, options, flags.color, (style) =>
    flags.quiet
      ? renderShort(report, (finding) => holds(finding, options.holdOn))
      : renderReport(report, style, shown),
  )
  return report.verdict === 'clear' ? exit.clear : exit.held
}
