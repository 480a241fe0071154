import picomatch from 'picomatch'
import { type Folder, FolderError, joinPath, listIfThere, nameOf, within } from '../model/folder.ts'
import { UsageError } from '../model/site.ts'
import { readText } from '../model/text.ts'
import { foldData } from './config/data-files.ts'
import { member } from './config/value.ts'
import { describeProject } from './describe-project.ts'
import type { Framework } from './frameworks/framework.ts'
import { texts } from './frameworks/readings.ts'
import { type Manifest, readManifest } from './manifest.ts'
import type { Described, Surroundings } from './survey.ts'

/** A project of a repository. */
export interface ProjectEntry {
  /** Below the repository; `''` is its root. */
  readonly directory: string
  readonly name: string | null
  readonly framework: string | null
  /** The server library that makes it a server's program, when it is one. */
  readonly server: string | null
  readonly buildCommand: string | null
  readonly publishDirectory: string | null
}

/** The project that is looked at, among all there are. */
export interface Chosen extends Described {
  readonly entry: ProjectEntry
  readonly all: readonly ProjectEntry[]
  /** Why this one, when there was a choice. */
  readonly why: string | null
}

/** Directories that hold no projects of the repository's own. */
const skipped = new Set([
  'node_modules',
  'dist',
  'build',
  'out',
  'public',
  'static',
  'vendor',
  'coverage',
  'target',
  'test',
  'tests',
  '__tests__',
  'fixtures',
  '__fixtures__',
])

/** Projects lie this many directories down, at most. */
const deepest = 3

const serverPackages = ['express', 'fastify', 'koa', 'hono', '@nestjs/core', '@hapi/hapi', 'restify', 'polka']

/**
 * Finds the projects of a repository and takes the one that is meant: the one named, the one in the directory itself,
 * the only front end. Null when there is none.
 * @throws {UsageError} when the name fits none, or several could be meant.
 */
export async function chooseProject(
  folder: Folder,
  wanted: string | null,
  own: readonly Framework[] = [],
): Promise<Chosen | null> {
  const root = await describeProject(folder, undefined, own)
  const manifest = await readManifest(folder)
  const workspaces = await workspacePatterns(folder, manifest)
  if (wanted === null && root?.survey.rules && workspaces.length === 0) {
    const entry = entryOf('', root, manifest)
    return { ...root, entry, all: [entry], why: null }
  }
  // An entry page and no manifest: a build folder, whose thousands of directories hold no project.
  if (wanted === null && !root?.survey.rules && manifest === null && (await folder.stat('index.html')))
    return null
  const found = await findAll(folder, manifest, workspaces, own)
  if (root) found.unshift({ described: root, entry: entryOf('', root, manifest) })
  const all = found.map(({ entry }) => entry).filter(isProject)
  const pick = wanted === null ? choose(found, folder.label) : named(found, wanted)
  return pick && { ...pick.described, entry: pick.entry, all, why: pick.why }
}

/** Several projects could be meant. The message lists them, and so does `projects`. */
export class SeveralProjects extends UsageError {
  readonly projects: readonly ProjectEntry[]

  constructor(message: string, projects: readonly ProjectEntry[]) {
    super(message)
    this.projects = projects
  }
}

/** The root of a repository is no project of its own when nothing is built there. */
function isProject({ directory, framework, server }: ProjectEntry): boolean {
  return directory !== '' || framework !== null || server !== null
}

interface Found {
  readonly described: Described
  readonly entry: ProjectEntry
}

function named(found: readonly Found[], wanted: string): Found & { why: null } {
  const directory = joinPath(wanted)
  const pick =
    found.find(({ entry }) => entry.name === wanted || entry.directory === directory) ??
    found.find(({ entry }) => nameOf(entry.directory) === wanted)
  if (!pick) {
    throw new UsageError(
      `There is no project "${wanted}". There are: ${
        found
          .map(({ entry }) => entry)
          .filter(isProject)
          .map(labelOf)
          .join(', ') || 'none'
      }.`,
    )
  }
  return { ...pick, why: null }
}

/** The front end is meant: a site's framework before a bundler set up by hand, and never a server's program alone. */
function choose(found: readonly Found[], label: string): (Found & { why: string | null }) | null {
  const built = found.filter(({ described: { survey } }) => survey.rules)
  const sites = built.filter(({ described: { survey } }) => !survey.rules?.general)
  const candidates = sites.length > 0 ? sites : built
  const [first, ...others] = candidates
  if (!first) return found[0] ? { ...found[0], why: null } : null
  if (others.length > 0) {
    const list = candidates.map(({ entry }) => `${labelOf(entry)} (${entry.framework})`).join(', ')
    throw new SeveralProjects(
      `${label} holds several projects: ${list}. Say which with --project.`,
      found.map(({ entry }) => entry).filter(isProject),
    )
  }
  return { ...first, why: reason(first, found) }
}

function reason(first: Found, found: readonly Found[]): string | null {
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

async function findAll(
  folder: Folder,
  root: Manifest | null,
  workspaces: readonly string[],
  own: readonly Framework[],
): Promise<Found[]> {
  const entries = (await listIfThere(folder, '')) ?? []
  const around: Surroundings = { manifest: root, names: new Set(entries.map(({ name }) => name)) }
  const isWorkspace =
    workspaces.length > 0 ? picomatch(workspaces.map((pattern) => joinPath(pattern))) : () => true
  const found: Found[] = []
  const enter = async (directory: string, depth: number): Promise<void> => {
    for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
      if (kind !== 'directory' || name.startsWith('.') || skipped.has(name)) continue
      const path = joinPath(directory, name)
      // A repository with workspaces may still keep a project that is none of them.
      const one = await describeOne(folder, path, around, isWorkspace(path), own)
      if (one) found.push(one)
      else if (depth < deepest) await enter(path, depth + 1)
    }
  }
  await enter('', 1)
  return found
}

async function describeOne(
  folder: Folder,
  path: string,
  around: Surroundings,
  isWorkspace: boolean,
  own: readonly Framework[],
): Promise<Found | null> {
  const inner = within(folder, path)
  try {
    const described = await describeProject(inner, around, own)
    const entry = described && entryOf(path, described, await readManifest(inner))
    return described && entry && (entry.framework || entry.server || (isWorkspace && entry.name))
      ? { described, entry }
      : null
  } catch (error) {
    // A broken manifest somewhere below is no reason not to look at the rest.
    if (error instanceof FolderError) return null
    throw error
  }
}

function entryOf(directory: string, { survey }: Described, manifest: Manifest | null): ProjectEntry {
  return {
    directory,
    name: survey.project?.value ?? null,
    framework: survey.framework?.value ?? null,
    server: survey.rules ? null : (serverPackages.find((name) => manifest?.dependency(name)) ?? null),
    buildCommand: survey.build?.command.value ?? null,
    publishDirectory: survey.publishDirectory?.value ?? null,
  }
}

/** Patterns of the workspaces: in the manifest (a list, or `packages` in an object), or in pnpm's own file. */
async function workspacePatterns(folder: Folder, manifest: Manifest | null): Promise<readonly string[]> {
  const inManifest = manifest?.list('workspaces') ?? []
  if (inManifest.length > 0) return inManifest
  const nested = manifest?.list('workspaces', 'packages') ?? []
  if (nested.length > 0) return nested
  const file = 'pnpm-workspace.yaml'
  const text = await readText(folder, file)
  return text === null ? [] : (texts(member(await foldData(file, text), 'packages'))?.value ?? [])
}
