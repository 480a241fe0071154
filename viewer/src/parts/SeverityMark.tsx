import type { Severity } from '../../../src/core/model/report.ts'

/** The severity in words, with a mark that tells them apart without colour. */
export function SeverityMark({ severity }: { readonly severity: Severity }) {
  return <span className={`severity severity-${severity}`}>{severity}</span>
}
