import { join } from 'node:path'
import { FolderError, UsageError } from '../core/model/errors.ts'
import type { Report } from '../core/model/report.ts'
import { check } from '../core/pipeline/check.ts'
import { findFrontEnds, type ProjectEntry } from '../core/project/projects.ts'
import { type CheckedProject, ofAllProjects } from '../core/report/several-projects.ts'
import { type PathOptions, preparePath } from './check-path.ts'
import { openPath, type Surroundings } from './opening/locate.ts'

/** How all projects are checked: each has its own address and configuration. */
export interface AllOptions extends Omit<PathOptions, 'site' | 'folder' | 'project' | 'config'> {
  /** Called before each project, with its place in the list, from 1. */
  readonly onProject?: (entry: ProjectEntry, number: number, of: number) => void
  /** Done before each project is checked, as to build it. */
  readonly before?: (path: string, entry: ProjectEntry) => Promise<void>
  /** Ends the run after the project that is under way. */
  readonly signal?: AbortSignal
}

/** Every front end of a repository with its report, and the report of all. */
export interface CheckedRepository {
  readonly projects: readonly CheckedProject[]
  readonly report: Report
}

/**
 * Checks every front end of a repository, one after the other, each with its own configuration. One that can't be looked at is said
 * so, and the others go on.
 * @throws {FolderError} when the repository can't be read
 * @throws {UsageError} when it holds no front end, or an option can't be used
 */
export async function checkAllProjects(path: string, options: AllOptions = {}): Promise<CheckedRepository> {
  const { onProject, before, signal, ...given } = options
  const folder = await openPath(path)
  const { entries, remarks } = await findFrontEnds(folder, options.frameworks)
  if (entries.length === 0)
    throw new UsageError(
      `${folder.label} holds no front end: no project that a known framework or bundler builds.`,
    )
  const projects: CheckedProject[] = []
  const surroundings: Surroundings = new Map()
  for (const [index, entry] of entries.entries()) {
    signal?.throwIfAborted()
    onProject?.(entry, index + 1, entries.length)
    projects.push(await checkOne(join(path, entry.directory), entry, { ...given, surroundings }, before))
  }
  const report = ofAllProjects(projects, folder.label)
  const survey = { ...report.survey, remarks: [...remarks, ...report.survey.remarks] }
  return { projects, report: { ...report, survey } }
}

async function checkOne(
  path: string,
  entry: ProjectEntry,
  options: PathOptions,
  before: AllOptions['before'],
): Promise<CheckedProject> {
  try {
    await before?.(path, entry)
    const prepared = await preparePath(path, options)
    return { entry, report: await check(prepared.folder, prepared.options), problem: null }
  } catch (error) {
    if (error instanceof FolderError || error instanceof UsageError)
      return { entry, report: null, problem: error.message }
    throw error
  }
}
