import { TreeFolder } from './tree-folder.ts'

/** A folder held in memory: for tests, and for callers that made the files themselves. */
export class MemoryFolder extends TreeFolder {
  constructor(files: Readonly<Record<string, string | Uint8Array>>, label = 'memory') {
    super(
      Object.entries(files).map(([path, content]) => {
        const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content
        return [path, { size: bytes.length, modified: null, read: async () => bytes }] as const
      }),
      label,
    )
  }
}
