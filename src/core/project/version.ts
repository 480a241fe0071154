import type { Manifest } from '../frameworks/project-sources.ts'
import { FolderError } from '../model/errors.ts'
import type { Folder } from '../model/folder.ts'
import { descend, jsonTree } from '../model/json.ts'
import { placeAt, type Reading, stated } from '../model/reading.ts'
import { readText } from '../model/text.ts'
import { readManifest } from './manifest.ts'

/**
 * The version of a package: the installed one, else the lockfile's, else the range the manifest requests.
 * @param inDirectory the names in the directory: hundreds of projects of a repository have neither packages nor lockfile of their own
 */
export async function readVersion(
  folder: Folder,
  manifest: Manifest | null,
  names: readonly string[],
  inDirectory: ReadonlySet<string>,
): Promise<Reading<string> | null> {
  const name = names.find((each) => manifest?.dependency(each)) ?? names[0]
  if (name === undefined) return null
  const installed = inDirectory.has('node_modules') ? await installedVersion(folder, name) : null
  return installed ?? (await lockedVersion(folder, name, inDirectory)) ?? manifest?.dependency(name) ?? null
}

async function installedVersion(folder: Folder, name: string): Promise<Reading<string> | null> {
  const manifest = await readManifest(folder, `node_modules/${name}`).catch((error: unknown) => {
    if (error instanceof FolderError) return null
    throw error
  })
  return manifest?.text('version') ?? null
}

async function lockedVersion(
  folder: Folder,
  name: string,
  inDirectory: ReadonlySet<string>,
): Promise<Reading<string> | null> {
  const textOf = async (file: string): Promise<string | null> =>
    inDirectory.has(file) ? readText(folder, file) : null
  const npm = await textOf('package-lock.json')
  if (npm !== null) {
    const node = descend(jsonTree(npm), ['packages', `node_modules/${name}`, 'version'])
    if (node?.type === 'string')
      return stated(String(node.value), placeAt('package-lock.json', npm, node.offset))
  }
  const escaped = name.replace(/[/@.-]/g, '\\$&')
  // In both, the version stands on the line after the entry's head, or in the head itself.
  const patterns: [string, RegExp][] = [
    ['yarn.lock', new RegExp(`^"?${escaped}@[^\\n]*:\\n {2}version:? "?([^"\\n]+)`, 'm')],
    ['pnpm-lock.yaml', new RegExp(`^ {2}['"]?/?${escaped}@(\\d[^:('"]*)`, 'm')],
  ]
  for (const [file, pattern] of patterns) {
    const text = await textOf(file)
    const match = text === null ? null : pattern.exec(text)
    if (text !== null && match?.[1]) return stated(match[1], placeAt(file, text, match.index))
  }
  return null
}
