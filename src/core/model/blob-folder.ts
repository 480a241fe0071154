import { TreeFolder } from './tree-folder.ts'

/** A file as a browser passes it over. */
export interface GivenFile {
  readonly size: number
  readonly lastModified?: number
  arrayBuffer(): Promise<ArrayBuffer>
}

/** A folder of files that a browser was given: dropped, or picked. Bytes are read when requested. */
export function folderOfFiles(
  files: Iterable<{ readonly path: string; readonly file: GivenFile }>,
  label: string,
): TreeFolder {
  const entries = [...files].map(
    ({ path, file }) =>
      [
        path,
        {
          size: file.size,
          modified: file.lastModified ?? null,
          read: async () => new Uint8Array(await file.arrayBuffer()),
        },
      ] as const,
  )
  return new TreeFolder(entries, label)
}
