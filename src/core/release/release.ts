import type { Endpoint } from '../endpoints/endpoint.ts'
import { shownUrl } from '../endpoints/endpoints.ts'
import { FolderError } from '../model/errors.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Folder } from '../model/folder.ts'
import type { Delivery, EnvironmentState } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import type { Requested } from '../requests/request.ts'
import { downloaded } from './weight.ts'

/** A file of a release. */
export interface ReleasedFile {
  readonly path: string
  readonly bytes: number
  /** Tells contents apart: the first 128 bits of the SHA-256, in base64url. */
  readonly digest: string
  /** A script requests it after its page has loaded: an open tab may do so long after the release is gone. */
  readonly later: boolean
}

/** A route of a release, with what opening it downloads. */
export interface ReleasedRoute {
  readonly path: string
  readonly entryFile: string | null
  readonly status: number
  /** Bytes, compressed where that is known; null when it was not weighed. */
  readonly download: number | null
}

/** What ships: enough to tell one release from another, and no more. */
export interface Release {
  readonly base: string
  /** The base path that the output itself shows, where it shows one. */
  readonly observed: string | null
  readonly files: readonly ReleasedFile[]
  readonly routes: readonly ReleasedRoute[]
  readonly variables: readonly string[]
  readonly endpoints: readonly string[]
}

/** What a release is made from. */
export interface Shipped {
  readonly site: Site
  readonly build: Folder | null
  readonly facts: readonly FileFacts[]
  readonly requested: Pick<Requested, 'routes' | 'later' | 'observed'>
  readonly delivery: Delivery
  readonly environment: readonly EnvironmentState[]
  readonly endpoints: readonly Endpoint[]
  /** Puts the names of variables in place of their values. */
  readonly named: (text: string) => string
}

const inBuild = new Set<EnvironmentState['state']>([
  'injected',
  'from development',
  'outdated',
  'private',
  'placeholder',
])

/** Puts down what ships. Reads every file once more, for its digest. */
export async function releaseOf(shipped: Shipped): Promise<Release> {
  const { site, build, facts, requested, delivery, environment, endpoints, named } = shipped
  const downloads = new Map(delivery.firstVisit.map((visit) => [visit.entryFile, downloaded(visit)]))
  const files: ReleasedFile[] = []
  for (const { path, size } of facts) {
    const digest = build ? await digestOf(build, path) : ''
    files.push({ path: named(path), bytes: size, digest, later: requested.later.has(path) })
  }
  return {
    base: site.base,
    observed: requested.observed?.base ?? null,
    files: files.sort((a, b) => (a.path < b.path ? -1 : 1)),
    routes: requested.routes.map(({ path, entryFile, status }) => ({
      path: named(path),
      entryFile: entryFile && named(entryFile),
      status,
      download: downloads.get(entryFile ?? '') ?? null,
    })),
    variables: environment
      .filter(({ state }) => inBuild.has(state))
      .map(({ name }) => name)
      .sort(),
    endpoints: originsOf(endpoints, named),
  }
}

/** Tells contents apart: {@link ReleasedFile.digest}. */
export async function contentDigest(bytes: Uint8Array): Promise<string> {
  const whole = new Uint8Array(await crypto.subtle.digest('SHA-256', new Uint8Array(bytes)))
  return btoa(String.fromCharCode(...whole.subarray(0, 16)))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '')
}

async function digestOf(build: Folder, path: string): Promise<string> {
  try {
    return await contentDigest(await build.read(path))
  } catch (error) {
    // A file that can't be read is reported elsewhere; here it equals nothing but itself.
    if (error instanceof FolderError) return 'unread'
    throw error
  }
}

/** The origins that are called; one that a variable sets goes by the variable's name. */
function originsOf(endpoints: readonly Endpoint[], named: (text: string) => string): string[] {
  const found = endpoints
    .filter(({ certainty }) => certainty !== 'harmless')
    .map(({ url }) => {
      const reported = named(shownUrl(url))
      return /^\$\{\w+\}/.exec(reported)?.[0] ?? (URL.canParse(reported) ? originIn(reported) : reported)
    })
  return [...new Set(found)].sort()
}

/** `wss://x.example`; what {@link URL} calls null for schemes that are not its own is put together. */
function originIn(url: string): string {
  const { protocol, host } = new URL(url)
  return `${protocol}//${host}`
}
