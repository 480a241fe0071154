import type { Host } from './host.ts'
import { type Include, type Mount, readNginx } from './nginx/read.ts'
import { assumedHost } from './presets.ts'

/**
 * A host that is described by a server's own configuration.
 * @param include gives the files that it includes, of those at hand
 * @param mount where the folder is on the server's disk, when that is known
 */
export async function serverHost(
  file: string,
  text: string,
  include: Include,
  mount: Mount | null = null,
): Promise<Host> {
  const server = await readNginx(file, text, include, mount)
  return { ...assumedHost, name: file, about: `Configured in ${file}`, server }
}
