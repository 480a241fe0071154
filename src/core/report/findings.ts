import type { Showing } from '../judge/judge.ts'
import type { Judged } from '../judge/run.ts'
import { fingerprint } from '../model/fingerprint.ts'
import type { Folder } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import type { Finding, FindingPlace, Severity, SourcePlace } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { excerptAt, positionsIn, readText } from '../model/text.ts'
import { kindOf } from '../read/read-file.ts'
import type { EnvironmentValues } from '../survey/environment-files.ts'

/** What places are shown from. */
export interface Shown {
  readonly build: Folder | null
  readonly project: Folder
  /** Covered wherever they stand in an excerpt. */
  readonly values: EnvironmentValues
}

const weight: Readonly<Record<Severity, number>> = { blocker: 0, caution: 1, note: 2 }

/** Turns causes into findings: offsets into lines and columns, places into excerpts; the heaviest first. */
export async function findingsOf(
  judged: readonly Judged[],
  site: Site,
  { build, project, values }: Shown,
): Promise<Finding[]> {
  const sourceAt = sourceLocator(loader(project, values))
  const locate = locator(loader(build, values), sourceAt)
  const findings: Finding[] = []
  for (const { judge, cause } of judged) {
    findings.push({
      code: judge.code,
      severity: cause.severity ?? judge.severity,
      site: site.address,
      title: cause.title ?? judge.title,
      meets: cause.meets,
      cause: cause.cause,
      count: Math.max(1, cause.showings.length),
      places: await Promise.all(pagesFirst(cause.showings).map(locate)),
      source: cause.source && (await sourceAt(cause.source)),
      remedy: cause.remedy,
      fingerprint: fingerprint(judge.code, site.address, cause.key),
      waived: false,
    })
  }
  return findings.sort((a, b) => weight[a.severity] - weight[b.severity] || b.count - a.count)
}

type Locate<From, To> = (from: From) => Promise<To>

/** A visitor begins with a page, and so does whoever looks for the fault. */
function pagesFirst(showings: readonly Showing[]): Showing[] {
  const rank = ({ file }: Showing): number => (kindOf(file) === 'page' ? 0 : 1)
  return [...showings].sort((a, b) => rank(a) - rank(b))
}

function locator(load: Loader, sourceAt: Locate<Place, SourcePlace>): Locate<Showing, FindingPlace> {
  return async ({ file, offset, length, request, status, source }) => {
    const loaded = offset === null ? null : await load(file)
    const position = loaded && offset !== null ? loaded.at(offset) : null
    return {
      file,
      line: position?.line ?? null,
      column: position?.column ?? null,
      excerpt: loaded && offset !== null ? excerptAt(loaded.text, offset, length) : null,
      request: request ?? null,
      status: status ?? null,
      source: source ? await sourceAt(source) : null,
    }
  }
}

/** Lines of environment files hold values, and are never shown. */
const environmentFile = /(?:^|\/)\.env[^/]*$/

function sourceLocator(load: Loader): Locate<Place, SourcePlace> {
  return async ({ file, line, column }) => {
    const loaded = environmentFile.test(file) ? null : await load(file)
    const text = loaded?.text.split('\n')[line - 1]
    return { file, line, column, ...(text === undefined ? {} : { excerpt: excerptAt(text, 0, text.length) }) }
  }
}

interface Loaded {
  readonly text: string
  readonly at: ReturnType<typeof positionsIn>
}

type Loader = Locate<string, Loaded | null>

function loader(folder: Folder | null, values: EnvironmentValues): Loader {
  const texts = new Map<string, Promise<Loaded | null>>()
  const load = async (file: string): Promise<Loaded | null> => {
    const text = folder && (await readText(folder, file))
    return text === null ? null : { text: values.cover(text), at: positionsIn(text) }
  }
  return (file) => {
    const known = texts.get(file) ?? load(file)
    texts.set(file, known)
    return known
  }
}
