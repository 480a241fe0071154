import { describeOrigin } from '../../model/reading.ts'
import type { Site } from '../../model/site.ts'
import { safeDecode, wellFormed } from '../../model/text.ts'
import { diskOf, tidy } from '../disk.ts'
import type { Answer, HostFiles } from '../host.ts'
import { answerFrom, withoutRule } from '../sent.ts'
import { NginxRequest, type Sent } from './answer.ts'
import { type NginxHost, serverFor } from './read.ts'
import type { Context } from './server.ts'

/** What nginx answers to a GET of a path of the site. @param path decoded */
export function answerOfNginx(host: NginxHost, site: Site, files: HostFiles, path: string): Answer {
  const mount = mountOf(host, site)
  const sent = request(host, site, diskOf(files, mount), path)
  return answerFrom({ ...sent, rule: ruleOf(sent) }, site, mount, path)
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
  return new NginxRequest(serverFor(host, origin), hostname, kindOf, encodeURI(wellFormed(path)), '')
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
    probed(host, site) ?? tidy(requestOf(host, site, hasAll, site.base).placeOf(safeDecode(site.base)).path)
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
  return requestOf(host, site, hasAll, site.base).placeOf(`${safeDecode(site.base)}no-such-page`).context
}

const hasAll = (path: string): 'file' | 'directory' => (/\.\w+$/.test(path) ? 'file' : 'directory')

function probed(host: NginxHost, site: Site): string | null {
  for (const probe of ['index.html', 'index.css', 'index.txt']) {
    const { file } = request(host, site, hasAll, safeDecode(site.base) + probe)
    if (file?.endsWith(`/${probe}`)) return tidy(file.slice(0, -probe.length))
  }
  return null
}

function ruleOf({ by, file, status, way }: Sent): string {
  const place = by && by.place.file !== '' ? ` at ${describeOrigin(by.place)}` : ''
  const name = by && 'name' in by ? by.name : 'a location'
  if (way === 'passed') return `another server: ${name}${place}`
  return by ? `${name}${place}` : withoutRule(status, file)
}
