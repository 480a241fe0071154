import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { largestFile } from '../../core/model/folder.ts'
import type { Change, History, HistoryOf } from '../../core/model/history.ts'
import { readRegular } from '../regular-file.ts'
import { git } from './git.ts'

/** How many commits are looked through for one that changed a source. */
const mostCommits = 200

/** The history of directories below a folder on disk, from the git repository they are in. */
export function historyBelow(root: string): HistoryOf {
  return async (directory) => {
    const path = join(root, directory)
    // A shallow clone ends in a commit that seems to have changed everything.
    const shallow = await git(path, ['rev-parse', '--is-shallow-repository'])
    return shallow?.trim() === 'false' ? new GitHistory(path) : null
  }
}

class GitHistory implements History {
  readonly #directory: string

  constructor(directory: string) {
    this.#directory = directory
  }

  async lastChange(files: ReadonlySet<string>): Promise<Change | null> {
    const words = [
      '--name-only',
      '--no-renames',
      '--relative',
      '-z',
      `-n${mostCommits}`,
      '--format=%x01%ct',
      '--',
      '.',
    ]
    const output = await git(this.#directory, ['log', ...words])
    for (const commit of (output ?? '').split('\u0001').slice(1)) {
      const [time = '', ...names] = commit.split(/[\0\n]+/)
      const file = names.find((name) => files.has(name))
      if (file !== undefined) return { file, at: Number(time) * 1000 }
    }
    return null
  }

  async changeOf(directory: string): Promise<number | null> {
    const output = await git(this.#directory, ['log', '-n1', '--format=%ct', '--', directory])
    return output?.trim() ? Number(output) * 1000 : null
  }

  /** By the file's own hash: asking git for the state of a file could run a filter that the repository names. */
  async isCommitted(file: string): Promise<boolean> {
    const listed = await git(this.#directory, ['ls-files', '-s', '-z', '--', file])
    const kept = /^\d+ ([0-9a-f]+) 0\t/.exec(listed ?? '')?.[1]
    if (kept === undefined) return false
    try {
      const bytes = readRegular(join(this.#directory, file), file, largestFile)
      const hash = createHash(kept.length === 64 ? 'sha256' : 'sha1')
      return hash.update(`blob ${bytes.length}\0`).update(bytes).digest('hex') === kept
    } catch {
      return false
    }
  }
}
