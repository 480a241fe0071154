import { follow } from '../core/host/answer.ts'
import type { ReferenceKind } from '../core/model/reference.ts'
import type { RouteAnswer } from '../core/model/report.ts'
import { noSearch } from '../core/model/search.ts'
import { readFile } from '../core/output/read-file.ts'
import type { FailedRequest, Rehearsal, Visit } from '../core/rehearse/rehearsal.ts'
import { type Stage, unknownType } from './respond.ts'

/** What is visited, and how far it has come. */
export interface HttpVisits {
  readonly stage: Stage
  /** Where the stage is served. */
  readonly origin: string
  readonly routes: readonly RouteAnswer[]
  readonly onProgress?: (done: number) => void
}

interface Fetched {
  readonly status: number
  readonly type: string
  /** The address that was answered last, as the site has it. */
  readonly url: string
  readonly body: Uint8Array
}

interface Wanted {
  readonly url: string
  /** What it is wanted as: a page that comes in place of a script is not read any further. */
  readonly kind: ReferenceKind
}

/** The content types that a browser reads on, by what it wanted. */
function isRead(kind: ReferenceKind, type: string): boolean {
  if (type.startsWith('text/html')) return kind === 'frame'
  if (type.startsWith('text/css')) return kind === 'style' || kind === 'preload'
  return /javascript/.test(type) && ['script', 'import', 'preload', 'lazy-import'].includes(kind)
}

/** As many as browsers follow. */
const mostHops = 20

/** Kinds of references that no browser requests by itself, and names in code that may be none. */
const passive = new Set(['page', 'form', 'base', 'named', 'hint'])

/**
 * Opens every route over the network, and then every URL that its document and what it loads would request. What was answered is
 * compared with what the host model says.
 */
export async function visitByHttp({ stage, origin, routes, onProgress }: HttpVisits): Promise<Rehearsal> {
  const client = new Client(stage, origin)
  const visits: Visit[] = []
  for (const { path } of routes) {
    visits.push(await visit(client, stage.site.origin + path, path))
    onProgress?.(visits.length)
  }
  return { by: 'requests', visits, linked: [], differences: [...client.differences] }
}

async function visit(client: Client, address: string, route: string): Promise<Visit> {
  const started = performance.now()
  const failed: FailedRequest[] = []
  const requested = new Set<string>()
  const pending: Wanted[] = [{ url: address, kind: 'frame' }]
  let first: Fetched | null = null
  for (let next = pending.pop(); next; next = pending.pop()) {
    const { url, kind } = next
    if (requested.has(url)) continue
    requested.add(url)
    const found = await client.get(url)
    first ??= found
    if (found.status >= 400)
      failed.push({ url, status: found.status, reason: `status ${found.status}`, data: false })
    pending.push(...client.asksFor(found, kind))
  }
  return {
    route,
    width: null,
    status: first?.status ?? null,
    requests: requested.size,
    errors: [],
    complaints: [],
    failed,
    left: [],
    blank: false,
    overflows: false,
    again: null,
    worker: null,
    milliseconds: Math.round(performance.now() - started),
    picture: null,
  }
}

/** Asks the served site, each URL once, and holds every answer against the prediction. */
class Client {
  readonly differences = new Set<string>()
  readonly #stage: Stage
  readonly #origin: string
  readonly #known = new Map<string, Promise<Fetched>>()

  constructor(stage: Stage, origin: string) {
    this.#stage = stage
    this.#origin = origin
  }

  get(url: string): Promise<Fetched> {
    const known = this.#known.get(url)
    if (known) return known
    const fetched = this.#fetch(url)
    this.#known.set(url, fetched)
    return fetched
  }

  async #fetch(url: string): Promise<Fetched> {
    let at = url
    for (let hop = 0; ; hop++) {
      const { pathname, search } = new URL(at)
      const answer = await fetch(this.#origin + pathname + search, {
        redirect: 'manual',
        headers: { 'accept-encoding': 'gzip' },
      })
      const location = answer.headers.get('location')
      const next = location === null ? null : new URL(location, at)
      if (next === null || next.origin !== this.#stage.site.origin || hop >= mostHops) {
        const body = new Uint8Array(await answer.arrayBuffer())
        const fetched = {
          status: answer.status,
          type: answer.headers.get('content-type') ?? '',
          url: at,
          body,
        }
        this.#compare(url, fetched)
        return fetched
      }
      at = next.href
    }
  }

  #compare(url: string, { status, type, url: last }: Fetched): void {
    const { host, site, files } = this.#stage
    const { answer, pathname, loops } = follow(host, site, files, new URL(url).pathname)
    if (answer.by === 'proxy' || loops) return
    const reported = (what: string, seen: unknown, predicted: unknown): void => {
      if (seen !== predicted) this.differences.add(`${url}: ${what} ${seen}, predicted ${predicted}`)
    }
    reported('status', status, answer.status)
    reported('address', new URL(last).pathname, pathname)
    if (answer.file !== null) reported('content type', type, answer.contentType ?? unknownType)
  }

  /** What a browser requests from this site after this answer. */
  asksFor({ url, body, type, status }: Fetched, wanted: ReferenceKind): Wanted[] {
    if (status >= 400 || !isRead(wanted, type)) return []
    const { pathname } = new URL(url)
    const name = type.startsWith('text/html') ? 'page.html' : pathname
    const { references, baseHref } = readFile(name, body, noSearch)
    const document = baseHref !== null && URL.canParse(baseHref, url) ? new URL(baseHref, url).href : url
    return references.flatMap(({ kind, raw, against }) => {
      if (passive.has(kind) || (against !== 'document' && against !== 'file')) return []
      const base = against === 'document' ? document : url
      const target = URL.canParse(raw, base) ? new URL(raw, base) : null
      return target && target.origin === this.#stage.site.origin
        ? [{ url: target.href.split('#')[0] ?? '', kind }]
        : []
    })
  }
}
