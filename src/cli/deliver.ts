import { defineCheck } from '../core/checks/check.ts'
import { checks } from '../core/checks/index.ts'
import type { Report } from '../core/model/report.ts'
import type { CheckOptions } from '../core/pipeline/options.ts'
import { holds } from '../core/pipeline/report.ts'
import { explanationsOf } from '../node/explanations.ts'
import { version } from '../node/version.ts'
import { type Style, styleFor } from '../terminal/style.ts'
import { type ReportDestination, writeOut } from './output.ts'
import type { Streams } from './streams.ts'
import { picturesOf, viewer } from './viewer-files.ts'

/** Writes a report in every form that was requested. The folder was read once. */
export async function deliver(
  report: Report,
  deliveries: readonly ReportDestination[],
  streams: Streams,
  { holdOn, checks: own = [] }: Pick<CheckOptions, 'holdOn' | 'checks'>,
  color: boolean,
  text: (style: Style) => string,
): Promise<void> {
  const all = [...checks, ...own.map(defineCheck)]
  const found = all.filter(({ code }) => report.findings.some((finding) => finding.code === code))
  for (const { format, out, append } of deliveries) {
    const written = await format.render(report, {
      checks: all,
      version,
      holds: (finding) => holds(finding, holdOn),
      now: new Date(),
      text: () => text(out === null ? styleFor(streams.out, color) : styleFor({}, false, {})),
      explanations: () => explanationsOf(found),
      viewer,
      pictures: () => picturesOf(report),
    })
    await writeOut(written, out ?? undefined, streams, append)
  }
}
