import type { Check } from '../../checks/check.ts'
import type { Explanations } from '../../checks/explanation.ts'
import type { Finding, Report } from '../../model/report.ts'
import type { Viewer } from './html.ts'

/** What a format may need beside the report. */
export interface RenderContext {
  /** The checks that ran, those of one's own included. */
  readonly checks: readonly Check[]
  /** The program's version. */
  readonly version: string
  /** Whether a finding keeps the build from shipping. */
  readonly holds: (finding: Finding) => boolean
  /** When the report is made. */
  readonly now: Date
  /** What the codes of the report mean. */
  explanations(): Promise<Explanations>
  /** The report as the caller's own text, for a terminal. */
  text(): string
  /** The pages that show a report. */
  viewer(): Promise<Viewer>
  /** Pictures of a rehearsal as data URLs, by the path that the report names. */
  pictures(): Promise<Readonly<Record<string, string>>>
}

/** A form in which a report is written. Adding one is a file like those beside this, and a line in the list. */
export interface ReportFormat {
  readonly name: string
  /** What files of this format end in, without the dot. */
  readonly extension: string
  render(report: Report, context: RenderContext): string | Promise<string>
}
