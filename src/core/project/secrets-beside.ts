import type { Folder } from '../model/folder.ts'
import {
  type EnvironmentFile,
  type EnvironmentValues,
  isPrivateName,
  readEnvironmentFiles,
} from './environment-files.ts'
import type { Survey } from './survey.ts'

const usual = ['.env', '.env.local', '.env.production', '.env.production.local']

/**
 * What environment files hold that the builder itself does not read: a script of the project's own may load them. Of these only
 * what is a secret by its name is of interest, since nothing says which of the others are for browsers.
 */
export async function secretsBeside(
  folder: Folder,
  { environmentFiles, definition }: Survey,
): Promise<{ files: EnvironmentFile[]; values: EnvironmentValues } | null> {
  const read = new Set(environmentFiles.map(({ file }) => file))
  const others = definition ? usual.filter((file) => !read.has(file)) : []
  const { files, values } = await readEnvironmentFiles(folder, others)
  const named = files.flatMap(({ file, names }) => {
    const secret = [...names].filter(([name]) => isPrivateName(name))
    return secret.length > 0 ? [{ file, names: new Map(secret) }] : []
  })
  return named.length > 0 ? { files: named, values } : null
}
