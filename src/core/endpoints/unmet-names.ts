import type { FileFacts } from '../model/facts.ts'
import type { Sources } from '../project/sources/sources.ts'
import { loadedByPages } from '../requests/loaded-by-pages.ts'
import type { Scripts } from './scripts.ts'
import type { UnmetName } from './unmet-name.ts'

/** Asked about in one run: the first ones tell enough. */
const mostAsked = 200

/**
 * Names of Node's that scripts of the pages look up as soon as they run, and that nothing in the build makes; of variables those too
 * that a function of the project's own reads.
 * @param loads what each file makes a browser fetch by itself
 */
export async function unmetNames(
  facts: readonly FileFacts[],
  loads: ReadonlyMap<string, ReadonlySet<string>>,
  sources: Sources,
  scripts: Scripts,
): Promise<UnmetName[]> {
  const made = new Set(
    facts.flatMap(({ nodeNames }) => nodeNames.flatMap((each) => (each.made ? each.name : []))),
  )
  // A file may be named, and be for Node: only what pages load runs in a browser.
  const loaded = loadedByPages(facts, loads)
  const found: UnmetName[] = []
  let asked = 0
  for (const { path, nodeNames } of facts) {
    if (!loaded.has(path)) continue
    for (const { name, variable, offset, length } of nodeNames) {
      if (made.has(name) || asked >= mostAsked) continue
      asked++
      const use = await scripts.useOf(path, offset)
      if (use === null || (use === 'later' && !isOwn(variable, sources))) continue
      found.push({ file: path, name, variable, offset, length })
    }
  }
  return found
}

function isOwn(variable: string | null, sources: Sources): boolean {
  return variable !== null && sources.find(`process.env.${variable}`) !== null
}
