import type { Framework } from '../frameworks/framework.ts'
import { FolderError, UsageError } from '../model/errors.ts'
import { type Folder, joinPath, listIfThere, nameOf, within } from '../model/folder.ts'
import { rankOfBuild, readBuildCommand, startedIn } from './build-command.ts'
import type { HandedValue } from './config/evaluate.ts'
import { describeOutline, type Outline, outlineProject } from './describe-project.ts'
import { searchBelow, searchWorkspaces, workspaceMatcher, workspacePatterns } from './find-projects.ts'
import { readManifest } from './manifest.ts'
import type { Described, RepositoryAround } from './survey.ts'
import { mayNeedPackages, packagesNeeded, type WorkspacePackage } from './workspace-packages.ts'

/** A project of a repository. */
export interface ProjectEntry {
  /** Below the repository; `''` is its root. */
  readonly directory: string
  readonly name: string | null
  readonly framework: string | null
  /** The server library that makes it a server's program, when it is one. */
  readonly server: string | null
  readonly buildCommand: string | null
  /** These are null where the configuration was not read, or is computed. */
  readonly publishDirectory: string | null
  readonly basePath: string | null
}

/** The project that is looked at, among all there are. */
export interface Chosen extends Described {
  readonly entry: ProjectEntry
  readonly all: readonly ProjectEntry[]
  /** Why this one, when there was a choice. */
  readonly why: string | null
  /** Directories of the other packages of the repository that it depends on, from its own directory. */
  readonly packages: readonly string[]
}

const serverPackages = ['express', 'fastify', 'koa', 'hono', '@nestjs/core', '@hapi/hapi', 'restify', 'polka']

/** How the project is chosen. */
export interface Choosing {
  /** Its name or directory; null for the one that is meant. */
  readonly wanted?: string | null
  /** Frameworks beside those that are known. */
  readonly own?: readonly Framework[]
  /** The repository that the folder is a workspace of. */
  readonly around?: RepositoryAround | null
  /** Whether the configuration of all projects is read, and not only that of the one that is meant. */
  readonly all?: boolean
  /** The project in the directory itself is meant, and none below is looked for. */
  readonly itself?: boolean
  /** Variables that pipeline and container files of the repository set plainly. */
  readonly handed?: ReadonlyMap<string, HandedValue>
}

/**
 * Finds the projects of a repository and takes the one that is meant: the one named, the one in the directory itself,
 * the only front end. Null when there is none. Of the others only the manifest and the names of files are read.
 * @throws {UsageError} when the name fits none, or several could be meant.
 */
export async function chooseProject(folder: Folder, choosing: Choosing = {}): Promise<Chosen | null> {
  const { wanted = null, own = [], around, all = false, itself = false, handed } = choosing
  const taken = (
    pick: FoundProject,
    list: readonly FoundProject[],
    more: Partial<Taken> = {},
  ): Promise<Chosen> => chosen(pick, list, { why: null, remarks: [], all: false, handed, ...more })
  const root = await outlineProject(folder, around ?? undefined, own)
  if (itself) return root && taken(found('', root), [found('', root)])
  const manifest = root?.manifest ?? null
  const isRoot = wanted === null || joinPath(wanted) === ''
  const below = isRoot && root ? await builtBelow(folder, root, own) : null
  if (below) return taken(below, [below], { why: 'the build is started there' })
  const workspaces = await workspacePatterns(folder, manifest)
  // One manifest may be for the projects of all directories below.
  const isForOthers = root !== null && !around && isOnlyRoot(found('', root))
  if (isRoot && root?.recognised && workspaces.length === 0 && !isForOthers) {
    const pick = found('', root)
    return {
      ...(await taken(pick, [pick], { all })),
      ...(around && { packages: await packagesAround(pick, around) }),
    }
  }
  // An entry page beside nothing that builds it: a build folder, whose thousands of directories hold no project.
  const isBuilt = manifest?.texts('scripts').has('build') ?? false
  if (wanted === null && !root?.recognised && !isBuilt && workspaces.length === 0 && (await hasEntry(folder)))
    return null
  const { list, remarks } = await findAll(folder, root, workspaces, own)
  const projects = list.filter(({ entry }) => isProjectEntry(entry))
  const pick = wanted === null ? choose(list, folder.label) : named(list, wanted)
  return pick && taken(pick, projects, { why: pick.why, remarks, all })
}

/** Every front end of a repository, by its manifest and the names of its files, and what a person should know of the search. */
export async function findFrontEnds(
  folder: Folder,
  own: readonly Framework[] = [],
): Promise<{ readonly entries: readonly ProjectEntry[]; readonly remarks: readonly string[] }> {
  const root = await outlineProject(folder, undefined, own)
  const workspaces = await workspacePatterns(folder, root?.manifest ?? null)
  const { list, remarks } = await findAll(folder, root, workspaces, own)
  const entries: ProjectEntry[] = []
  for (const each of list) {
    if (each.outline.recognised && !isLibrary(each) && (await hasPage(each))) entries.push(each.entry)
  }
  return { entries, remarks }
}

/** Whether something that a bundler set up by hand makes may be a site: it has a page, or has built one. */
async function hasPage({ outline: { folder, recognised } }: FoundProject): Promise<boolean> {
  const framework = recognised?.framework
  if (framework?.general !== true) return true
  const places = ['', 'src/', 'public/', 'static/', `${framework.usualDirectory}/`]
  for (const place of places) if ((await folder.stat(`${place}index.html`)) !== null) return true
  return false
}

/** What `cd client && vite build` builds: that directory's files, with the manifest of the directory itself where it has none. */
async function builtBelow(
  folder: Folder,
  { manifest, names, recognised }: Outline,
  own: readonly Framework[],
): Promise<FoundProject | null> {
  const directory = recognised ? startedIn(manifest, recognised.framework) : ''
  if (directory === '' || directory.startsWith('..') || !(await listIfThere(folder, directory))) return null
  const above = await readManifest(folder, '', directory)
  const outline = await outlineProject(within(folder, directory), { manifest, names }, own, above)
  return outline?.recognised ? found(directory, outline) : null
}

async function hasEntry(folder: Folder): Promise<boolean> {
  return (await folder.stat('index.html')) !== null
}

/** How the project was chosen. */
interface Taken extends Required<Pick<Choosing, 'all'>>, Pick<Chosen, 'why'> {
  readonly remarks: readonly string[]
  readonly handed: Choosing['handed'] | undefined
}

async function chosen(
  pick: FoundProject,
  projects: readonly FoundProject[],
  { why, remarks, all, handed }: Taken,
): Promise<Chosen> {
  const described = await describeOutline(pick.outline, true, handed)
  const entry = withReadings(pick.entry, described)
  const entries: ProjectEntry[] = []
  for (const each of projects) {
    if (each.entry.directory === entry.directory) entries.push(entry)
    else entries.push(all ? await describedEntry(each) : each.entry)
  }
  const survey = { ...described.survey, remarks: [...described.survey.remarks, ...remarks] }
  return {
    ...described,
    survey,
    entry,
    all: entries,
    why,
    packages: packagesNeeded(packageOf(pick), projects.map(packageOf)),
  }
}

function packageOf({ entry, outline }: FoundProject): WorkspacePackage {
  return { directory: entry.directory, name: entry.name, manifest: outline.manifest }
}

/** The packages of the repository that a project in one of its directories depends on. */
async function packagesAround(
  pick: FoundProject,
  { workspace }: RepositoryAround,
): Promise<readonly string[]> {
  if (!workspace || !mayNeedPackages(pick.outline.manifest)) return []
  return packagesNeeded({ ...packageOf(pick), directory: workspace.directory }, await workspace.packages())
}

/** An entry with its publish directory and base path, for which the configuration is read, and nothing else of the project. */
export async function describedEntry({ entry, outline }: FoundProject): Promise<ProjectEntry> {
  return withReadings(entry, await describeOutline(outline, false))
}

function withReadings(entry: ProjectEntry, { survey }: Described): ProjectEntry {
  const { publishDirectory, basePath } = survey
  return { ...entry, publishDirectory: publishDirectory?.value ?? null, basePath: basePath?.value ?? null }
}

/** Several projects could be meant. The message lists them, and so does `projects`. */
export class SeveralProjects extends UsageError {
  static override readonly kind: string = 'SeveralProjects'
  readonly projects: readonly ProjectEntry[]
  readonly #found: readonly FoundProject[]

  constructor(message: string, found: readonly FoundProject[]) {
    super(message, { setting: 'project' })
    this.#found = found
    this.projects = found.map(({ entry }) => entry)
  }

  /** The same with their publish directories and base paths, for which their configuration is read. */
  async described(): Promise<readonly ProjectEntry[]> {
    const entries: ProjectEntry[] = []
    for (const each of this.#found) entries.push(await describedEntry(each))
    return entries
  }
}

/** The root of a repository is no project of its own when nothing is built there. */
function isProjectEntry({ directory, framework, server }: ProjectEntry): boolean {
  return directory !== '' || framework !== null || server !== null
}

/** A project that was found, not read further than to know it. */
interface FoundProject {
  readonly outline: Outline
  readonly entry: ProjectEntry
}

function named(found: readonly FoundProject[], wanted: string): FoundProject & { why: null } {
  const directory = joinPath(wanted)
  const pick =
    found.find(({ entry }) => entry.name === wanted || entry.directory === directory) ??
    found.find(({ entry }) => nameOf(entry.directory) === wanted)
  if (!pick) {
    throw new UsageError(
      `There is no project "${wanted}". There are: ${
        found
          .map(({ entry }) => entry)
          .filter(isProjectEntry)
          .map(labelOf)
          .join(', ') || 'none'
      }.`,
    )
  }
  return { ...pick, why: null }
}

/** The front end is meant: a site's framework before a bundler set up by hand, and never a server's program alone. */
function choose(
  found: readonly FoundProject[],
  label: string,
): (FoundProject & { why: string | null }) | null {
  const built = found.filter(({ outline: { recognised } }) => recognised)
  const sites = orAll(built, ({ outline: { recognised } }) => !recognised?.framework.general)
  const candidates = orAll(sites, (each) => !isLibrary(each))
  const [first, ...others] = candidates
  if (!first) return found[0] ? { ...found[0], why: null } : null
  if (others.length > 0) {
    const list = candidates.map(({ entry }) => `${labelOf(entry)} (${entry.framework})`).join(', ')
    throw new SeveralProjects(
      `${label} holds several projects: ${list}. One of them has to be named.`,
      found.filter(({ entry }) => isProjectEntry(entry)),
    )
  }
  return { ...first, why: reason(first, found) }
}

/** Those that fit, or all where none does. */
function orAll<T>(list: readonly T[], fits: (one: T) => boolean): readonly T[] {
  const fitting = list.filter(fits)
  return fitting.length > 0 ? fitting : list
}

/** A package that others import, without the page that its builder begins with: no site comes of it. */
function isLibrary({ outline: { manifest, names, recognised } }: FoundProject): boolean {
  return recognised?.framework.beginsWithPage === true && !names.has('index.html') && exportsCode(manifest)
}

function exportsCode(manifest: Outline['manifest']): boolean {
  const exported = ['main', 'module', 'exports'].some((name) => manifest?.text(name))
  return exported || (manifest?.texts('exports').size ?? 0) + (manifest?.textsBelow('exports').size ?? 0) > 0
}

/**
 * The root of workspaces may state what its workspaces are built with, and build nothing itself: it has no configuration
 * and no page, and no script of its own calls the builder.
 */
function isOnlyRoot({ entry, outline: { manifest, names, recognised } }: FoundProject): boolean {
  if (entry.directory !== '' || !recognised || names.has('index.html')) return false
  return recognised.configFile === null && rankOfBuild(manifest, recognised.framework) === null
}

function reason(first: FoundProject, found: readonly FoundProject[]): string | null {
  const others = found.filter((each) => each !== first && (each.entry.server || each.entry.framework))
  if (others.length === 0) return first.entry.directory === '' ? null : 'the only project here'
  const words = others.map(({ entry }) =>
    entry.server
      ? `${labelOf(entry)} is a server (${entry.server})`
      : `${labelOf(entry)} is built by ${entry.framework} alone`,
  )
  return `the only front end; ${words.join('; ')}`
}

function labelOf({ directory, name }: ProjectEntry): string {
  return directory || name || '.'
}

/** The workspaces; where they hold no front end, or there is no list of them, what is a few directories down. */
async function findAll(
  folder: Folder,
  root: Outline | null,
  workspaces: readonly string[],
  own: readonly Framework[],
): Promise<{ list: FoundProject[]; remarks: string[] }> {
  const names = root?.names ?? new Set(((await listIfThere(folder, '')) ?? []).map(({ name }) => name))
  const around: RepositoryAround = { manifest: root?.manifest ?? null, names }
  const list: FoundProject[] = root ? [found('', root)] : []
  const remarks: string[] = []
  const isWorkspace = workspaces.length > 0 ? workspaceMatcher(workspaces) : () => true
  const isOne = async (directory: string): Promise<boolean> => {
    const one = await outlineOne(folder, directory, around, isWorkspace(directory), own)
    if (one && !list.some(({ entry }) => entry.directory === directory)) list.push(one)
    return one !== null
  }
  const isFrontEnd = ({ entry, outline }: FoundProject): boolean =>
    entry.directory !== '' && outline.recognised !== null
  if (workspaces.length > 0) remarks.push(...(await searchWorkspaces(folder, workspaces, isOne)))
  if (!list.some(isFrontEnd)) remarks.push(...(await searchBelow(folder, isOne)))
  const [first] = list
  if (first && list.some(isFrontEnd) && isOnlyRoot(first))
    list[0] = found('', { ...first.outline, recognised: null })
  return { list: list.sort((a, b) => (a.entry.directory < b.entry.directory ? -1 : 1)), remarks }
}

async function outlineOne(
  folder: Folder,
  path: string,
  around: RepositoryAround,
  isWorkspace: boolean,
  own: readonly Framework[],
): Promise<FoundProject | null> {
  try {
    const outline = await outlineProject(within(folder, path), around, own)
    const one = outline && found(path, outline)
    return one && (one.entry.framework || one.entry.server || (isWorkspace && one.entry.name)) ? one : null
  } catch (error) {
    // A broken manifest somewhere below is no reason not to look at the rest.
    if (error instanceof FolderError) return null
    throw error
  }
}

function found(directory: string, outline: Outline): FoundProject {
  const { manifest, recognised, manager } = outline
  const framework = recognised?.framework ?? null
  const build = framework && readBuildCommand(manifest, manager?.packageManager?.value ?? 'npm', framework)
  const entry: ProjectEntry = {
    directory,
    name: manifest?.text('name')?.value ?? null,
    framework: framework?.name ?? null,
    server: framework ? null : (serverPackages.find((name) => manifest?.dependency(name)) ?? null),
    buildCommand: build?.command.value ?? null,
    publishDirectory: null,
    basePath: null,
  }
  return { outline, entry }
}
