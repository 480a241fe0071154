import { checks } from '../core/checks/index.ts'
import type { Report } from '../core/model/report.ts'
import { type CheckOptions, holds } from '../core/pipeline/check.ts'
import { version } from '../node/version.ts'
import { type Style, styleFor } from '../terminal/style.ts'
import { type Delivery, writeOut } from './output.ts'
import type { Streams } from './streams.ts'

/** Writes a report in every form that was requested. The folder was read once. */
export async function deliver(
  report: Report,
  deliveries: readonly Delivery[],
  streams: Streams,
  options: Pick<CheckOptions, 'holdOn' | 'checks'>,
  color: boolean,
  text: (style: Style) => string,
): Promise<void> {
  for (const { format, out } of deliveries) {
    const written =
      format === 'text'
        ? text(out === null ? styleFor(streams.out, color) : styleFor({}, false))
        : await formatted(format, report, options)
    await writeOut(written, out ?? undefined, streams)
  }
}

// Each form is loaded when it is requested.
async function formatted(
  format: string,
  report: Report,
  { holdOn, checks: own = [] }: Pick<CheckOptions, 'holdOn' | 'checks'>,
): Promise<string> {
  const all = [...checks, ...own]
  switch (format) {
    case 'sarif': {
      const { sarifOf } = await import('../core/report/sarif.ts')
      return `${JSON.stringify(sarifOf(report, all, version), null, 2)}\n`
    }
    case 'junit': {
      const { junitOf } = await import('../core/report/junit.ts')
      return junitOf(report, all, (finding) => holds(finding, holdOn))
    }
    case 'markdown': {
      const { markdownOf } = await import('../core/report/markdown.ts')
      return markdownOf(report)
    }
    case 'html': {
      const { htmlReport } = await import('./html-report.ts')
      return htmlReport(report, all)
    }
    default:
      return `${JSON.stringify(report, null, 2)}\n`
  }
}
