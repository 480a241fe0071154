import { cpSync, lstatSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from 'node:fs'
import { basename, dirname, join, relative, sep } from 'node:path'
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
  if (name !== 'node_modules')
    return lstatSync(path).isFile() || lstatSync(path).isDirectory() || lstatSync(path).isSymbolicLink()
  linkEach(path, join(copy, relative(root, path)))
  return false
}

/** Links what is in a directory of dependencies; directories of a scope are made, and their packages linked. */
function linkEach(from: string, to: string): void {
  mkdirSync(to, { recursive: true })
  for (const name of readdirSync(from)) {
    if (leftOut.has(name)) continue
    if (name.startsWith('@')) linkEach(join(from, name), join(to, name))
    else symlinkSync(join(from, name), join(to, name))
  }
}

/** A path of the project in its copy. */
export function inScratch(path: string, root: string, scratch: Scratch): string {
  return join(scratch.root, relative(root, path).split(sep).join(sep))
}
