import { joinUp } from '../model/folder.ts'
import type { Edit, Finding, Report } from '../model/report.ts'

type Where = Pick<Report, 'folder' | 'repository'>

/** A file of the project as whoever stands at the root of the repository names it. */
export function sourceIn({ repository }: Where, file: string): string {
  return repository ? joinUp(repository.project, file) : file
}

/** A file of the build folder in the same way; of a folder that is in no repository, from where it was named. */
export function builtIn({ folder: { path }, repository }: Where, file: string): string {
  const root = repository?.folder ?? path
  // What is said of the folder as a whole names the folder, and in brackets the part of it that is meant.
  if (file === path || file.startsWith(`${path} (`)) return (root || '.') + file.slice(path.length)
  if (root === '.' || root === '') return file
  return `${root.replace(/\/$/, '')}/${file}`
}

/** The report with all its places from the root of the repository. */
export function fromRoot(report: Report): Report {
  const source = <T extends { file: string }>(place: T): T => ({
    ...place,
    file: sourceIn(report, place.file),
  })
  const built = <T extends { file: string }>(place: T): T => ({ ...place, file: builtIn(report, place.file) })
  const change = (edit: Edit): Edit => ({
    ...source(edit),
    ...(edit.moveTo !== undefined && { moveTo: sourceIn(report, edit.moveTo) }),
  })
  const finding = (one: Finding): Finding => ({
    ...one,
    source: one.source && source(one.source),
    places: one.places.map((place) => ({ ...built(place), source: place.source && source(place.source) })),
    fix: { ...one.fix, edits: one.fix.edits.map(change) },
  })
  const { folder, environment, endpoints, delivery, routes, unread } = report
  return {
    ...report,
    folder: { ...folder, path: builtIn(report, folder.path) },
    repository: { project: '', folder: '' },
    findings: report.findings.map(finding),
    environment: environment.map((one) => ({
      ...one,
      definedIn: one.definedIn.map(source),
      readAt: one.readAt.map(source),
      injectedIn: one.injectedIn.map(built),
    })),
    endpoints: endpoints.map((one) => ({ ...one, places: one.places.map(built) })),
    delivery: {
      ...delivery,
      firstVisit: delivery.firstVisit.map((visit) => ({
        ...visit,
        entryFile: builtIn(report, visit.entryFile),
      })),
      largest: delivery.largest.map(built),
    },
    routes: routes.map((route) => ({
      ...route,
      entryFile: route.entryFile && builtIn(report, route.entryFile),
    })),
    unread: unread.map(source),
  }
}
