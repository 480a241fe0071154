import type { FileFacts } from '../model/facts.ts'
import type { Delivery, Load } from '../model/report.ts'
import { reach } from '../release/first-visit.ts'
import { fails, type Request, type Requested, type RequestPlace } from '../requests/request.ts'
import type { Locator } from './locator.ts'

/** First visits whose requests are written out, the heaviest, and requests of each. */
const mostVisits = 60
const mostLoads = 80

/** Adds to the heaviest first visits what each of them requests, with the place that asks. */
export async function withLoads(
  delivery: Delivery,
  requested: Requested,
  facts: readonly FileFacts[],
  locator: Locator,
): Promise<Delivery> {
  const sizes = new Map(facts.map(({ path, size }) => [path, size]))
  const asked = byFile(requested.requests)
  const firstVisit: Delivery['firstVisit'] = []
  for (const visit of delivery.firstVisit) {
    if (firstVisit.length >= mostVisits) firstVisit.push(visit)
    else {
      const files = reach(visit.entryFile, requested.loads)
      firstVisit.push({ ...visit, loads: await loadsOf(files, asked, sizes, locator) })
    }
  }
  return { ...delivery, firstVisit }
}

/** The requests of each file, and those that bring each. */
interface Asked {
  readonly by: ReadonlyMap<string, readonly Request[]>
  readonly bringing: ReadonlyMap<string, readonly Request[]>
}

function byFile(requests: readonly Request[]): Asked {
  const by = new Map<string, Request[]>()
  const bringing = new Map<string, Request[]>()
  const add = (map: Map<string, Request[]>, file: string, request: Request): void => {
    const known = map.get(file)
    if (!known) map.set(file, [request])
    else if (known.at(-1) !== request) known.push(request)
  }
  for (const request of requests) {
    if (request.target !== null) add(bringing, request.target, request)
    if (fails(request)) for (const { file } of request.places) add(by, file, request)
  }
  return { by, bringing }
}

async function loadsOf(
  files: ReadonlySet<string>,
  { by, bringing }: Asked,
  sizes: ReadonlyMap<string, number>,
  locator: Locator,
): Promise<Load[]> {
  const of = new Set<Request>()
  for (const file of files) {
    // The same file may be asked for by several addresses: the one that this visit asks counts.
    const all = bringing.get(file) ?? []
    const own = all.find(({ places }) => places.some((place) => files.has(place.file))) ?? all[0]
    if (own) of.add(own)
    for (const request of by.get(file) ?? []) if (asksAtOnce(request, files)) of.add(request)
  }
  const size = ({ answer }: Request): number => (answer.file === null ? 0 : (sizes.get(answer.file) ?? 0))
  const sorted = [...of].sort((a, b) => Number(fails(b)) - Number(fails(a)) || size(b) - size(a))
  const found: Load[] = []
  for (const request of sorted.slice(0, mostLoads)) {
    const { pathname, answer, places } = request
    const place = places.find(({ file }) => files.has(file)) ?? places[0]
    found.push({
      request: pathname,
      status: answer.status,
      fails: fails(request),
      bytes: fails(request) || answer.file === null ? null : size(request),
      at: place ? await locator.positionOf(place.file, place.reference.offset) : null,
    })
  }
  return found
}

/** Kinds of references that wait for somebody to do something. */
const later = new Set<RequestPlace['reference']['kind']>([
  'lazy-import',
  'page',
  'form',
  'named',
  'hint',
  'data',
])

/** What a script names beside its imports, it wants for a part that is opened later. */
function asksAtOnce({ places }: Request, files: ReadonlySet<string>): boolean {
  return places.some(
    ({ file, reference: { kind, later: waits } }) =>
      files.has(file) && (/\.[cm]?js$/.test(file) ? kind === 'import' : !later.has(kind) && !waits),
  )
}
