import type { Framework } from '../frameworks/framework.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Reference } from '../model/reference.ts'

/** Adds to the facts what the framework's own loader requests without naming it in the build. */
export function withNeededFiles(
  facts: readonly FileFacts[],
  framework: Framework | null,
): readonly FileFacts[] {
  const needed = framework?.needs?.(facts) ?? []
  if (needed.length === 0) return facts
  const byFile = new Map<string, Reference[]>()
  for (const { from, path } of needed) {
    const references = byFile.get(from) ?? []
    byFile.set(from, references)
    references.push({ kind: 'file', raw: path, against: 'site', offset: 0, length: 0 })
  }
  return facts.map((file) => {
    const more = byFile.get(file.path)
    return more ? { ...file, references: [...file.references, ...more] } : file
  })
}
