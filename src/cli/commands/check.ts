import { check } from '../../core/check.ts'
import type { Report } from '../../core/model/report.ts'
import { type FolderFlags, folderOptions } from '../options.ts'
import { knownFormat, writeOut } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { renderReport } from '../terminal/report.ts'
import { styleFor } from '../terminal/style.ts'

/** The options of `check`, as the command line gives them. */
export interface CheckFlags extends FolderFlags {
  readonly format: string
  readonly out?: string
  readonly routes?: boolean
  readonly variables?: boolean
  readonly color: boolean
}

/** May this ship? */
export async function checkCommand(path: string, flags: CheckFlags, streams: Streams): Promise<ExitStatus> {
  const format = knownFormat(flags.format)
  const { folder, options } = await folderOptions(path, flags, streams)
  const progress = progressOn(streams.err, 'reading files')
  const report = await check(folder, { ...options, onProgress: progress.report }).finally(progress.end)
  await deliver(report, format, flags, streams)
  return report.verdict === 'clear' ? exit.clear : exit.held
}

async function deliver(
  report: Report,
  format: string,
  flags: CheckFlags,
  { out, err }: Streams,
): Promise<void> {
  const toFile = flags.out !== undefined
  const text =
    format === 'json'
      ? `${JSON.stringify(report, null, 2)}\n`
      : renderReport(report, toFile ? styleFor({}, false) : styleFor(out, flags.color), {
          routes: flags.routes === true,
          variables: flags.variables === true,
        })
  await writeOut(text, flags.out, { out, err })
}
