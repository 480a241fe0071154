import picomatch from 'picomatch'
import type { Manifest } from '../frameworks/project-sources.ts'
import { texts } from '../frameworks/readings.ts'
import { type Folder, joinPath, listIfThere, nameOf } from '../model/folder.ts'
import { readText } from '../model/text.ts'
import { member } from '../syntax/value.ts'
import { foldData } from './config/data-files.ts'
import { IgnoreRules } from './ignore-rules.ts'

/** Directories that hold no projects of the repository's own. */
const skipped = new Set([
  'node_modules',
  'bower_components',
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

/** Without a list of workspaces, projects are looked for so many directories down. */
const deepest = 3

/** Entries of directories that are looked at for projects. */
const mostEntries = 20_000

/** Looks at a directory, and says whether it is a project. */
export type Take = (directory: string) => Promise<boolean>

/** Patterns of the workspaces: in the manifest (a list, or `packages` in an object), or in pnpm's own file. */
export async function workspacePatterns(
  folder: Folder,
  manifest: Manifest | null,
): Promise<readonly string[]> {
  const inManifest = manifest?.list('workspaces') ?? []
  if (inManifest.length > 0) return inManifest
  const nested = manifest?.list('workspaces', 'packages') ?? []
  if (nested.length > 0) return nested
  const file = 'pnpm-workspace.yaml'
  const text = (await folder.stat(file)) && (await readText(folder, file))
  if (text === null) return []
  return texts(member(await foldData(file, text).catch(() => null), 'packages'))?.value ?? []
}

/** Whether a directory is one of the workspaces; patterns with `!` leave out. */
export function workspaceMatcher(patterns: readonly string[]): (directory: string) => boolean {
  const plain = (pattern: string): string => joinPath(pattern.replace(/^!/, ''))
  const isMember = picomatch(patterns.filter((each) => !each.startsWith('!')).map(plain))
  const isLeftOut = picomatch(patterns.filter((each) => each.startsWith('!')).map(plain))
  return (directory) => isMember(directory) && !isLeftOut(directory)
}

/**
 * Takes the directories of the list of workspaces. Only those are entered that a pattern may lead to.
 * @returns what a person should know: that there was more than is looked at
 */
export function searchWorkspaces(folder: Folder, patterns: readonly string[], take: Take): Promise<string[]> {
  const isMember = workspaceMatcher(patterns)
  const leads = patterns
    .filter((each) => !each.startsWith('!'))
    .map((each) => joinPath(each).split('/'))
    .map((steps) => ({ open: steps.indexOf('**'), fits: steps.map((step) => picomatch(step)) }))
  const mayLead = (directory: string): boolean => {
    const steps = directory.split('/')
    return leads.some(({ open, fits }) =>
      steps.every((step, index) => (open >= 0 && index >= open) || fits[index]?.(step) === true),
    )
  }
  return search(folder, {
    take: async (directory) => isMember(directory) && (await take(directory)),
    enter: (directory) => nameOf(directory) !== 'node_modules' && mayLead(directory),
    beyondTaken: true,
  })
}

/** Takes projects a few directories down; never in what git ignores, nor in hidden, vendor and dependency directories. */
export function searchBelow(folder: Folder, take: Take): Promise<string[]> {
  const ignored = new IgnoreRules(folder)
  return search(folder, {
    take,
    enter: async (directory) =>
      !nameOf(directory).startsWith('.') &&
      !skipped.has(nameOf(directory)) &&
      directory.split('/').length <= deepest &&
      !(await ignored.has(directory)),
    beyondTaken: false,
  })
}

interface ProjectSearch {
  readonly take: Take
  enter(directory: string): boolean | Promise<boolean>
  /** Whether projects may be below projects. */
  readonly beyondTaken: boolean
}

async function search(folder: Folder, { take, enter, beyondTaken }: ProjectSearch): Promise<string[]> {
  let entries = 0
  const look = async (directory: string): Promise<void> => {
    for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
      if (++entries > mostEntries) return
      const path = joinPath(directory, name)
      if (kind !== 'directory' || !(await enter(path))) continue
      const taken = await take(path)
      if (!taken || beyondTaken) await look(path)
    }
  }
  await look('')
  const remark = `More than ${mostEntries} directory entries were looked at for projects, and the rest was left out. If yours is missing, name its directory.`
  return entries > mostEntries ? [remark] : []
}
