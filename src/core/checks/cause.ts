import type { Place } from '../model/reading.ts'
import type { Fix, RouteAnswer, Severity } from '../model/report.ts'
import type { Request } from '../requests/request.ts'

/** Where a cause shows: an offset in a built file, or none when the file as a whole is meant. */
export interface CausePlace {
  readonly file: string
  readonly offset: number | null
  readonly length: number
  readonly request?: string
  readonly status?: number
  readonly source?: Place
}

/** What to change: the steps, and the texts to write where these are known. */
export type CauseFix = Omit<Fix, 'edits'> & Partial<Pick<Fix, 'edits'>>

/** One cause, with all its places. */
export interface Cause {
  /** Names this cause among others of its code, and stays the same from build to build. */
  readonly key: string
  readonly severity?: Severity
  readonly title?: string
  /** What a visitor sees, in one sentence. */
  readonly impact: string
  /** Why, in one sentence. */
  readonly cause: string
  readonly places: readonly CausePlace[]
  /** How many places there are, when not all are shown. */
  readonly count?: number
  /** Where in the project the cause is, when that is known. */
  readonly source?: Place | null | undefined
  readonly fix: CauseFix
  /** The failing requests and routes this cause explains; no other finding speaks of them. */
  readonly claims?: readonly (Request | RouteAnswer)[]
}

/** A cause with the check that found it. */
export interface Reported<
  Check = { readonly code: string; readonly severity: Severity; readonly title: string },
> {
  readonly check: Check
  readonly cause: Cause
}
