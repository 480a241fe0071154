import {
  cpSync,
  linkSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readlinkSync,
  realpathSync,
  rmSync,
  symlinkSync,
} from 'node:fs'
import { basename, dirname, join, relative } from 'node:path'
import { FolderError } from '../../core/model/errors.ts'
import { codeOf } from '../regular-file.ts'

/** Directories that a build makes anew, or that hold no source. */
const leftOut = new Set(['.git', '.cache', '.parcel-cache', '.turbo', '.angular', '.vite', '.vite-temp'])

/** A copy of a project in which a fix is tried. */
export interface Scratch {
  readonly root: string
  readonly remove: () => void
}

/**
 * Copies a directory beside itself, so that what is found by looking upwards is found from there too. Dependencies are linked one by one: what
 * a build writes among them stays in the copy.
 * @param output the directory that the build writes, from the root; it is not copied
 * @throws {FolderError} when it can't be copied
 */
export function scratchOf(root: string, output: string | null): Scratch {
  let copy: string
  try {
    copy = mkdtempSync(join(dirname(root), `.${basename(root)}-fix-`))
  } catch (error) {
    throw new FolderError(
      'unreadable',
      `No copy could be made beside ${root}: ${codeOf(error) || 'it failed'}. Try --no-build, which shows the edits unproved.`,
    )
  }
  const remove = (): void => rmSync(copy, { recursive: true, force: true, maxRetries: 3 })
  try {
    const skipped = output === null ? null : join(root, output)
    cpSync(root, copy, {
      recursive: true,
      verbatimSymlinks: true,
      filter: (path) => isCopied(path, { root, copy, skipped }),
    })
    return { root: copy, remove }
  } catch (error) {
    remove()
    throw new FolderError('unreadable', `The project could not be copied: ${codeOf(error) || 'it failed'}.`)
  }
}

function isCopied(
  path: string,
  { root, copy, skipped }: { root: string; copy: string; skipped: string | null },
): boolean {
  const name = basename(path)
  if (path === root) return true
  if (path === skipped || leftOut.has(name)) return false
  const found = lstatSync(path)
  if (name !== 'node_modules') return found.isFile() || found.isDirectory() || found.isSymbolicLink()
  const target = join(copy, relative(root, path))
  // Dependencies that are kept elsewhere stay there.
  if (found.isSymbolicLink()) symlinkSync(realpathSync(path), target)
  else linkEach(path, target)
  return false
}

/**
 * Links the files of dependencies one by one, so that a builder finds them inside the copy: some refuse what a link leads to
 * outside. Where a file system has no such links, packages are linked as a whole.
 */
function linkEach(from: string, to: string): void {
  mkdirSync(to, { recursive: true })
  for (const entry of readdirSync(from, { withFileTypes: true })) {
    if (leftOut.has(entry.name)) continue
    const [source, target] = [join(from, entry.name), join(to, entry.name)]
    if (entry.isSymbolicLink()) symlinkSync(readlinkSync(source), target)
    else if (entry.isDirectory()) linkEach(source, target)
    else if (entry.isFile()) linkFile(source, target)
  }
}

function linkFile(source: string, target: string): void {
  try {
    linkSync(source, target)
  } catch {
    symlinkSync(source, target)
  }
}
