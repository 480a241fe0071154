import type { Finding, Report } from '../model/report.ts'
import { heaviestFirst } from './findings.ts'
import { fromRoot } from './in-repository.ts'

/** Lines of a file as it is now, counted from 1, both ends among them. */
export interface LineRange {
  readonly from: number
  readonly to: number
}

/** What a change in review did to files, by their paths from the root of the repository. */
export interface FileChanges {
  /** The revision that it is held against, as a person named it. */
  readonly since: string
  /** What is there now and was not, or not so; a new file has all its lines. */
  readonly changed: ReadonlyMap<string, readonly LineRange[]>
  /** What is not there any more. */
  readonly gone: readonly string[]
}

/** The files that findings come from, as the root of the repository names them. */
export function filesOfFindings(report: Report): Set<string> {
  return new Set(fromRoot(report).findings.flatMap(filesOf))
}

function filesOf({ source, places, fix }: Finding): string[] {
  const sources = [source, ...places.map((place) => place.source)].flatMap((place) => place?.file ?? [])
  return [...sources, ...fix.edits.map(({ file }) => file)]
}

/**
 * The report with the findings of a change first: those whose lines it touches, then those of its files. All count as before: what a change
 * does not touch holds a build too.
 * @param only leaves the others out of the list
 */
export function byChange(report: Report, changes: FileChanges, only: boolean): Report {
  const rooted = fromRoot(report).findings
  const marked = report.findings.map((finding, index): Finding => {
    const { touched: _, ...plain } = finding
    const touched = touchOf(rooted[index] ?? finding, changes)
    return touched === null ? plain : { ...plain, touched }
  })
  const order = (a: Finding, b: Finding): number => rankOf(a) - rankOf(b) || heaviestFirst(a, b)
  const findings = marked.filter((finding) => !only || finding.touched !== undefined).sort(order)
  return {
    ...report,
    findings,
    change: {
      since: changes.since,
      touched: marked.filter(({ touched }) => touched !== undefined).length,
      leftOut: marked.length - findings.length,
    },
  }
}

function rankOf({ touched }: Finding): number {
  return touched === 'line' ? 0 : touched === 'file' ? 1 : 2
}

function touchOf(finding: Finding, { changed, gone }: FileChanges): Finding['touched'] | null {
  const { source, places } = finding
  const at = [source, ...places.map((place) => place.source)].flatMap((place) => place ?? [])
  const isOnLine = at.some(({ file, line }) =>
    changed.get(file)?.some(({ from, to }) => line >= from && line <= to),
  )
  if (isOnLine) return 'line'
  if (filesOf(finding).some((file) => changed.has(file))) return 'file'
  return places.some(({ request }) => request !== null && gone.some((file) => isRequestFor(request, file)))
    ? 'file'
    : null
}

/** Whether a request asks for a file of this name. */
function isRequestFor(request: string, file: string): boolean {
  const name = file.slice(file.lastIndexOf('/') + 1)
  return request.split(/[?#]/)[0]?.endsWith(`/${name}`) === true
}
