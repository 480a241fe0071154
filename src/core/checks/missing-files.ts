import { withoutHash } from '../model/fingerprint.ts'
import { directoryOf, extensionOf, nameOf } from '../model/folder.ts'
import { fixedPart, kindsByWeight, type ReferenceKind } from '../model/reference.ts'
import { counted, groupedBy, safeDecode } from '../model/text.ts'
import type { SourceMatch } from '../project/sources/sources.ts'
import type { Request } from '../requests/request.ts'
import { buildCommandOf, type Cause, type Evidence, placesOf } from './check.ts'

/** What a visitor sees when a file of a kind does not arrive. */
const effects: Readonly<Partial<Record<ReferenceKind, string>>> = {
  script: 'The page does not start: a script it needs does not arrive.',
  import: 'The page does not start: a script it needs does not arrive.',
  'lazy-import': 'A part of the site does not open: its script does not arrive when a visitor goes there.',
  style: 'The page is bare: a style sheet does not arrive.',
  preload: 'A part of the site does not open: a file it waits for does not arrive.',
  frame: 'An embedded page stays empty.',
  media: 'A film or sound does not play.',
  image: 'A picture does not show.',
  font: 'A font does not arrive: the text shows in another.',
  'service-worker': 'Nothing is kept for when there is no network: the service worker does not arrive.',
  stored:
    'Nothing is kept for when there is no network: a file that the service worker must store does not arrive.',
  'old-script': 'Nothing in browsers of today: what those without modules run does not arrive.',
  icon: "The site's icon does not show.",
  manifest: 'The site cannot be installed: its manifest does not arrive.',
  data: 'Data does not load: a file that the page fetches does not arrive.',
  hint: 'Nothing on the page itself: what fetches it ahead, or for a preview of the link, gets nothing.',
}

const slight = new Set<ReferenceKind>(['icon', 'manifest', 'service-worker', 'stored', 'old-script'])

/** The worst a visitor sees when these requests fail. */
export function effectOf(requests: readonly Pick<Request, 'places'>[]): string {
  const kinds = kindsOf(requests)
  const worst = kindsByWeight.find((kind) => kinds.has(kind))
  return (worst && effects[worst]) ?? 'A file the page requests does not arrive.'
}

/** How heavy it is when these requests fail; undefined for the check's own severity. */
export function severityOf(requests: readonly Pick<Request, 'places'>[]): Cause['severity'] {
  const kinds = [...kindsOf(requests)]
  if (kinds.every((kind) => kind === 'hint')) return 'note'
  return kinds.every((kind) => kind === 'hint' || slight.has(kind)) ? 'caution' : undefined
}

function kindsOf(requests: readonly Pick<Request, 'places'>[]): Set<ReferenceKind> {
  return new Set(requests.flatMap(({ places }) => places.map(({ reference }) => reference.kind)))
}

/** Requests for files that are not there, grouped by cause, each group reported by `tell`. */
export function missingFiles(
  requests: readonly Request[],
  evidence: Evidence,
  tell: (what: string, are: string, them: string, first: Request) => Pick<Cause, 'impact' | 'cause'>,
): Cause[] {
  return groupsOf(requests, evidence).flatMap(({ key, kind, requests: group }) => {
    const [first] = group
    if (!first) return []
    const whole = kind === 'directory'
    const several = group.length > 1
    const what =
      kind === 'file' ? key : `${counted(group.length, 'file')} ${whole ? `below ${key}` : `like ${key}`}`
    const name = kind === 'file' ? nameOf(key) : nameOf(pathIn(first.pathname, evidence))
    const source = originOf(name, evidence) ?? patternIn(first, evidence)
    // What a script fetches may be made by a server of the host, or put there when the site is set up.
    const severity = [...kindsOf(group)].every((each) => each === 'data') ? 'caution' : severityOf(group)
    return {
      // The same file is missing from under another base path.
      key: withoutHash(key).replace(/^\//, ''),
      severity,
      title: whole ? 'A directory the pages need is not in the folder' : undefined,
      ...(kind === 'likes' ? { title: 'Many files of a directory are not in the folder' } : {}),
      ...tell(what, several ? 'are' : 'is', several ? 'them' : 'it', first),
      places: placesOf(group),
      source,
      fix: stepsFor(name, several ? ' and the others' : '', source, evidence),
      claims: group,
    }
  })
}

interface MissingGroup {
  readonly key: string
  readonly kind: 'file' | 'directory' | 'likes'
  readonly requests: readonly Request[]
}

/** So many files of one directory do not go missing one by one. */
const many = 8

/**
 * Files of a directory that is missing as a whole have one cause, and so have many of one directory with the same
 * ending; others stand alone.
 */
function groupsOf(requests: readonly Request[], evidence: Evidence): MissingGroup[] {
  const { requested } = evidence
  const grouped = groupedBy(requests, ({ pathname }) => {
    const path = pathIn(pathname, evidence)
    const directory = directoryOf(path)
    if (!requested.index.isDirectory(directory)) return `${directory}/`
    return `${directory === '' ? '' : `${directory}/`}*.${extensionOf(path)}`
  })
  return [...grouped].flatMap(([key, group]): MissingGroup[] => {
    if (key.endsWith('/')) return [{ key, kind: 'directory', requests: group }]
    if (group.length > many) return [{ key, kind: 'likes', requests: group }]
    return group.map((request) => ({
      key: pathIn(request.pathname, evidence),
      kind: 'file',
      requests: [request],
    }))
  })
}

/** The path of what is missing from the folder. With the right base path the same is missing. */
function pathIn(pathname: string, { site, requested }: Evidence): string {
  const bases = [site.base, ...(requested.observed ? [requested.observed.base] : [])]
  const base = bases.find((each) => pathname.startsWith(each)) ?? ''
  return safeDecode(pathname.slice(base.length))
}

function stepsFor(name: string, others: string, source: SourceMatch | null, evidence: Evidence): string[] {
  const { survey, folder } = evidence
  if (!survey.project) return [`Put ${name}${others} into ${folder.name}, or take away what requests it.`]
  const built = withoutHash(name) !== name
  const where = source ? ` (${source.file}, line ${source.line}, uses it)` : ''
  if (built) {
    return [
      `Run ${buildCommandOf(evidence)} again and ship the whole folder${where}.`,
      'If the file goes missing again, look at what runs after the build: something deletes it or leaves it out.',
    ]
  }
  return [
    `Put ${name}${others} where the build copies it from, or correct the path${where}.`,
    `Then run ${buildCommandOf(evidence)}.`,
  ]
}

/** Where the sources begin a name with holes. */
function patternIn({ places: [place] }: Request, { sources }: Evidence): SourceMatch | null {
  return place?.reference.pattern === undefined ? null : sources.find(fixedPart(place.reference))
}

/** Where the sources use the file: by its name without the hash, or as a module of that name. */
function originOf(name: string, { sources }: Evidence): SourceMatch | null {
  const plain = withoutHash(name).replace(/[.-]\*/, '')
  const stem = plain.slice(0, plain.lastIndexOf('.'))
  const candidates = [plain]
  // A module that is called index goes by the name of its directory.
  if (/^[cm]?js$|^css$/.test(extensionOf(name)) && stem !== 'index') {
    for (const ending of ['.tsx', '.ts', '.jsx', '.js', '.vue', '.svelte', "'", '"'])
      candidates.push(`/${stem}${ending}`)
  }
  for (const candidate of candidates) {
    const found = candidate.length > 3 ? sources.find(candidate) : null
    if (found) return found
  }
  return null
}
