import type { Place } from '../model/reading.ts'
import type { Site } from '../model/site.ts'
import type { Host } from './host.ts'
import { httpdSendsFiles } from './httpd/host.ts'
import { type DirectoryFile, type HttpdHost, httpdServerFor, readHttpd } from './httpd/read.ts'
import { sendsFiles } from './nginx/host.ts'
import { type Include, type Mount, type NginxHost, readNginx, serverFor } from './nginx/read.ts'
import { assumedHost } from './presets.ts'

/** A server's own configuration, as far as it is at hand. */
export interface ServerText {
  readonly file: string
  readonly text: string
}

/** What only httpd's configuration has at the beginning of a line. */
const ofHttpd =
  /^(?:<(?:VirtualHost|Directory(?:Match)?|IfModule|Files(?:Match)?|Location(?:Match)?)|Rewrite(?:Rule|Engine|Cond|Base)|FallbackResource|ErrorDocument|Directory(?:Index|Slash)|DocumentRoot|Redirect(?:Match)?|Options)\s/i

function isOfHttpd(text: string): boolean {
  return text.split('\n').some((line) => {
    const written = line.trim()
    return ofHttpd.test(written) && !/[;{]$/.test(written)
  })
}

/**
 * A host that is described by a server's own configuration: nginx's, httpd's, or the `.htaccess` files of a folder alone.
 * @param whole null where only those are known
 * @param mount where the folder is on the server's disk, when that is known
 */
export async function serverHost(
  whole: ServerText | null,
  {
    include = async () => [],
    files = [],
    mount = null,
  }: {
    readonly include?: Include
    readonly files?: readonly DirectoryFile[]
    readonly mount?: Mount | null
  } = {},
): Promise<Host> {
  const server =
    whole === null || isOfHttpd(whole.text)
      ? readHttpd(whole, files, mount)
      : await readNginx(whole.file, whole.text, include, mount)
  return { ...assumedHost, name: server.file, about: `Configured in ${server.file}`, server }
}

/** Whether a server sends files at the site's base path: another only hands requests on. */
export function isOfFiles(server: NginxHost | HttpdHost, site: Site): boolean {
  return server.kind === 'nginx' ? sendsFiles(server, site) : httpdSendsFiles(server, site)
}

/** Whatever in a server's configuration a model can't follow. */
export function unclearOf(
  server: NginxHost | HttpdHost,
  { origin }: Site,
): readonly { readonly what: string; readonly place: Place }[] {
  return (server.kind === 'nginx' ? serverFor(server, origin) : httpdServerFor(server, origin)).unclear
}
