import { UsageError } from '../core/model/errors.ts'
import type { Report } from '../core/model/report.ts'
import { byChange, filesOfFindings } from '../core/report/by-change.ts'
import { changesSince } from '../node/git/changes.ts'

/** What tells the findings of a change in review apart. */
export interface ReviewFlags {
  readonly changedSince?: string
  readonly onlyChanged?: boolean
}

/** The report as a review of a change wants it; as it is, where none is named. @throws {UsageError} when git knows no such revision */
export async function inReview(
  report: Report,
  directory: string | null,
  { changedSince, onlyChanged = false }: ReviewFlags,
): Promise<Report> {
  if (changedSince === undefined) {
    if (onlyChanged)
      throw new UsageError(
        '--only-changed needs a revision to hold against. Give --changed-since too, as in main.',
      )
    return report
  }
  if (directory === null)
    throw new UsageError(`--changed-since ${changedSince}: this is in no git repository.`)
  const changes = await changesSince(directory, changedSince, filesOfFindings(report))
  return byChange(report, changes, onlyChanged)
}
