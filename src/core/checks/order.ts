import { ordered } from '../model/ordered.ts'
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
  return ordered(checks, {
    what: 'check',
    nameOf: ({ code }) => code,
    titleOf: ({ title }) => title,
    before: ({ after }) => after,
    relation: 'runs after',
  })
}
