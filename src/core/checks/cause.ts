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

/** One cause, as a check gives it: what is left out, or said shortly, is what most have. */
export interface Cause {
  /** Names this cause among others of its code, and stays the same from build to build. */
  readonly key: string
  /** Where it is not the check's own. */
  readonly severity?: Severity | undefined
  readonly title?: string | undefined
  /** What a visitor sees, in one sentence. */
  readonly impact: string
  /** Why, in one sentence. */
  readonly cause: string
  /** Where it shows; a path alone is a file as a whole. */
  readonly places?: readonly (CausePlace | string)[]
  /** How many places there are, when not all are shown. */
  readonly count?: number
  /** Where in the project the cause is, when that is known. */
  readonly source?: Place | null | undefined
  /** What to change; steps alone are the usual fix. */
  readonly fix: CauseFix | readonly string[]
  /** The failing requests and routes this cause explains; no other finding speaks of them. */
  readonly claims?: readonly (Request | RouteAnswer)[]
}

/** A cause with its places and its fix written out. */
export interface FullCause extends Omit<Cause, 'places' | 'fix'> {
  readonly places: readonly CausePlace[]
  readonly fix: CauseFix
}

/** Writes a cause out. */
export function inFull({ places = [], fix, ...cause }: Cause): FullCause {
  return {
    ...cause,
    places: places.map((place) =>
      typeof place === 'string' ? { file: place, offset: null, length: 0 } : place,
    ),
    fix: 'steps' in fix ? fix : { steps: [...fix] },
  }
}

/** A cause with the check that found it. */
export interface Reported<
  Check = { readonly code: string; readonly severity: Severity; readonly title: string },
> {
  readonly check: Check
  readonly cause: FullCause
}
