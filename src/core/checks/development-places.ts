import { forEachOf, referenceAt } from '../model/reference-list.ts'
import type { CausePlace, Evidence } from './check.ts'

/** The development server's own client, requested by a page. */
const client = /\/@(?:vite\/client|react-refresh)|webpack-dev-server\/client/

/** What in a build only a development build holds, and where a visitor gets it. */
export function developmentPlaces({ facts, requested }: Evidence): {
  signs: readonly string[]
  places: readonly CausePlace[]
} {
  const signs = new Set<string>()
  const places: CausePlace[] = []
  for (const { path, kind, developmentSigns, references } of facts) {
    if (kind === 'script' && requested.reached.has(path) && developmentSigns.length > 0) {
      for (const sign of developmentSigns) signs.add(sign)
      places.push({ file: path, offset: 0, length: 1 })
    }
    if (kind !== 'page') continue
    const visit = (raw: string, at: number): void => {
      if (!client.test(raw)) return
      signs.add("the development server's client")
      const { offset, length } = referenceAt(references, at)
      places.push({ file: path, offset, length })
    }
    forEachOf(references, 'script', visit)
    forEachOf(references, 'import', visit)
  }
  return { signs: [...signs], places }
}
