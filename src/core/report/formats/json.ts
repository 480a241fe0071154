import type { ReportFormat } from './format.ts'

/** The whole report, of the published schema. */
export const json: ReportFormat = {
  name: 'json',
  extension: 'json',
  render: (report) => `${JSON.stringify(report, null, 2)}\n`,
}
