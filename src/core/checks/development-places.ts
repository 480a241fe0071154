import type { Evidence, Showing } from './check.ts'

/** The development server's own client, asked for by a page. */
const client = /^\/@(?:vite\/client|react-refresh)|webpack-dev-server\/client/

/** What in a build only a development build holds, and where a visitor gets it. */
export function developmentShowings({ facts, asked }: Evidence): {
  signs: readonly string[]
  showings: readonly Showing[]
} {
  const signs = new Set<string>()
  const showings: Showing[] = []
  for (const { path, kind, developmentSigns, references } of facts) {
    if (kind === 'script' && asked.reached.has(path) && developmentSigns.length > 0) {
      for (const sign of developmentSigns) signs.add(sign)
      showings.push({ file: path, offset: 0, length: 1 })
    }
    if (kind !== 'page') continue
    for (const { raw, offset, length } of references) {
      if (!client.test(raw)) continue
      signs.add("the development server's client")
      showings.push({ file: path, offset, length })
    }
  }
  return { signs: [...signs], showings }
}
