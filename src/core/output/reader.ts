import { FolderError } from '../model/errors.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Folder } from '../model/folder.ts'
import { PackedReferences, packReferences, Texts } from '../model/reference-list.ts'
import type { Search } from '../model/search.ts'
import { kindOf, listedFile, type ReadFacts, readFile, unreadFile } from './read-file.ts'

/**
 * Reads the files of a build folder into facts, in the order of their paths.
 * @throws the signal's reason, an `AbortError` where nobody gives another, when the signal is aborted
 */
export type Reader = (
  build: Folder,
  paths: readonly string[],
  search: Search,
  onProgress: (done: number) => void,
  signal?: AbortSignal,
) => Promise<readonly FileFacts[]>

/** Reads one file after the other. Works on any folder. */
export const readInTurn: Reader = async (build, paths, search, onProgress, signal) => {
  const texts = new Texts()
  const facts: FileFacts[] = []
  for (const path of paths) {
    signal?.throwIfAborted()
    facts.push(await readOne(build, path, search, texts))
    onProgress(facts.length)
  }
  return facts
}

async function readOne(build: Folder, path: string, search: Search, texts: Texts): Promise<FileFacts> {
  try {
    if (kindOf(path) === 'other') return await listed(build, path)
    return packed(readFile(path, await build.read(path), search), texts)
  } catch (error) {
    if (error instanceof FolderError) return notRead(build, path, error)
    throw error
  }
}

/** The facts of a file that is there and could not be read. */
export async function notRead(build: Folder, path: string, { message }: FolderError): Promise<FileFacts> {
  const stat = await build.stat(path).catch(() => null)
  return { ...unreadFile(path, message), size: stat?.size ?? 0 }
}

/** The facts of a file that holds no references: what can be known without reading it. */
export async function listed(build: Folder, path: string): Promise<FileFacts> {
  const stat = await build.stat(path)
  return stat ? listedFile(path, stat.size) : unreadFile(path, `There is no file at ${path}.`)
}

/** The same facts, their references as numbers. Files with few of them are left as they are. */
function packed(facts: ReadFacts, texts: Texts): FileFacts {
  if (facts.references.length < 8) return facts
  return { ...facts, references: new PackedReferences(texts, packReferences(facts.references, texts)) }
}
