import type { DirectoryDropItem, DropItem } from 'react-aria-components'
import { isDirectoryDropItem, isFileDropItem } from 'react-aria-components'
import type { PlacedFile } from './messages.ts'

/** Directories that hold nothing of a site, and most of a project's files. */
const skipped = new Set(['node_modules', '.git'])

/** What was put on the desk: a folder's name, and its files a few at a time. */
export interface Collected {
  readonly label: string
  readonly files: AsyncIterable<readonly PlacedFile[]>
}

/** Files passed on together: thousands at once would hold the page up. */
const together = 64

/** Gives the page time to answer its reader. */
function breathe(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve))
}

async function* inBatches(
  files: AsyncIterable<PlacedFile> | Iterable<PlacedFile>,
): AsyncGenerator<PlacedFile[]> {
  let batch: PlacedFile[] = []
  for await (const file of files) {
    batch.push(file)
    if (batch.length < together) continue
    yield batch
    batch = []
    await breathe()
  }
  if (batch.length > 0) yield batch
}

/** The files of what was dropped: one folder, one archive, or files. */
export function collectDropped(items: readonly DropItem[]): Collected {
  const [first] = items
  const named = first && (isDirectoryDropItem(first) || isFileDropItem(first)) ? first.name : 'folder'
  return { label: items.length === 1 ? named : 'folder', files: inBatches(filesOf(items)) }
}

async function* filesOf(items: readonly DropItem[]): AsyncGenerator<PlacedFile> {
  for (const item of items) {
    // One folder is the folder; several are beside one another in it.
    if (isDirectoryDropItem(item)) yield* below(item, items.length === 1 ? '' : `${item.name}/`)
    else if (isFileDropItem(item)) yield { path: item.name, file: await item.getFile() }
  }
}

async function* below(directory: DirectoryDropItem, path: string): AsyncGenerator<PlacedFile> {
  for await (const entry of directory.getEntries()) {
    if (isDirectoryDropItem(entry)) {
      if (!skipped.has(entry.name)) yield* below(entry, `${path}${entry.name}/`)
    } else if (isFileDropItem(entry)) yield { path: path + entry.name, file: await entry.getFile() }
  }
}

/** The files of what was picked. A folder's own name is the first step of every path. */
export function collectPicked(list: FileList): Collected {
  const first = list.item(0)
  const top = first?.webkitRelativePath.split('/')[0] ?? ''
  return { label: top || (first?.name ?? 'folder'), files: inBatches(pickedFiles(list, top)) }
}

function* pickedFiles(list: FileList, top: string): Generator<PlacedFile> {
  for (let index = 0; index < list.length; index++) {
    const file = list.item(index)
    if (!file) continue
    const path = top === '' ? file.name : file.webkitRelativePath.slice(top.length + 1)
    if (!path.split('/').some((step) => skipped.has(step))) yield { path, file }
  }
}
