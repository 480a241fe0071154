import type { CausePlace } from '../checks/cause.ts'
import { type Folder, largestFile } from '../model/folder.ts'
import type { Mask } from '../model/mask.ts'
import type { Place } from '../model/reading.ts'
import type { FindingPlace, SourcePlace } from '../model/report.ts'
import { type Excerpt, excerptAround, excerptAt, positionsIn, printable, readText } from '../model/text.ts'
import { coverCredentials } from '../output/credentials.ts'
import { kindOf } from '../output/read-file.ts'
import { type MapLookup, noMap, sourceMapOf } from './source-map.ts'

/** What places are shown from. */
export interface PlaceSources {
  readonly build: Folder | null
  readonly project: Folder
  /** Hides the values of variables wherever they stand. */
  readonly mask: Mask
  /** The files that the survey counts as the project's sources: of what a source map names, only these are quoted. */
  readonly sources: ReadonlySet<string>
}

/** Lines of a source shown on either side of a place, and how much of each; characters. */
const linesAround = 2
const longestLine = 200

/** A line with its indentation, safe to show. */
function lineInWords(line: string): string {
  const indent = /^[\t ]*/.exec(line)?.[0].replaceAll('\t', '  ') ?? ''
  const text = printable(line).trim()
  return `${indent.slice(0, 40)}${text.length > longestLine ? `${text.slice(0, longestLine)}…` : text}`
}

/**
 * Files whose lines are never shown: environment files hold values, and files of tools in the project's own directory hold
 * passwords to registries and repositories.
 */
const neverShown = /(?:^|\/)(?:\.env[^/]*|\.git\/.*|\.[^/]*rc(?:\.ya?ml)?)$/

/** How much of a built file is looked at on either side of a place; more than is shown, and than a credential has. */
const excerptReach = 4_096

/** Texts kept for the next finding: most findings of a build show the same few files. */
const mostKept = 64

interface Loaded {
  readonly text: string
  readonly at: ReturnType<typeof positionsIn>
  readonly trace: MapLookup | null
}

/** Turns offsets into places. Each file is read once, and few are held at a time. */
export class Locator {
  readonly #shown: PlaceSources
  readonly #built = new Map<string, Promise<Loaded | null>>()
  readonly #positions = new Map<string, Promise<Loaded['at'] | null>>()
  readonly #sources = new Map<string, Promise<string | null>>()
  readonly #problems: { file: string; reason: string }[] = []
  /** Files of the project that the survey or a check named. */
  readonly #named = new Set<string>()

  constructor(shown: PlaceSources) {
    this.#shown = shown
  }

  /** Files whose places could not be traced to their sources, though they name a map. */
  get problems(): readonly { readonly file: string; readonly reason: string }[] {
    return this.#problems
  }

  /** A text with values replaced by the names of their variables. */
  named(text: string): string {
    return this.#shown.mask.named(text)
  }

  async locate(places: readonly CausePlace[]): Promise<FindingPlace[]> {
    const located: FindingPlace[] = []
    for (const place of places) located.push(await this.#placeOf(place))
    return located
  }

  /** The line and column of an offset in a built file, which is not traced to its source; null where the file can't be read. */
  async positionOf(file: string, offset: number): Promise<Place | null> {
    const at = await remember(this.#positions, file, async () => {
      const { build } = this.#shown
      const text = build && (await readText(build, file, largestFile))
      return text === null ? null : positionsIn(text)
    })
    return at && { file, ...at(offset) }
  }

  /** A place in the project that the survey or a check names, with its line. */
  async sourceAt(place: Place): Promise<SourcePlace> {
    this.#named.add(place.file)
    return quoted(place, await this.#source(place.file))
  }

  /** The same with the lines around it, when the file is in the project. */
  async withLinesAround(place: SourcePlace): Promise<SourcePlace> {
    const lines = this.#isQuotable(place.file) ? (await this.#source(place.file))?.split('\n') : undefined
    if (lines === undefined || place.line > lines.length) return place
    const from = Math.max(1, place.line - linesAround)
    const shown = lines.slice(from - 1, place.line + linesAround).map(lineInWords)
    return { ...place, around: { from, lines: shown } }
  }

  async #placeOf(place: CausePlace): Promise<FindingPlace> {
    const { file, offset, length, request, status } = place
    const loaded = offset === null ? null : await this.#load(file)
    const position = loaded && offset !== null ? loaded.at(offset) : null
    const excerpt = loaded && offset !== null ? this.#excerptOf(loaded.text, offset, length) : null
    return {
      file,
      line: position?.line ?? null,
      column: position?.column ?? null,
      excerpt: excerpt?.text ?? null,
      highlight: excerpt?.highlight ?? null,
      request: request ?? null,
      status: status ?? null,
      source: await this.#sourceOf(place, loaded),
    }
  }

  /** Covers only what is near: of a bundle on one line nothing else is shown, and a value or credential is not longer. */
  #excerptOf(text: string, offset: number, length: number): Excerpt {
    const around = excerptReach + this.#shown.mask.longest
    const from = Math.max(0, offset - around)
    const near = this.#covered(text.slice(from, offset + length + around))
    return excerptAround(near, offset - from, length)
  }

  async #sourceOf({ source, offset }: CausePlace, loaded: Loaded | null): Promise<SourcePlace | null> {
    if (source) return this.sourceAt(source)
    const mapped = loaded?.trace && offset !== null ? loaded.trace(loaded.at(offset)) : null
    if (!mapped) return null
    // Whoever made the map chose the name: of files on this machine, only sources are quoted for it.
    const own = this.#isQuotable(mapped.file) ? await this.#source(mapped.file) : null
    return quoted(mapped, own ?? (mapped.text && this.#covered(mapped.text)))
  }

  #isQuotable(file: string): boolean {
    return this.#named.has(file) || this.#shown.sources.has(file)
  }

  #load(file: string): Promise<Loaded | null> {
    return remember(this.#built, file, async () => {
      const { build } = this.#shown
      const text = build && (await readText(build, file, largestFile))
      if (build === null || text === null) return null
      const { trace, problem } = kindOf(file) === 'page' ? noMap : await sourceMapOf(build, file, text)
      if (problem !== null) this.#problems.push({ file, reason: `${file} ${problem}.` })
      return { text, at: positionsIn(text), trace }
    })
  }

  #source(file: string): Promise<string | null> {
    return remember(this.#sources, file, async () => {
      const text = neverShown.test(file) ? null : await readText(this.#shown.project, file)
      return text === null ? null : this.#covered(text)
    })
  }

  #covered(text: string): string {
    return coverCredentials(this.#shown.mask.cover(text))
  }
}

/** A place with its line, where the text is at hand. */
function quoted({ file, line, column }: Place, text: string | null): SourcePlace {
  const lineText = neverShown.test(file) ? undefined : text?.split('\n', line)[line - 1]
  if (lineText === undefined) return { file, line, column }
  return { file, line, column, excerpt: excerptAt(lineText, Math.min(column - 1, lineText.length), 1) }
}

/** Reads what is not known yet; the oldest is forgotten. */
function remember<T>(known: Map<string, Promise<T>>, file: string, load: () => Promise<T>): Promise<T> {
  const before = known.get(file)
  if (before) return before
  const oldest = known.size >= mostKept ? known.keys().next().value : undefined
  if (oldest !== undefined) known.delete(oldest)
  const loading = load()
  known.set(file, loading)
  return loading
}
