import type { Request } from '../requests/request.ts'
import { fails } from '../requests/request.ts'
import { UsageError } from '../model/errors.ts'
import type { RouteAnswer } from '../model/report.ts'
import { unknown } from '../model/unknown.ts'
import type { Cause, Evidence, Judge } from './check.ts'
import { judges as ours } from './index.ts'

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
    for (const cause of await causesOf(judge, { ...evidence, failing, unanswered, told: [...judged] })) {
      for (const request of cause.claims ?? []) claimed.add(request)
      judged.push({ judge, cause })
    }
  }
  return judged
}

/** A check that does not come with the package and throws is its author's to repair: the error names it. */
async function causesOf(judge: Judge, evidence: Evidence): Promise<readonly Cause[]> {
  try {
    return await judge.judge(evidence)
  } catch (error) {
    if (ours.includes(judge)) throw error
    const message = error instanceof Error ? error.message : String(error)
    throw new UsageError(
      `The check ${judge.code} does not come with this program, and it threw an error: ${message.split('\n')[0]}`,
      { cause: error },
    )
  }
}

/**
 * Each judge after those it names.
 * @throws {UsageError} when a code stands twice, when a judge names one that there is none of, or when they go in a circle
 */
export function inOrder(judges: readonly Judge[]): Judge[] {
  const byCode = new Map<string, Judge>()
  for (const judge of judges) {
    const other = byCode.get(judge.code)
    if (other)
      throw new UsageError(`Two checks have the code ${judge.code}: "${other.title}" and "${judge.title}".`)
    byCode.set(judge.code, judge)
  }
  const ordered = new Set<Judge>()
  const add = (judge: Judge, way: readonly string[]): void => {
    if (ordered.has(judge)) return
    const from = way.indexOf(judge.code)
    if (from >= 0)
      throw new UsageError(
        `Checks run after each other in a circle: ${[...way.slice(from), judge.code].join(' after ')}.`,
      )
    for (const earlier of earlierThan(judge, byCode)) add(earlier, [...way, judge.code])
    ordered.add(judge)
  }
  for (const judge of judges) add(judge, [])
  return [...ordered]
}

function earlierThan(judge: Judge, byCode: ReadonlyMap<string, Judge>): Judge[] {
  return judge.after.flatMap((code) => {
    if (code === '*') return [...byCode.values()].filter(({ after }) => !after.includes('*'))
    const earlier = byCode.get(code)
    if (earlier) return earlier === judge ? [] : [earlier]
    throw new UsageError(
      `The check ${judge.code} runs after ${code}. ${unknown('check', code, [...byCode.keys()])}`,
    )
  })
}
