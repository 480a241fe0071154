import type { FileFacts } from '../model/facts.ts'
import type { Delivery } from '../model/report.ts'
import type { Requested } from '../requests/request.ts'
import { type FirstVisit, firstVisitsOf } from './first-visit.ts'
import { isPacked, type WeightKind, weightKindOf, weightKinds } from './kinds.ts'

/** Sizes of one file as a host sends it; bytes. */
export interface Compressed {
  readonly gzip: number
  /** Null where nothing at hand makes it. */
  readonly brotli: number | null
}

/** Compresses files of the build; one that can't be read is left out. */
export type Compress = (paths: readonly string[]) => Promise<ReadonlyMap<string, Compressed>>

/** What a first visit of one route downloads. */
export type VisitWeight = Delivery['firstVisit'][number]

/** First visits that are reported one by one, the heaviest. Beyond them nobody reads, and each costs compressing its page. */
const mostVisits = 250
const mostLargest = 20

/** Weighs a build. Without `compress` the compressed sizes are not known. */
export async function weigh(
  facts: readonly FileFacts[],
  { routes, loads }: Pick<Requested, 'routes' | 'loads'>,
  compress: Compress | null,
): Promise<Delivery> {
  const sizes = new Map(facts.map(({ path, size }) => [path, size]))
  const sizeOf = (path: string): number => sizes.get(path) ?? 0
  const visits = firstVisitsOf(routes, loads, sizeOf)
  const reported = visits.slice(0, mostVisits)
  const fetched = [...new Set(reported.flatMap(({ files }) => files))]
  const packable = fetched.filter((path) => !isPacked(path))
  const compressed = compress && (await compress(packable))
  const scales: Scales = {
    sizeOf,
    compressedOf: (path) =>
      isPacked(path) ? { gzip: sizeOf(path), brotli: sizeOf(path) } : (compressed?.get(path) ?? null),
  }
  return {
    files: facts.length,
    bytes: facts.reduce((sum, { size }) => sum + size, 0),
    compressedBytes: compressed && total(fetched, (path) => scales.compressedOf(path)?.gzip ?? sizeOf(path)),
    routes: visits.length,
    firstVisit: reported.map((visit) => weightOf(visit, scales)),
    largest: [...facts]
      .sort((a, b) => b.size - a.size)
      .slice(0, mostLargest)
      .map(({ path, size }) => ({ file: path, bytes: size })),
  }
}

interface Scales {
  readonly sizeOf: (path: string) => number
  readonly compressedOf: (path: string) => Compressed | null
}

function weightOf({ route, entryFile, files }: FirstVisit, scales: Scales): VisitWeight {
  const byKind = new Map<WeightKind, string[]>()
  for (const file of files) {
    const kind = weightKindOf(file)
    byKind.set(kind, [...(byKind.get(kind) ?? []), file])
  }
  return {
    route,
    entryFile,
    ...sum(files, scales),
    kinds: weightKinds.flatMap((kind) => {
      const of = byKind.get(kind)
      return of ? [{ kind, ...sum(of, scales) }] : []
    }),
  }
}

function sum(files: readonly string[], { sizeOf, compressedOf }: Scales): Sum {
  const known = files.map(compressedOf)
  const all = known.every((each) => each !== null)
  const both = all && known.every((each) => each.brotli !== null)
  return {
    files: files.length,
    bytes: total(files, sizeOf),
    gzip: all ? total(known, (each) => each?.gzip ?? 0) : null,
    brotli: both ? total(known, (each) => each?.brotli ?? 0) : null,
  }
}

interface Sum {
  files: number
  bytes: number
  gzip: number | null
  brotli: number | null
}

function total<T>(list: readonly T[], of: (each: T) => number): number {
  return list.reduce((all, each) => all + of(each), 0)
}

/** What a visitor downloads: gzip where it is known, since every browser takes it, else the bytes uncompressed. */
export function downloaded({ gzip, bytes }: Pick<VisitWeight, 'gzip' | 'bytes'>): number {
  return gzip ?? bytes
}
