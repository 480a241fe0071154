import { check } from '../../core/check.ts'
import { deliver } from '../deliver.ts'
import { type FolderFlags, folderOptions } from '../options.ts'
import type { Delivery } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { renderReport } from '../terminal/report.ts'

/** The options of `check`, as the command line gives them. */
export interface CheckFlags extends FolderFlags {
  readonly deliveries: readonly Delivery[]
  readonly routes?: boolean
  readonly variables?: boolean
  readonly weight?: boolean
  readonly color: boolean
}

/** May this ship? */
export async function checkCommand(path: string, flags: CheckFlags, streams: Streams): Promise<ExitStatus> {
  const { folder, options } = await folderOptions(path, flags, streams)
  const progress = progressOn(streams.err, 'reading files')
  const report = await check(folder, { ...options, onProgress: progress.report }).finally(progress.end)
  const shown = {
    routes: flags.routes === true,
    variables: flags.variables === true,
    weight: flags.weight === true,
  }
  await deliver(report, flags.deliveries, streams, options.holdOn, flags.color, (style) =>
    renderReport(report, style, shown),
  )
  return report.verdict === 'clear' ? exit.clear : exit.held
}
