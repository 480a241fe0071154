import type { Manifest } from '../frameworks/project-sources.ts'
import { FolderError } from '../model/errors.ts'
import { type Folder, within } from '../model/folder.ts'
import { searchWorkspaces, workspaceMatcher, workspacePatterns } from './find-projects.ts'
import { dependencySorts, readManifest } from './manifest.ts'
import { lockfileNames } from './package-manager.ts'
import type { RepositoryAround } from './survey.ts'

/** A package of a repository: what others may import by its name. */
export interface WorkspacePackage {
  /** From the repository; `''` is its root. */
  readonly directory: string
  readonly name: string | null
  readonly manifest: Manifest | null
}

/** A repository of workspaces, as every one of them sees it. */
export interface Workspaces extends Omit<RepositoryAround, 'workspace'> {
  readonly isMember: (directory: string) => boolean
  /** Read when first asked for. */
  readonly packages: () => Promise<WorkspacePackage[]>
  readonly texts: Map<string, string | null>
}

/** What a directory says of its workspaces; null when it has none. The directory is not listed. */
export async function workspacesOf(repository: Folder): Promise<Workspaces | null> {
  const manifest = (await repository.stat('package.json')) && (await readManifest(repository))
  const patterns = await workspacePatterns(repository, manifest)
  if (patterns.length === 0) return null
  const names = new Set<string>()
  for (const name of lockfileNames) if ((await repository.stat(name)) !== null) names.add(name)
  let found: Promise<WorkspacePackage[]> | null = null
  const packages = (): Promise<WorkspacePackage[]> => {
    found ??= workspacePackages(repository, patterns)
    return found
  }
  return { manifest, names, isMember: workspaceMatcher(patterns), packages, texts: new Map() }
}

/** The repository around a directory below it, when the directory is one of its workspaces. */
export function aroundOf(workspaces: Workspaces | null, below: string): RepositoryAround | null {
  if (!workspaces?.isMember(below)) return null
  const { manifest, names, packages, texts } = workspaces
  return { manifest, names, workspace: { directory: below, packages, texts } }
}

/** Reads the manifests of a repository's workspaces. One that is broken is left out. */
export async function workspacePackages(
  repository: Folder,
  patterns: readonly string[],
): Promise<WorkspacePackage[]> {
  const found: WorkspacePackage[] = []
  await searchWorkspaces(repository, patterns, async (directory) => {
    const manifest = await manifestOf(within(repository, directory))
    if (manifest) found.push({ directory, name: manifest.text('name')?.value ?? null, manifest })
    return manifest !== null
  })
  return found
}

async function manifestOf(folder: Folder): Promise<Manifest | null> {
  try {
    return await readManifest(folder)
  } catch (error) {
    if (error instanceof FolderError) return null
    throw error
  }
}

const local = /^(?:workspace:|file:|link:|portal:|\*$)/

/**
 * Whether a package may depend on another of its repository: by a version that says so, or on one of its own scope. Where
 * it does not, nothing beside it is looked at.
 */
export function mayNeedPackages(manifest: Manifest | null): boolean {
  const scope = /^@[^/]+\//.exec(manifest?.text('name')?.value ?? '')?.[0]
  return dependencySorts.some((sort) =>
    [...(manifest?.texts(sort) ?? [])].some(
      ([name, { value }]) => local.test(value) || (scope !== undefined && name.startsWith(scope)),
    ),
  )
}

/** The directories of what a package depends on within its repository, and of what that depends on; from its own directory. */
export function packagesNeeded(own: WorkspacePackage, all: readonly WorkspacePackage[]): string[] {
  const needed = new Map([[own.directory, own]])
  for (const { manifest } of needed.values()) {
    for (const each of all) {
      if (each.name !== null && manifest?.dependency(each.name)) needed.set(each.directory, each)
    }
  }
  const up = own.directory === '' ? '' : '../'.repeat(own.directory.split('/').length)
  return [...needed.keys()]
    .filter((directory) => directory !== own.directory && directory !== '')
    .map((directory) => up + directory)
}
