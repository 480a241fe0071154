import type { ReportFormat } from './format.ts'

/** For a person at a terminal. */
export const text: ReportFormat = {
  name: 'text',
  extension: 'txt',
  render: (_, context) => context.text(),
}
