import { contentTypeOf, isForElement } from '../model/content-type.ts'
import type { FileFacts } from '../model/facts.ts'
import { hole, type Reference, withoutQuery } from '../model/reference.ts'
import { requestsIn } from '../model/reference-list.ts'
import type { Site } from '../model/site.ts'
import type { Sources } from '../project/sources/sources.ts'
import type { NameUse, NameUses } from '../requests/name-uses.ts'
import type { Output } from '../requests/output.ts'
import type { Outcome } from './flow/outcome.ts'
import type { Sink } from './flow/sinks.ts'
import type { Scripts } from './scripts.ts'
import { nameBefore } from './shown-members.ts'

/** Names that are followed in one build: each takes a parse of what is around it. */
const mostFollowed = 80
/** Names that are looked for in the sources: each takes a search of all of them. */
const mostDoubtful = 400
/** Larger scripts are not parsed for them where nothing tells who wrote them; bytes. */
const largestAsked = 1_000_000
/** The same for names that may be anything, of which there are many; bytes. */
const largestForLoose = 300_000

// A client puts what it is given behind a base of its own.
const useOf: Readonly<Partial<Record<Sink, NameUse>>> = {
  fetch: 'data',
  XMLHttpRequest: 'data',
  element: 'file',
  worker: 'file',
}

/**
 * What becomes of the texts in scripts that name a file, where the folder has none at their place: put behind a base path, given
 * to an element or a request, or unknown. What the folder has where it is asked for needs no look.
 */
export async function followNames(
  site: Site,
  output: Output,
  sources: Sources,
  scripts: Scripts,
): Promise<NameUses> {
  const uses = new Map<string, Map<number, NameUse>>()
  const lost: Lost[] = []
  const built = otherBase(site, output)
  let left = mostFollowed
  for (const { file, reference, isHere } of doubtfulNames(site, output).slice(0, mostDoubtful)) {
    if (!isWorthIt(reference, file, sources)) continue
    if (left-- <= 0) break
    const outcome = await scripts.follow(file.path, reference.offset)
    if (outcome === null) continue
    const use =
      isHere && built !== null && isBehind(outcome, built)
        ? behindBuild(reference)
        : useIn(outcome, reference)
    noteUse(uses, file, reference, use)
    if (use === null && !isHere && outcome.isLost && outcome.before.length === 0)
      lost.push({ file, reference, lostAs: outcome.lostAs })
  }
  for (const each of [...lost, ...namesInData(site, output, sources)])
    noteUse(uses, each.file, each.reference, await useUnderName(each, scripts))
  return uses
}

/** Names in data of this project, of files that are not here. */
function namesInData(site: Site, output: Output, sources: Sources): Named[] {
  const found: Named[] = []
  for (const file of sources.files.length > 0 ? output.facts : []) {
    if (file.kind !== 'data') continue
    for (const reference of requestsIn(file.references)) {
      if (found.length >= mostDoubtful) return found
      if (mayBeFile(reference) && !isLoose(reference) && isGone(reference, site, output))
        found.push({ file, reference })
    }
  }
  return found.filter(({ reference }) => sources.find(reference.raw) !== null)
}

/**
 * What scripts do with all that stands under the name that a text has in its list, or under which it was given away: `image` of
 * `{ image: "/a.png" }`, `picture` of `draw(Boat, { picture })`.
 */
async function useUnderName(
  { file, reference, lostAs }: Named & Partial<Lost>,
  scripts: Scripts,
): Promise<NameUse | null> {
  if (isLoose(reference) || !isForElement(withoutQuery(reference.raw))) return null
  const own = nameBefore(await scripts.textOf(file.path), reference.offset)
  const names = new Set([...(own === null ? [] : [own]), ...(lostAs ?? [])])
  if (names.size === 0) return null
  const shown = await scripts.shownMembers()
  const found = new Set([...names].flatMap((name) => shown.useOf(name) ?? []))
  if (found.size !== 1) return null
  return found.has('shown') ? 'file' : 'behind the base'
}

interface Named {
  readonly file: FileFacts
  readonly reference: Reference
}

interface Lost extends Named {
  readonly lostAs: ReadonlySet<string>
}

interface DoubtfulName extends Named {
  readonly isHere: boolean
}

/** The base path that the build has, where it is not that of the site. */
function otherBase({ base }: Site, { observed }: Output): string | null {
  return observed && observed.base !== base ? observed.base : null
}

/** Whether a script puts the build's own base path before a name, with its last slash or without. */
function isBehind({ before }: Outcome, base: string): boolean {
  const trimmed = (text: string): string => (text.endsWith('/') ? text.slice(0, -1) : text)
  return before.length > 0 && before.every((each) => each !== null && trimmed(each) === trimmed(base))
}

/** What follows the build's base path is right once that is: nothing of it is written by hand. */
function behindBuild({ raw }: Reference): NameUse | null {
  return raw.startsWith('/') ? 'behind the base' : null
}

/** Names of no file here first; then those of files that may be asked for at another place. */
function doubtfulNames(site: Site, output: Output): DoubtfulName[] {
  const [gone, here]: [DoubtfulName[], DoubtfulName[]] = [[], []]
  for (const file of output.facts) {
    if (file.kind !== 'script') continue
    for (const reference of requestsIn(file.references)) {
      if (!mayBeFile(reference)) continue
      const isMoved = (isLoose(reference) && site.base !== '/') || otherBase(site, output) !== null
      if (isGone(reference, site, output)) gone.push({ file, reference, isHere: false })
      else if (isMoved) here.push({ file, reference, isHere: true })
    }
  }
  return [...gone, ...here]
}

/** What this project wrote; without its sources, what a script holds that is soon parsed. */
function isWorthIt(reference: Reference, { size }: FileFacts, sources: Sources): boolean {
  if (sources.files.length > 0) return sources.find(reference.raw) !== null
  return size <= (isLoose(reference) ? largestForLoose : largestAsked)
}

function noteUse(
  uses: Map<string, Map<number, NameUse>>,
  { path }: FileFacts,
  { offset }: Reference,
  use: NameUse | null,
): void {
  if (use === null) return
  const known = uses.get(path)
  if (known) known.set(offset, use)
  else uses.set(path, new Map([[offset, use]]))
}

/** A text that looks like a file's name, and of which nothing tells whether it is asked for. */
function mayBeFile(reference: Reference): boolean {
  const { kind, raw, sure } = reference
  if (kind !== 'named' || sure || !/^(?:\/(?!\/)|[\w@~-])/.test(raw) || raw.includes(hole)) return false
  const path = withoutQuery(raw)
  if (contentTypeOf(path) === null || /\.html?$/i.test(path)) return false
  return !isLoose(reference) || isForElement(path)
}

/** A name that begins at no known place: other code puts something before it. */
function isLoose({ raw, against }: Reference): boolean {
  return !raw.startsWith('/') || against === 'behind'
}

/** Whether the folder has no such file: of a loose name none whose path ends like that, else none at its place. */
function isGone(reference: Reference, { base }: Site, { index, observed }: Output): boolean {
  const path = withoutQuery(reference.raw)
  if (isLoose(reference)) return index.endingWith(path.replace(/^\//, '')).length === 0
  return ![base, observed?.base ?? base].some(
    (each) => path.startsWith(each) && index.has(path.slice(each.length)),
  )
}

/** Data that a server may make; what is fetched of other kinds is a file as those of elements are. */
const ofServers = /\.(?:json|geojson|topojson|csv|tsv|txt|md|xml|html|bin|pbf)(?:[?#]|$)/i

function useIn({ sinks, before }: Outcome, { raw }: Reference): NameUse | null {
  const [use] = [...sinks].flatMap((sink) => useOf[sink] ?? [])
  const asked = use === 'data' && !ofServers.test(raw) ? 'file' : (use ?? null)
  // From the top of the host, or from the page: of another host nothing is known.
  // One helper inside another puts two texts before it, and what they come to is not put together here.
  const [known, ...more] = new Set(before.filter((each) => each !== ''))
  const isKnown = known != null && more.length === 0 && /^\.{0,2}\/(?!\/)/.test(known)
  if (asked !== null && isKnown) return { before: known, isData: asked === 'data' }
  if (known !== undefined && raw.startsWith('/')) return 'behind the base'
  return raw.startsWith('/') ? asked : null
}
