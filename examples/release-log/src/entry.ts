import * as z from 'zod'
import { type Release, readRecord } from '../../../src/core/index.ts'

/** What of a report is shown over time; keys of reports are only ever added to. */
const reportSchema = z.object({
  schema: z.literal('wardoscope-report/1'),
  verdict: z.enum(['clear', 'held']),
  sites: z.array(z.object({ address: z.string() })).min(1),
  survey: z.object({ project: z.nullable(z.object({ value: z.nullable(z.string()) })) }),
  folder: z.object({ files: z.number(), bytes: z.number() }),
  findings: z.array(
    z.object({
      code: z.string(),
      severity: z.enum(['blocker', 'caution', 'note']),
      title: z.string(),
      fingerprint: z.string(),
      waived: z.boolean(),
    }),
  ),
  delivery: z.object({
    firstVisit: z.array(z.object({ route: z.string(), bytes: z.number(), gzip: z.nullable(z.number()) })),
  }),
  comparison: z.nullable(z.object({ purge: z.array(z.string()) })),
})

const recordHead = z.object({
  schema: z.literal('wardoscope-record/1'),
  verdict: z.enum(['clear', 'held']),
  sites: z.array(z.string()).min(1),
})

/** A finding, as far as the log shows it. */
export type LoggedFinding = z.infer<typeof reportSchema>['findings'][number]

/** What the log keeps of one release. A release has a report, a record, or both. */
export interface Entry {
  /** The address and the time: one release of one project. */
  readonly id: string
  readonly address: string
  /** Null where no report says it. */
  readonly project: string | null
  /** To the minute, in UTC: `2026-02-03T00:00`. */
  readonly when: string
  readonly verdict: 'clear' | 'held'
  readonly report: {
    readonly findings: readonly LoggedFinding[]
    readonly files: number
    readonly bytes: number
    /** What opening a route downloads, by route; bytes, compressed where that is known. */
    readonly visits: readonly { readonly route: string; readonly bytes: number }[]
    /** Paths that caches have to forget; null when it was compared with nothing. */
    readonly purge: number | null
  } | null
  readonly record: Release | null
}

/** A file could not be taken into the log. */
export class NotALogFile extends Error {}

/** A larger file is no report that a page can show; bytes. */
export const largestFile = 50_000_000

/**
 * Reads a report (`wardoscope-report/1`) or a record (`wardoscope-record/1`).
 * @param name tells the time, where a date is in it
 * @param modified the file's own time, where its name tells none; milliseconds since the epoch
 * @throws {NotALogFile} with a sentence for a person
 */
export function entryOf(name: string, modified: number, text: string): Entry {
  const content = jsonOf(name, text)
  const when = timeOf(name) ?? new Date(modified).toISOString().slice(0, 16)
  const report = reportSchema.safeParse(content)
  if (report.success) return ofReport(report.data, when)
  const head = recordHead.safeParse(content)
  if (!head.success)
    throw new NotALogFile(
      `${name} is neither a report (wardoscope-report/1) nor a record (wardoscope-record/1).`,
    )
  const [address = ''] = head.data.sites
  return {
    id: `${address} ${when}`,
    address,
    project: null,
    when,
    verdict: head.data.verdict,
    report: null,
    record: recordIn(name, text),
  }
}

function ofReport(
  { verdict, sites, survey, folder, findings, delivery, comparison }: z.infer<typeof reportSchema>,
  when: string,
): Entry {
  const address = sites[0]?.address ?? ''
  return {
    id: `${address} ${when}`,
    address,
    project: survey.project?.value ?? null,
    when,
    verdict,
    report: {
      findings,
      ...folder,
      visits: delivery.firstVisit.map(({ route, bytes, gzip }) => ({ route, bytes: gzip ?? bytes })),
      purge: comparison?.purge.length ?? null,
    },
    record: null,
  }
}

/** One entry from the two files of a release. */
export function merged(known: Entry | undefined, fresh: Entry): Entry {
  if (!known) return fresh
  return {
    ...fresh,
    project: fresh.project ?? known.project,
    report: fresh.report ?? known.report,
    record: fresh.record ?? known.record,
  }
}

function recordIn(name: string, text: string): Release {
  try {
    return readRecord(name, text)
  } catch (error) {
    throw new NotALogFile(error instanceof Error ? error.message : String(error))
  }
}

function jsonOf(name: string, text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw new NotALogFile(`${name} is not JSON. Was it cut off?`)
  }
}

/** The date in a name, with the time where it says one: `2026-02-03`, `2026-02-03T14-05`. */
function timeOf(name: string): string | null {
  const [, date = '', hour = '00', minute = '00'] =
    /(\d{4}-\d\d-\d\d)(?:[T_ -](\d\d)[:-]?(\d\d))?/.exec(name) ?? []
  return Number.isNaN(Date.parse(`${date}T${hour}:${minute}:00Z`)) ? null : `${date}T${hour}:${minute}`
}
