import type { DirectoryDropItem, DropItem } from 'react-aria-components'
import { isDirectoryDropItem, isFileDropItem } from 'react-aria-components'
import type { PlacedFile } from './messages.ts'

/** Directories that hold nothing of a site, and most of a project's files. */
const skipped = new Set(['node_modules', '.git'])

/** What was put on the desk: a folder's name with its files. */
export interface Collected {
  readonly label: string
  readonly files: readonly PlacedFile[]
}

/** The files of what was dropped: one folder, one archive, or files. */
export async function collectDropped(items: readonly DropItem[]): Promise<Collected> {
  const files: PlacedFile[] = []
  let label = 'folder'
  for (const item of items) {
    if (isDirectoryDropItem(item)) {
      label = item.name
      // One folder is the folder; several lie beside one another in it.
      await below(item, items.length === 1 ? '' : `${item.name}/`, files)
    } else if (isFileDropItem(item)) {
      const file = await item.getFile()
      if (items.length === 1) label = file.name
      files.push({ path: file.name, file })
    }
  }
  return { label, files }
}

async function below(directory: DirectoryDropItem, path: string, files: PlacedFile[]): Promise<void> {
  for await (const entry of directory.getEntries()) {
    if (isDirectoryDropItem(entry)) {
      if (!skipped.has(entry.name)) await below(entry, `${path}${entry.name}/`, files)
    } else if (isFileDropItem(entry)) {
      const file = await entry.getFile()
      files.push({ path: path + file.name, file })
    }
  }
}

/** The files of what was picked. A folder's own name is the first step of every path. */
export function collectPicked(list: readonly File[]): Collected {
  const [first] = list
  const top = first?.webkitRelativePath.split('/')[0] ?? ''
  if (top === '')
    return { label: first?.name ?? 'folder', files: list.map((file) => ({ path: file.name, file })) }
  const files = list
    .map((file) => ({ path: file.webkitRelativePath.slice(top.length + 1), file }))
    .filter(({ path }) => !path.split('/').some((step) => skipped.has(step)))
  return { label: top, files }
}
