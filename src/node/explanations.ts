import { readFile } from 'node:fs/promises'
import type { Check } from '../core/checks/check.ts'
import { type Explanation, type Explanations, parseExplanation } from '../core/checks/explanation.ts'
import { packageRoot } from './package-root.ts'

/** What a check means: what it says itself, else the page of its code that comes with the package; null without either. */
export async function explanationOf({ code, explanation }: Check): Promise<Explanation | null> {
  if (explanation) return explanation
  const page = await readFile(new URL(`docs/findings/${code}.md`, packageRoot), 'utf8').catch(() => null)
  return page === null ? null : parseExplanation(page)
}

/** What the checks mean, by code. */
export async function explanationsOf(checks: readonly Check[]): Promise<Explanations> {
  const all = await Promise.all(
    checks.map(async (check) => [check.code, await explanationOf(check)] as const),
  )
  return Object.fromEntries(all.flatMap(([code, found]) => (found ? [[code, found]] : [])))
}
