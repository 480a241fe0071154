/** What a folder may weigh. All are bytes but `files`, which is a number of files. */
export interface Limits {
  readonly files: number
  /** Of one file. */
  readonly file: number
  /** Of what a first visit downloads, compressed where it is known compressed. */
  readonly firstVisit: number
  /** Of the whole folder. */
  readonly total: number
}

/** What common hosts take, and what a visitor on a telephone waits for without leaving. */
export const usualLimits: Limits = {
  files: 20_000,
  file: 25_000_000,
  firstVisit: 4_000_000,
  total: 1_000_000_000,
}

/** Limits that somebody set, each in place of the usual one. */
export type LimitsGiven = { readonly [each in keyof Limits]?: number | undefined }

export function limitsWith(given: LimitsGiven = {}): Limits {
  return {
    files: given.files ?? usualLimits.files,
    file: given.file ?? usualLimits.file,
    firstVisit: given.firstVisit ?? usualLimits.firstVisit,
    total: given.total ?? usualLimits.total,
  }
}
