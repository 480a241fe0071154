import { describeOrigin } from '../../model/reading.ts'
import type { Site } from '../../model/site.ts'
import type { Answer, AnsweredBy, HostFiles } from '../host.ts'
import { NginxRequest, type Sent } from './answer.ts'
import { diskOf, insideOf, tidy } from './disk.ts'
import { type NginxHost, serverFor } from './read.ts'
import type { Context } from './server.ts'

/** What nginx answers to a GET of a path of the site. @param path decoded */
export function answerOfNginx(host: NginxHost, site: Site, files: HostFiles, path: string): Answer {
  const mount = mountOf(host, site)
  const sent = request(host, site, diskOf(files, mount), path)
  const file = sent.file === null ? null : insideOf(sent.file, mount)
  return {
    status: sent.status,
    file,
    contentType: sent.contentType,
    location: sent.location === null ? null : withinSite(sent.location, site),
    by: wayOf(sent, file, path.slice(decodeURI(site.base).length)),
    rule: ruleOf(sent),
    ...(sent.keptFor !== null && { keptFor: sent.keptFor }),
    ...(sent.unclear && { unclear: sent.unclear }),
  }
}

function request(host: NginxHost, site: Site, kindOf: ReturnType<typeof diskOf>, path: string): Sent {
  return requestOf(host, site, kindOf, path).answer(path.replace(/\/{2,}/g, '/'))
}

function requestOf(
  host: NginxHost,
  { origin }: Site,
  kindOf: ReturnType<typeof diskOf>,
  path: string,
): NginxRequest {
  const { hostname } = new URL(origin)
  return new NginxRequest(serverFor(host, origin), hostname, kindOf, encodeURI(path), '')
}

const mounts = new WeakMap<NginxHost, Map<string, string>>()

/** Where the folder is: as it is known, else where the server looks for what is at the site's base path. */
function mountOf(host: NginxHost, site: Site): string {
  if (host.mount !== null) return tidy(host.mount.directory)
  const known = mounts.get(host) ?? new Map<string, string>()
  mounts.set(host, known)
  const mount = known.get(site.base) ?? lookedFor(host, site)
  known.set(site.base, mount)
  return mount
}

/** On a disk that has everything, the file that is sent tells. */
function lookedFor(host: NginxHost, site: Site): string {
  return (
    probed(host, site) ?? tidy(requestOf(host, site, hasAll, site.base).placeOf(decodeURI(site.base)).path)
  )
}

/** Whether a server sends files at the site's base path: another only hands requests on. */
export function sendsFiles(host: NginxHost, site: Site): boolean {
  return probed(host, site) !== null
}

/** The directory in which the server looks for the site, where that is another than the one the folder is in. */
export function lookedElsewhere(host: NginxHost, site: Site): string | null {
  const looked = host.mount && probed(host, site)
  return looked && looked !== mountOf(host, site) ? looked : null
}

/** The block that answers for what is below the site's base path. */
export function blockFor(host: NginxHost, site: Site): Context {
  return requestOf(host, site, hasAll, site.base).placeOf(`${decodeURI(site.base)}no-such-page`).context
}

const hasAll = (path: string): 'file' | 'directory' => (/\.\w+$/.test(path) ? 'file' : 'directory')

function probed(host: NginxHost, site: Site): string | null {
  for (const probe of ['index.html', 'index.css', 'index.txt']) {
    const { file } = request(host, site, hasAll, decodeURI(site.base) + probe)
    if (file?.endsWith(`/${probe}`)) return tidy(file.slice(0, -probe.length))
  }
  return null
}

/** The server's own address before a path: a browser is sent on within the site. */
function withinSite(location: string, site: Site): string {
  if (!URL.canParse(location)) return location
  const url = new URL(location)
  const own = new URL(site.origin)
  return url.hostname === own.hostname && (url.port === '' || url.port === own.port)
    ? location.slice(location.indexOf('/', 8))
    : location
}

function wayOf({ way, status, location }: Sent, file: string | null, asked: string): AnsweredBy {
  if (location !== null) return 'redirect'
  if (way === 'passed') return 'proxy'
  if (file === null) return status < 400 ? 'rule' : 'nothing'
  if (file === asked) return 'file'
  if (
    asked === '' || asked.endsWith('/')
      ? file.startsWith(asked) && !file.slice(asked.length).includes('/')
      : false
  )
    return 'directory index'
  if (file === `${asked.replace(/\/$/, '')}.html`) return 'extensionless name'
  if (way === 'error') return 'not-found document'
  return way === 'internal' ? 'fallback' : 'rule'
}

function ruleOf({ by, file, status, way }: Sent): string {
  const place = by && by.place.file !== '' ? ` at ${describeOrigin(by.place)}` : ''
  const name = by && 'name' in by ? by.name : 'a location'
  if (way === 'passed') return `another server: ${name}${place}`
  if (by) return `${name}${place}`
  return file !== null
    ? 'a file'
    : status === 403
      ? 'nothing: a directory without an index'
      : 'nothing: there is no such file'
}
