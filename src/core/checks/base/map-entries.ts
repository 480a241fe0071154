import type { RequestPlace } from '../../requests/request.ts'
import type { CausePlace, Evidence } from '../check.ts'
import { textIn } from '../own-files.ts'

/** Where an import map writes the URL that a name in a script stands for. */
export interface MapEntry extends CausePlace {
  readonly url: string
}

type Facts = Evidence['facts']

/** Asked for every place of a URL: pages without such a map are passed over once. */
const maps = new WeakMap<Facts, Facts>()

function withMaps(facts: Facts): Facts {
  let found = maps.get(facts)
  if (found === undefined) {
    found = facts.filter(({ importMap }) => importMap !== null)
    maps.set(facts, found)
  }
  return found
}

/** The entries of import maps, in all pages, that lead a name in a script to a URL. None for a URL that the script itself writes. */
export async function mapEntriesOf(
  { file, reference }: RequestPlace,
  evidence: Evidence,
): Promise<MapEntry[]> {
  const { kind, raw } = reference
  if (kind !== 'import' && kind !== 'lazy-import') return []
  const entries = withMaps(evidence.facts).flatMap(({ path, importMap }) =>
    path === file ? [] : (importMap?.imports ?? []).map(([, url]) => ({ path, url })),
  )
  const found = entries.map(async ({ path, url }): Promise<MapEntry[]> => {
    if (url === null || (raw !== url && !(url.endsWith('/') && raw.startsWith(url)))) return []
    const [, text] = await textIn(path, evidence)
    const map = text?.indexOf('importmap') ?? -1
    const at = map < 0 ? -1 : (text?.indexOf(JSON.stringify(url), map) ?? -1)
    return at < 0 ? [] : [{ file: path, offset: at + 1, length: url.length, url }]
  })
  return (await Promise.all(found)).flat()
}
