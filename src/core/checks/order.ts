import { UsageError } from '../model/errors.ts'
import { unknown } from '../model/unknown.ts'
import type { Check } from './check.ts'

/**
 * A list of checks that was looked over when it was loaded.
 * @throws {UsageError} as {@link inOrder}
 */
export function registered(checks: readonly Check[]): readonly Check[] {
  inOrder(checks)
  return checks
}

/**
 * Each check after those it names.
 * @throws {UsageError} when a code stands twice, when a check names one that there is none of, or when they go in a circle
 */
export function inOrder(checks: readonly Check[]): Check[] {
  const byCode = new Map<string, Check>()
  for (const check of checks) {
    const other = byCode.get(check.code)
    if (other)
      throw new UsageError(`Two checks have the code ${check.code}: "${other.title}" and "${check.title}".`)
    byCode.set(check.code, check)
  }
  const ordered = new Set<Check>()
  const add = (check: Check, way: readonly string[]): void => {
    if (ordered.has(check)) return
    const from = way.indexOf(check.code)
    if (from >= 0)
      throw new UsageError(
        `Checks run after each other in a circle: ${[...way.slice(from), check.code].join(' after ')}.`,
      )
    for (const earlier of earlierThan(check, byCode)) add(earlier, [...way, check.code])
    ordered.add(check)
  }
  for (const check of checks) add(check, [])
  return [...ordered]
}

function earlierThan(check: Check, byCode: ReadonlyMap<string, Check>): Check[] {
  return check.after.flatMap((code) => {
    if (code === '*') return [...byCode.values()].filter(({ after }) => !after.includes('*'))
    const earlier = byCode.get(code)
    if (earlier) return earlier === check ? [] : [earlier]
    throw new UsageError(
      `The check ${check.code} runs after ${code}. ${unknown('check', code, [...byCode.keys()])}`,
    )
  })
}
