import type { Request } from '../ask/ask.ts'
import { fails } from '../ask/ask.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Cause, Evidence, Judge } from './judge.ts'

/** A cause with the judge that found it. */
export interface Judged {
  readonly judge: Judge
  readonly cause: Cause
}

/**
 * Runs the judges, those that explain failing requests better before the others. A request that one cause claims
 * is not shown to later judges, so one cause is one finding.
 */
export async function runJudges(
  judges: readonly Judge[],
  evidence: Omit<Evidence, 'failing' | 'unanswered' | 'told'>,
): Promise<Judged[]> {
  const claimed = new Set<Request | RouteAnswer>()
  const judged: Judged[] = []
  for (const judge of inOrder(judges)) {
    const failing = evidence.asked.requests.filter((request) => fails(request) && !claimed.has(request))
    const unanswered = evidence.asked.routes.filter((route) => route.status >= 400 && !claimed.has(route))
    for (const cause of await judge.judge({ ...evidence, failing, unanswered, told: [...judged] })) {
      for (const request of cause.claims ?? []) claimed.add(request)
      judged.push({ judge, cause })
    }
  }
  return judged
}

/** Each judge after those it names. */
function inOrder(judges: readonly Judge[]): Judge[] {
  const ordered = new Set<Judge>()
  const add = (judge: Judge): void => {
    if (ordered.has(judge)) return
    if (judge.after.includes('*')) for (const each of judges) if (!each.after.includes('*')) add(each)
    for (const code of judge.after) {
      const earlier = judges.find((each) => each.code === code)
      if (earlier && earlier !== judge) add(earlier)
    }
    ordered.add(judge)
  }
  for (const judge of judges) add(judge)
  return [...ordered]
}
