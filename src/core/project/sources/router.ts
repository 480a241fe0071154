import type { Framework, RouterKind } from '../../frameworks/framework.ts'
import { byDefault, type Place, placeAt, type Reading, stated } from '../../model/reading.ts'
import { scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'

/** What a router is made with, in the libraries people use, and how it then keeps its place in the address. */
const makers: readonly (readonly [RouterKind, RegExp])[] = [
  [
    'hash',
    /\b(?:createHashRouter|createWebHashHistory|createHashHistory|withHashLocation)\s*\(|<(?:HashRouter)\b|\buseHash:\s*true\b|\buseHashLocation\b/,
  ],
  ['memory', /\b(?:createMemoryRouter|createMemoryHistory)\s*\(|<(?:MemoryRouter)\b/],
  [
    'history',
    /\b(?:createBrowserRouter|createWebHistory|createBrowserHistory|provideRouter)\s*\(|<(?:BrowserRouter)\b|\bRouterModule\.forRoot\s*\(/,
  ],
]

/** Words that each of these holds one of. */
export const routerWords = /Router|History|HashLocation|APP_BASE_HREF/

/**
 * How the site's router keeps its place in the address: from what the sources make it with, else from the framework,
 * whose pages have paths. Null when no router is seen.
 */
export function readRouter(sources: Sources, definition: Framework): Reading<RouterKind> | null {
  const likely = [...sources.texts].filter(([, text]) => routerWords.test(text))
  for (const [kind, pattern] of makers) {
    const place = findInScripts(likely, pattern)
    if (place) return stated(kind, place)
  }
  return definition.router ? byDefault(definition.router, `${definition.title}'s own router`) : null
}

function findInScripts(texts: readonly (readonly [string, string])[], pattern: RegExp): Place | null {
  for (const [file, text] of texts) {
    const match = pattern.exec(text)
    // In prose and styles the same words make nothing.
    if (
      match &&
      scriptOf(file, text)
        .slice(match.index, match.index + 4)
        .trim() !== ''
    )
      return placeAt(file, text, match.index)
  }
  return null
}
