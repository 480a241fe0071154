import axe, { type AxeResults } from 'axe-core'
import type { Page } from 'playwright-core'

/** The rules of accessibility that a page breaks (WCAG 2.2 A and AA, and good practice), each with the element. */
export async function violationsIn(page: Page): Promise<string[]> {
  await page.evaluate(axe.source)
  const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
  const { violations } = await page.evaluate<AxeResults>(
    `axe.run(document, { runOnly: ${JSON.stringify(rules)} })`,
  )
  return violations.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 160)}`))
}
