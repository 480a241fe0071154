import type { Finding, Report } from '../model/report.ts'

/** What became of findings from one check of a project to the next; accepted ones are left out. */
export interface Between {
  readonly solved: readonly Finding[]
  readonly fresh: readonly Finding[]
  readonly left: readonly Finding[]
}

/** Compares two reports of the same project by what names each cause. */
export function between(before: Report, after: Report): Between {
  const standing = ({ findings }: Report): Finding[] => findings.filter(({ waived }) => !waived)
  const known = new Set(standing(before).map(({ fingerprint }) => fingerprint))
  const now = new Set(standing(after).map(({ fingerprint }) => fingerprint))
  return {
    solved: standing(before).filter(({ fingerprint }) => !now.has(fingerprint)),
    fresh: standing(after).filter(({ fingerprint }) => !known.has(fingerprint)),
    left: standing(after).filter(({ fingerprint }) => known.has(fingerprint)),
  }
}
