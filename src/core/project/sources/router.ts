import type { Framework, RouterKind } from '../../frameworks/framework.ts'
import { byDefault, type Place, placeAt, type Reading, stated } from '../../model/reading.ts'
import { scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'

/** What a router is made with, in the libraries people use, and how it then keeps its place in the address. */
const makers: readonly (readonly [RouterKind, RegExp])[] = [
  [
    'hash',
    /\b(?:createHashRouter|createWebHashHistory|createHashHistory|withHashLocation)\s*\(|<(?:[\w$]+\.)?HashRouter\b|\bHashRouter\s+as\s|\buseHash:\s*true\b|\buseHashLocation\b|\bnew\s+Navigo\s*\([^)]{0,200}\bhash:\s*true\b/,
  ],
  [
    'memory',
    /\b(?:createMemoryRouter|createMemoryHistory)\s*\(|<(?:[\w$]+\.)?MemoryRouter\b|\bMemoryRouter\s+as\s/,
  ],
  [
    'history',
    /\b(?:createBrowserRouter|createWebHistory|createBrowserHistory|provideRouter)\s*\(|<(?:[\w$]+\.)?BrowserRouter\b|\bBrowserRouter\s+as\s|\bRouterModule\.forRoot\s*\(/,
  ],
]

/** Words that each of these holds one of. */
export const routerWords = /Router|History|HashLocation|Navigo|APP_BASE_HREF/

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
  const ofVue = madeByClass(likely)
  if (ofVue) return ofVue
  return definition.router ? byDefault(definition.router, `${definition.title}'s own router`) : null
}

/** Vue Router 3 is a class. Told nothing, it keeps its place behind a hash. */
function madeByClass(texts: readonly (readonly [string, string])[]): Reading<RouterKind> | null {
  const own = texts.filter(([, text]) => /from\s*['"]vue-router['"]/.test(text))
  const place = findInScripts(own, /\bnew\s+(?:Vue)?Router\s*\(/)
  const text = place && own.find(([file]) => file === place.file)?.[1]
  if (!place || !text) return null
  return stated(/\bmode\s*:\s*['"`]history['"`]/.test(text) ? 'history' : 'hash', place)
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
