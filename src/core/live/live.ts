import type { Report } from '../model/report.ts'

/** What an address serves, held against a folder. */
export type Live = NonNullable<Report['live']>

/** A file, or a page, and what came for it. */
export type LiveFile = Live['wrongType'][number]

/** A file whose content is not the one that was built. */
export type LiveDifference = Live['differing'][number]

/** How what an address serves differs from the file that was built. */
export type LiveState = LiveDifference['state']

/** A route that is answered otherwise than the host model predicted. */
export type LiveRoute = Live['routes'][number]
