import picomatch from 'picomatch'
import type { Finding, Report } from '../model/report.ts'

/** Accepts findings: of a code, in places, for a reason, until a day. */
export interface Waiver {
  readonly code: string
  /** A pattern for the files it is meant for; all when there is none. */
  readonly where?: string | undefined
  /** The one finding it is meant for; all of its code when there is none. */
  readonly fingerprint?: string | undefined
  readonly reason: string
  /** The last day on which it holds, `2027-01-31`; for ever when there is none. */
  readonly until?: string | undefined
}

/** Findings with the waivers that cover them, and what became of each waiver. */
export interface Waived {
  readonly findings: Finding[]
  readonly waivers: Report['waivers']
}

/**
 * Lays waivers on findings.
 * @param today the day, `2026-11-25`; a waiver that ended before it covers nothing
 */
export function applyWaivers(
  findings: readonly Finding[],
  waivers: readonly Waiver[],
  today: string,
): Waived {
  const holding = waivers.filter((waiver) => !isOver(waiver, today))
  const used = new Set<Waiver>()
  const covered = findings.map((finding): Finding => {
    const waiver = holding.find((each) => covers(each, finding))
    if (!waiver) return finding
    used.add(waiver)
    return { ...finding, waived: true, waiver: { reason: waiver.reason, until: waiver.until ?? null } }
  })
  return {
    findings: covered,
    waivers: waivers.map((waiver) => ({
      code: waiver.code,
      where: waiver.where ?? null,
      reason: waiver.reason,
      until: waiver.until ?? null,
      state: used.has(waiver) ? 'used' : isOver(waiver, today) ? 'expired' : 'unused',
    })),
  }
}

function isOver({ until }: Waiver, today: string): boolean {
  return until !== undefined && until < today
}

/** A waiver for some files covers a cause only when it shows in no others: what nobody accepted still stands. */
function covers({ code, where, fingerprint }: Waiver, finding: Finding): boolean {
  if (code !== finding.code) return false
  if (fingerprint !== undefined) return fingerprint === finding.fingerprint
  if (where === undefined) return true
  const matches = picomatch(where, { dot: true })
  const files =
    finding.places.length > 0
      ? finding.places.map(({ file }) => file)
      : finding.source
        ? [finding.source.file]
        : []
  const inSource = finding.source !== null && matches(finding.source.file)
  return inSource || (files.length > 0 && files.every((file) => matches(file)))
}
