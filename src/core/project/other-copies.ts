import { isHashed, withoutHash } from '../model/fingerprint.ts'
import { type Folder, filesBelow, joinPath, listIfThere, within } from '../model/folder.ts'
import { readText } from '../model/text.ts'

/** Another directory of the project that holds this output, of another time. */
export interface OtherCopy {
  readonly directory: string
  /** A file of the build that the copy has not, or has otherwise: below the build folder. */
  readonly differs: string
}

/** A page of a site is smaller, and more files are not compared one by one. */
const largestEntry = 1_000_000
const mostFiles = 2_000

/** What a page requests and other texts in it, told apart by their marks. */
const words = /(?<![\w@./~-])[\w@./~-]+\.[a-z]\w*/gi

/**
 * Directories beside the build folder that hold the same output and not the same files: their entry page is the same but for
 * hashes. What is another site has another entry page.
 * @param files the paths and sizes of the build
 */
export async function otherCopies(
  project: Folder,
  buildPath: string,
  files: readonly { readonly path: string; readonly size: number }[],
): Promise<OtherCopy[]> {
  const own = joinPath(buildPath).split('/')[0] ?? ''
  const entry = own === '' ? null : await entryOf(project, joinPath(buildPath))
  if (entry === null) return []
  const found: OtherCopy[] = []
  for (const { name, kind } of (await listIfThere(project, '')) ?? []) {
    if (kind !== 'directory' || name === own || name === 'node_modules' || name.startsWith('.')) continue
    const copy = await entryOf(project, name)
    if (copy === null || plain(copy) !== plain(entry) || !(await isOutput(project, name, files))) continue
    const differs = copy === entry ? await differing(project, name, files) : 'index.html'
    if (differs !== null) found.push({ directory: name, differs })
  }
  return found
}

/** Directories of sources, whose entry page is the template of the built one. */
const ofSources = /^(?:src|source|sources|app|client|web|frontend|templates?|views|public|static|wwwroot)$/i

/** Whether a directory holds what the build wrote: nearly all of its names, hashes aside. */
async function isOutput(
  project: Folder,
  directory: string,
  files: readonly { readonly path: string }[],
): Promise<boolean> {
  if (ofSources.test(directory) && !files.some(({ path }) => isHashed(path))) return false
  const own = await filesBelow(within(project, directory), () => true)
  const names = new Set(own.map(withoutHash))
  const shared = files.filter(({ path }) => names.has(withoutHash(path)))
  return shared.length >= files.length * 0.8
}

async function entryOf(project: Folder, directory: string): Promise<string | null> {
  const path = joinPath(directory, 'index.html')
  const stat = await project.stat(path)
  return stat && stat.size <= largestEntry ? readText(project, path) : null
}

function plain(page: string): string {
  return page.replace(words, (word) => withoutHash(word))
}

async function differing(
  project: Folder,
  directory: string,
  files: readonly { readonly path: string; readonly size: number }[],
): Promise<string | null> {
  for (const { path, size } of files.slice(0, mostFiles)) {
    const copy = await project.stat(joinPath(directory, path))
    if (copy?.size !== size) return path
  }
  return null
}
