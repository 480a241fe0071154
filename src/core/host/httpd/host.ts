import { describeOrigin } from '../../model/reading.ts'
import type { Site } from '../../model/site.ts'
import { safeDecode } from '../../model/text.ts'
import { diskOf, tidy } from '../disk.ts'
import type { Answer, HostFiles } from '../host.ts'
import { answerFrom, withoutRule } from '../sent.ts'
import { HttpdRequest, type Sent } from './answer.ts'
import { type HttpdHost, httpdServerFor } from './read.ts'

/** What httpd answers to a GET of a path of the site. @param path decoded */
export function answerOfHttpd(
  host: HttpdHost,
  site: Site,
  files: HostFiles,
  path: string,
  pathname: string,
): Answer {
  const mount = mountOf(host, site)
  const asked = request(host, site, diskOf(files, mount), mount, path)
  // Off in every distribution: AllowEncodedSlashes.
  const sent = /%2f/i.test(pathname) ? asked.refusal() : asked.answer()
  return answerFrom({ ...sent, rule: ruleOf(sent) }, site, mount, path)
}

function request(
  host: HttpdHost,
  site: Site,
  kindOf: ReturnType<typeof diskOf>,
  mount: string,
  path: string,
): HttpdRequest {
  const server = httpdServerFor(host, site.origin)
  const blocksAt = (directory: string) => {
    const said = server.blocks.filter(({ fits }) => fits(directory)).map(({ block }) => block)
    const inside =
      directory === mount ? '' : directory.startsWith(`${mount}/`) ? directory.slice(mount.length + 1) : null
    const own = inside === null || !server.readsFiles(directory) ? undefined : host.directories.get(inside)
    return own ? [...said, own] : said
  }
  const { host: name } = new URL(site.origin)
  const served = { ...server, blocksAt, kindOf, host: name }
  return new HttpdRequest(served, path.replace(/\/{2,}/g, '/'))
}

const mounts = new WeakMap<HttpdHost, Map<string, string>>()

/** Where the folder is: as it is known, else where the server looks for what is at the site's base path. */
function mountOf(host: HttpdHost, site: Site): string {
  if (host.mount !== null) return tidy(host.mount.directory)
  const known = mounts.get(host) ?? new Map<string, string>()
  mounts.set(host, known)
  const { root, aliases } = httpdServerFor(host, site.origin)
  const base = safeDecode(site.base)
  const alias = aliases.find(({ path }) => base.startsWith(path) || base === `${path}/`)
  const mount = known.get(base) ?? tidy(alias ? alias.directory + base.slice(alias.path.length) : root + base)
  known.set(base, mount)
  return mount
}

/** Whether a server sends files at the site's base path: another only hands requests on. */
export function httpdSendsFiles(host: HttpdHost, site: Site): boolean {
  const hasAll = (path: string) => (/\.\w+$/.test(path) ? ('file' as const) : ('directory' as const))
  const { way } = request(
    host,
    site,
    hasAll,
    mountOf(host, site),
    `${safeDecode(site.base)}index.html`,
  ).answer()
  return way !== 'passed'
}

function ruleOf({ by, file, status, way }: Sent): string {
  const said = by && `${by.what} at ${describeOrigin(by.place)}`
  if (way === 'passed') return `another server: ${said}`
  return said ?? withoutRule(status, file)
}
