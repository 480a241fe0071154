import { type Folder, filesBelow, joinPath } from '../model/folder.ts'

/** Directories that hold no file which a build copies as it is; the build folder is added to them. */
const skipped = new Set(['node_modules', '.git', '.hg', '.svn', 'coverage', 'unpublished'])

/** A larger file is no private note; bytes. */
const largest = 50_000_000

/**
 * The file of a project that a build copied as it is to a path of its output: the same bytes below the same path, in whatever
 * directory the builder copies (`public`, `static`, one of the project's own). Null when none is there, or more than one.
 * @param buildPath the build folder, from the project
 * @param path the copy, from the build folder
 */
export async function copiedFrom(
  project: Folder,
  buildPath: string,
  path: string,
  build: Folder,
): Promise<string | null> {
  const output = joinPath(buildPath)
  const size = (await build.stat(path))?.size
  if (size === undefined || size > largest || output === '') return null
  const files = await filesBelow(project, (directory, name) => !skipped.has(name) && directory !== output)
  const found: string[] = []
  for (const file of files)
    if (file.endsWith(`/${path}`) && (await project.stat(file))?.size === size) found.push(file)
  const [only] = found
  if (only === undefined || found.length > 1) return null
  return isSame(await project.read(only), await build.read(path)) ? only : null
}

function isSame(one: Uint8Array, other: Uint8Array): boolean {
  return one.length === other.length && one.every((byte, index) => byte === other[index])
}
