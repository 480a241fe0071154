import type { Check } from './check.ts'

/**
 * The checks that a text means: the one of this code, those of this area, those that people find by these words, or those in
 * whose title the words stand.
 */
export function checksFor(text: string, checks: readonly Check[]): readonly Check[] {
  const wanted = text.trim().toLowerCase()
  if (wanted === '') return []
  const ways: ((check: Check) => boolean)[] = [
    ({ code }) => code === wanted,
    ({ code }) => code.startsWith(`${wanted}/`),
    ({ keywords = [] }) => keywords.some((keyword) => keyword.toLowerCase() === wanted),
    ({ keywords = [], title }) => [...keywords, title].some((each) => each.toLowerCase().includes(wanted)),
  ]
  for (const way of ways) {
    const found = checks.filter(way)
    if (found.length > 0) return found
  }
  return []
}
