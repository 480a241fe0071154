import * as z from 'zod'
import { parseShaped } from '../model/shaped.ts'
import type { Waiver } from '../release/waivers.ts'

/** The name of the file in which findings are accepted one by one, beside the configuration. */
export const acceptedName = 'wardoscope.accepted.json'

const entry = z.strictObject({
  code: z.string().describe('A finding code'),
  fingerprint: z
    .string()
    .regex(/^[\w-]{4,64}$/)
    .describe('The finding, as reports name it'),
})

/** Findings that were accepted as they stood on one day: what is new is not among them. */
export const acceptedSchema = z.strictObject({
  reason: z.string().trim().min(1, 'a reason is needed').describe('Why they are accepted'),
  until: z.iso.date().optional().describe('The last day on which this holds, as in 2027-01-31'),
  findings: z.array(entry),
})

/** @throws {UsageError} when the text has another shape */
export function parseAccepted(file: string, text: string): Waiver[] {
  const { reason, until, findings } = parseShaped(`The file ${file}`, acceptedSchema, text, [
    'reason',
    'until',
    'findings',
    'code',
    'fingerprint',
  ])
  return findings.map((each) => ({ ...each, reason, until }))
}

/** The text of such a file: a line for each finding, in an order that does not change from day to day. */
export function acceptedText(
  findings: readonly { readonly code: string; readonly fingerprint: string }[],
  reason: string,
  until: string | undefined,
): string {
  const lines = findings.map(({ code, fingerprint }) => `    ${JSON.stringify({ code, fingerprint })}`).sort()
  const unique = [...new Set(lines)]
  const head = [
    `  "reason": ${JSON.stringify(reason)},`,
    ...(until === undefined ? [] : [`  "until": "${until}",`]),
  ]
  return [
    '{',
    ...head,
    `  "findings": [${unique.length > 0 ? '' : ']'}`,
    ...(unique.length > 0 ? [unique.join(',\n'), '  ]'] : []),
    '}',
    '',
  ].join('\n')
}
