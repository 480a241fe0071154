import type { FileFacts } from '../model/facts.ts'
import { directoryOf, joinPath } from '../model/folder.ts'
import { forEachOf } from '../model/reference-list.ts'

/** The scripts that import each script of a build, in the build's order. */
export type Importers = (file: string) => readonly string[]

/** Made when the first is asked for: most builds export no address. */
export function importersIn(facts: readonly FileFacts[]): Importers {
  let found: Map<string, string[]> | null = null
  return (file) => {
    found ??= allImporters(facts)
    return found.get(file) ?? []
  }
}

function allImporters(facts: readonly FileFacts[]): Map<string, string[]> {
  const found = new Map<string, string[]>()
  for (const { kind, path, references } of facts) {
    if (kind !== 'script') continue
    forEachOf(references, 'import', (raw) => {
      const imported = joinPath(directoryOf(path), raw)
      const known = found.get(imported)
      if (!known) found.set(imported, [path])
      else if (known.at(-1) !== path) known.push(path)
    })
  }
  return found
}
