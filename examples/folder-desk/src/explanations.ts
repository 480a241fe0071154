import { type Explanations, parseExplanation } from '../../../src/core/checks/explanation.ts'

/** The pages of the finding codes, in the bundle. */
const pages = import.meta.glob<string>('../../../docs/findings/*/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
})

/** What each finding code means. */
export const explanations: Explanations = Object.fromEntries(
  Object.entries(pages).map(([path, page]) => [
    path.split('/').slice(-2).join('/').replace(/\.md$/, ''),
    parseExplanation(page),
  ]),
)
