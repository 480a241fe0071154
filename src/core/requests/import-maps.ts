import type { FileFacts } from '../model/facts.ts'
import type { ImportMap } from '../model/import-map.ts'
import type { Site } from '../model/site.ts'
import { baseAt, encodePath, pageAddress } from './addresses.ts'

/** A map whose URLs are resolved from its page; null where a name must not be resolved. */
type Names = ReadonlyMap<string, string | null>

interface Resolved {
  readonly imports: Names
  /** The most particular first. */
  readonly scopes: readonly (readonly [prefix: string, names: Names])[]
}

/**
 * The import maps of a folder's pages (HTML standard, 8.1.6.2 "Import maps"). Pages of one site have the same: a name is looked up
 * in all of them, since it is not known which page will run a script.
 */
export class ImportMaps {
  readonly #maps: readonly Resolved[]
  /** A page gets its map from elsewhere: what it holds is not known. */
  readonly isOpen: boolean

  constructor(site: Site, facts: readonly FileFacts[]) {
    const maps = new Map<string, Resolved>()
    for (const { path, baseHref, importMap } of facts) {
      if (importMap === null || importMap.elsewhere) continue
      const base = baseAt({ baseHref }, site.address + encodePath(pageAddress(path)))
      const resolved = resolvedFrom(importMap, base)
      maps.set(
        JSON.stringify([[...resolved.imports], resolved.scopes.map(([at, names]) => [at, ...names])]),
        resolved,
      )
    }
    this.#maps = [...maps.values()]
    this.isOpen = facts.some(({ importMap }) => importMap?.elsewhere === true)
  }

  get isEmpty(): boolean {
    return this.#maps.length === 0
  }

  /** The URL that a name stands for in a script; null when no map knows it. @param name a bare name, or a URL */
  of(name: string, script: string): string | null {
    for (const { imports, scopes } of this.#maps) {
      for (const [prefix, names] of scopes) {
        const found =
          script === prefix || (prefix.endsWith('/') && script.startsWith(prefix))
            ? lookUp(names, name)
            : null
        if (found !== null) return found
      }
      const found = lookUp(imports, name)
      if (found !== null) return found
    }
    return null
  }
}

function resolvedFrom({ imports, scopes }: ImportMap, base: string): Resolved {
  const urlOf = (text: string): string | null => (URL.canParse(text, base) ? new URL(text, base).href : null)
  const names = (list: ImportMap['imports']): Names =>
    new Map(
      list.map(([name, url]) => [
        /^(?:\.{0,2}\/|[a-z][a-z\d+.-]*:)/i.test(name) ? (urlOf(name) ?? name) : name,
        url === null ? null : urlOf(url),
      ]),
    )
  return {
    imports: names(imports),
    scopes: scopes
      .flatMap(([prefix, list]): [string, Names][] => {
        const at = urlOf(prefix)
        return at === null ? [] : [[at, names(list)]]
      })
      .sort(([a], [b]) => (a < b ? 1 : -1)),
  }
}

/** A name itself, else the longest prefix of it that the map has. */
function lookUp(names: Names, name: string): string | null {
  const own = names.get(name)
  if (own !== undefined) return own
  let best: [string, string | null] | null = null
  for (const [prefix, url] of names) {
    if (prefix.endsWith('/') && name.startsWith(prefix) && prefix.length > (best?.[0].length ?? 0))
      best = [prefix, url]
  }
  if (best === null || best[1] === null) return null
  const [prefix, url] = best
  const rest = name.slice(prefix.length)
  return URL.canParse(rest, url) ? new URL(rest, url).href : null
}
