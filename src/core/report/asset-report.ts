import type { FileFacts } from '../model/facts.ts'
import type { Report } from '../model/report.ts'
import { fails, type Requested } from '../requests/request.ts'

/** Requests written out one by one; all are counted. */
const mostListed = 2_000

/** What the folder requests, and what the host answers: those that fail first, then those that most places request. */
export function assetReport(
  { references, requests }: Requested,
  facts: readonly FileFacts[],
): Report['assets'] {
  const failing = requests.filter(fails)
  const others = requests.filter((request) => !fails(request))
  const sizes = new Map(facts.map(({ path, size }) => [path, size]))
  const heaviest = <T extends { readonly count: number }>(list: readonly T[]): T[] =>
    [...list].sort((a, b) => b.count - a.count)
  const listed = [...heaviest(failing), ...heaviest(others)].slice(0, mostListed)
  return {
    references,
    requests: requests.length,
    answered: others.length,
    missing: failing.length,
    list: listed.map((request) => ({
      path: request.pathname,
      status: request.answer.status,
      fails: fails(request),
      answeredBy: request.answer.rule,
      file: request.answer.file,
      bytes: request.answer.file === null ? null : (sizes.get(request.answer.file) ?? null),
      places: request.count,
    })),
  }
}
