import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { structuredPatch } from 'diff'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import type { FileChanges, LineRange } from '../../core/report/by-change.ts'
import { repositoryOf } from '../opening/above.ts'
import { readNamed } from '../regular-file.ts'
import { git } from './git.ts'

/** Files that are compared by their lines; those of findings are a few. */
const mostFiles = 2_000
/** Milliseconds for one file; what takes longer has changed as a whole. */
const longest = 500

/**
 * What was changed since a revision: since the commit that it has in common with what is checked out, as reviews count it. Contents are compared
 * here: git would run the filters that a repository names.
 * @param files the files that matter, from the root of the repository
 * @throws {UsageError} when there is no repository, or no such revision
 */
export async function changesSince(
  directory: string,
  since: string,
  files: ReadonlySet<string>,
): Promise<FileChanges> {
  const root = repositoryOf(directory)
  if (root === null) throw new UsageError(`--changed-since ${since}: ${directory} is in no git repository.`)
  const commit = await commitOf(root, since)
  const listed = await git(root, ['ls-tree', '-r', '-z', '--name-only', commit])
  const before = new Set((listed ?? '').split('\0').filter((name) => name !== ''))
  const changed = new Map<string, readonly LineRange[]>()
  for (const file of [...files].slice(0, mostFiles)) {
    const lines = await linesChanged(root, commit, file, before.has(file))
    if (lines.length > 0) changed.set(file, lines)
  }
  return { since, changed, gone: [...before].filter((file) => !existsSync(join(root, file))) }
}

/** @throws {UsageError} when there is none of that name */
async function commitOf(root: string, since: string): Promise<string> {
  const words = ['rev-parse', '--verify', '--quiet', '--end-of-options', `${since}^{commit}`]
  const named = (await git(root, words))?.trim()
  if (!named)
    throw new UsageError(
      `--changed-since ${since}: git knows no such revision here. In a pipeline, fetch it first; a clone of one commit holds no other.`,
    )
  const common = (await git(root, ['merge-base', named, 'HEAD']))?.trim()
  return common || named
}

/** Lines of a file that are not as they were; where some were only taken away, those around them. */
async function linesChanged(
  root: string,
  commit: string,
  file: string,
  wasThere: boolean,
): Promise<LineRange[]> {
  const now = textOf(join(root, file))
  if (now === null) return []
  const whole = [{ from: 1, to: Number.MAX_SAFE_INTEGER }]
  if (!wasThere) return whole
  const before = await git(root, ['cat-file', 'blob', `${commit}:${file}`])
  if (before === null) return whole
  if (before === now) return []
  const patch = structuredPatch('', '', before, now, '', '', { context: 0, timeout: longest })
  return patch
    ? patch.hunks.map(({ newStart, newLines }) =>
        newLines === 0
          ? { from: newStart, to: newStart + 1 }
          : { from: newStart, to: newStart + newLines - 1 },
      )
    : whole
}

function textOf(path: string): string | null {
  try {
    return readNamed(path, largestText).toString('utf8')
  } catch (error) {
    if (error instanceof FolderError) return null
    throw error
  }
}
