import type { Survey } from '../survey.ts'
import type { Sources } from './sources.ts'

/** Names looked for; more are of a program, not of a page. */
const most = 40

/** Sources that run where there is a process: configuration, servers, tests and scripts of the project's own. */
const ofNode =
  /(?:^|\/)(?:scripts?|server|api|functions|tests?|e2e|__tests__|bin|tools?)\/|\.(?:config|test|spec|server)\.[cm]?[jt]sx?$/

const read = /\bprocess\.env\.([A-Z]\w+)\b(?!\s*(?:\?\?|\|\||\?\.|[!=]==?))/g

/**
 * Names that sources for browsers read of `process.env`, where the builder's own object is another one: it puts an empty object in
 * its place, or leaves it. What copes with nothing is left out.
 */
export function readFromProcess({ definition, config }: Survey, { texts }: Sources): string[] {
  const objects = definition?.environmentObjects ?? []
  if (!objects.includes('import.meta.env') || objects.includes('process.env')) return []
  const names = new Set<string>()
  for (const [file, text] of texts) {
    if (file === config?.file || ofNode.test(file) || !text.includes('process.env.')) continue
    for (const match of text.matchAll(read)) {
      const [, name = ''] = match
      const before = text.slice(Math.max(0, match.index - 80), match.index)
      // A shorter name is a member of many objects.
      if (names.size < most && name.includes('_') && !before.includes('typeof process')) names.add(name)
    }
  }
  return [...names]
}
