import { compareReleases, parseSite, presetNamed } from '../../../src/core/index.ts'
import type { Entry, LoggedFinding } from './entry.ts'

/** A release with what changed since the one before it. */
export interface Step {
  readonly entry: Entry
  /** Null where one of the two has no report. */
  readonly solved: readonly LoggedFinding[] | null
  readonly fresh: readonly LoggedFinding[] | null
  /** Findings that stand in it, by severity. */
  readonly standing: Readonly<Record<LoggedFinding['severity'], number>> | null
  /** Paths that caches have to forget; null where neither the report nor two records tell. */
  readonly purge: number | null
  /** The heaviest first visit; bytes. */
  readonly heaviest: number | null
}

/** A project of the log. */
export interface Project {
  readonly address: string
  readonly name: string
  readonly steps: readonly Step[]
}

/** The entries as projects with their releases in order. */
export function projectsOf(entries: readonly Entry[]): Project[] {
  const byAddress = new Map<string, Entry[]>()
  for (const entry of entries) byAddress.set(entry.address, [...(byAddress.get(entry.address) ?? []), entry])
  return [...byAddress].map(([address, all]) => {
    const ordered = [...all].sort((a, b) => a.when.localeCompare(b.when))
    return {
      address,
      name: ordered.findLast(({ project }) => project !== null)?.project ?? address,
      steps: ordered.map((entry, index) => stepOf(entry, ordered[index - 1] ?? null)),
    }
  })
}

function stepOf(entry: Entry, before: Entry | null): Step {
  const now = standingIn(entry)
  const earlier = before && standingIn(before)
  const weights = [
    ...(entry.report?.visits.map(({ bytes }) => bytes) ?? []),
    ...(entry.record?.routes.flatMap(({ download }) => download ?? []) ?? []),
  ]
  return {
    entry,
    fresh: now && earlier && lacking(now, earlier),
    solved: now && earlier && lacking(earlier, now),
    standing: now && countsOf(now),
    purge: entry.report?.purge ?? purgeBetween(before, entry),
    heaviest: weights.length > 0 ? Math.max(...weights) : null,
  }
}

function standingIn({ report }: Entry): readonly LoggedFinding[] | null {
  return report?.findings.filter(({ waived }) => !waived) ?? null
}

/** Those of a list whose cause another list does not have; what is only worth knowing is left out. */
function lacking(list: readonly LoggedFinding[], other: readonly LoggedFinding[]): LoggedFinding[] {
  const known = new Set(other.map(({ fingerprint }) => fingerprint))
  return list.filter(({ fingerprint, severity }) => severity !== 'note' && !known.has(fingerprint))
}

function countsOf(findings: readonly LoggedFinding[]): Record<LoggedFinding['severity'], number> {
  const counts = { blocker: 0, caution: 0, note: 0 }
  for (const { severity } of findings) counts[severity]++
  return counts
}

/** A record does not say how its host answers: plain files are assumed. */
function purgeBetween(before: Entry | null, after: Entry): number | null {
  const host = presetNamed('files')
  if (!before?.record || !after.record || !host) return null
  return compareReleases(before.record, after.record, { site: parseSite(after.address), host }).purge.length
}
