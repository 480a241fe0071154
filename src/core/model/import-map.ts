/** What an import map writes: names, prefixes that end in a slash, and where they lead. */
export interface ImportMap {
  readonly imports: readonly (readonly [name: string, url: string | null])[]
  readonly scopes: readonly (readonly [prefix: string, names: ImportMap['imports']])[]
  /** It is in another file, or made by a script. */
  readonly elsewhere?: true
}

export const emptyImportMap: ImportMap = { imports: [], scopes: [] }

/** Reads a map as a browser does: what is no text leads nowhere. A broken one is empty. */
export function parseImportMap(text: string): ImportMap {
  try {
    const value: unknown = JSON.parse(text)
    return {
      imports: namesOf(memberOf(value, 'imports')),
      scopes: entriesOf(memberOf(value, 'scopes')).map(([prefix, names]) => [prefix, namesOf(names)]),
    }
  } catch {
    return emptyImportMap
  }
}

function namesOf(value: unknown): ImportMap['imports'] {
  return entriesOf(value).map(([name, url]) => [
    name,
    typeof url === 'string' && /^(?:\.{0,2}\/|[a-z][a-z\d+.-]*:)/i.test(url) ? url : null,
  ])
}

function memberOf(value: unknown, name: string): unknown {
  return typeof value === 'object' && value !== null && Object.hasOwn(value, name)
    ? (value as Record<string, unknown>)[name]
    : null
}

function entriesOf(value: unknown): [string, unknown][] {
  return typeof value === 'object' && value !== null ? Object.entries(value) : []
}

/** Several maps of one page are one: what stands first counts. */
export function joinImportMaps(maps: readonly ImportMap[]): ImportMap | null {
  const [first, ...others] = maps
  if (!first) return null
  return others.reduce<ImportMap>(
    (all, each) => ({
      imports: [...each.imports, ...all.imports],
      scopes: [...each.scopes, ...all.scopes],
      ...(all.elsewhere || each.elsewhere ? { elsewhere: true as const } : {}),
    }),
    first,
  )
}
