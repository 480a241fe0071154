import { follow } from '../host/answer.ts'
import type { Host, HostFiles } from '../host/host.ts'
import { contentTypeOf } from '../model/content-type.ts'
import type { FileFacts } from '../model/facts.ts'
import { withoutHash } from '../model/fingerprint.ts'
import { extensionOf, type Folder } from '../model/folder.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import { span } from '../model/text.ts'
import type { Release } from '../release/release.ts'
import { contentDigest } from '../release/release.ts'
import { encodePath } from '../requests/addresses.ts'
import { differenceOf } from './difference.ts'
import { keptFor, policyStops } from './headers.ts'
import type { Live, LiveDifference, LiveFile, LiveRoute, LiveState } from './live.ts'
import type { LiveAsker, LiveReply } from './reply.ts'

/** What is compared with an address. */
export interface LiveStage {
  readonly site: Site
  readonly host: Host
  readonly files: HostFiles
  readonly facts: readonly FileFacts[]
  readonly routes: readonly RouteAnswer[]
  readonly build: Folder
  /** The release before this one, to tell old content from another. */
  readonly earlier: Release | null
}

export interface LiveOptions {
  readonly ask: LiveAsker
  /** Requests that are under way together. */
  readonly atOnce: number
  /** Whether plain http is asked too: not where a machine behind the name is. */
  readonly asksPlain: boolean
  readonly onProgress?: (done: number) => void
}

/** Smaller files gain nothing by being packed; bytes. */
const smallestPacked = 1_400
const packable = /^(?:text\/|application\/(?:javascript|json|manifest\+json|xml|wasm)|image\/svg\+xml)/
const day = 86_400
const mostHops = 5

/** Asks an address for every file and route of a folder, and tells what is not as it was built. */
export async function lookAtLive(stage: LiveStage, options: LiveOptions): Promise<Live> {
  const started = performance.now()
  const found = new Found()
  const looking = new Looking(stage, options.ask, found)
  const asked = new Set(stage.facts.flatMap(({ path }) => looking.pathnameOf(path) ?? []))
  const tasks = [
    ...stage.facts.map((file) => () => looking.file(file)),
    // What is asked as a file is a route that is asked.
    ...stage.routes.filter(({ path }) => !asked.has(path)).map((route) => () => looking.route(route)),
    () => looking.front(options.asksPlain),
  ]
  await inTurn(tasks, options)
  const byPath = <T extends { readonly path: string }>(list: T[]): T[] =>
    list.sort((a, b) => (a.path < b.path ? -1 : 1))
  const { pages: _, ...lists } = found
  return {
    ...lists,
    // A page that is reported as a file is not reported again for each route that it answers.
    routes: byPath(found.routes.filter((route) => !found.isReported(route))),
    differing: byPath(found.differing),
    wrongType: byPath(found.wrongType),
    notCompressed: byPath(found.notCompressed),
    pagesKept: byPath(found.pagesKept),
    hashedNotKept: byPath(found.hashedNotKept),
    milliseconds: Math.round(performance.now() - started),
  }
}

async function inTurn(
  tasks: readonly (() => Promise<void>)[],
  { atOnce, onProgress }: LiveOptions,
): Promise<void> {
  let next = 0
  let done = 0
  const work = async (): Promise<void> => {
    for (let task = tasks[next++]; task; task = tasks[next++]) {
      await task()
      onProgress?.(++done)
    }
  }
  await Promise.all(Array.from({ length: Math.min(atOnce, tasks.length) }, work))
}

/** What is found, as it grows. */
class Found {
  files = 0
  asBuilt = 0
  differing: LiveDifference[] = []
  wrongType: LiveFile[] = []
  notCompressed: LiveFile[] = []
  pagesKept: LiveFile[] = []
  hashedNotKept: LiveFile[] = []
  routes: LiveRoute[] = []
  plainHttp: LiveFile | null = null
  policy: LiveFile | null = null
  /** The files that answered routes with other content than was built. */
  readonly pages = new Map<LiveRoute, string>()

  isReported(route: LiveRoute): boolean {
    const page = this.pages.get(route)
    return page !== undefined && this.differing.some(({ path }) => path === page)
  }
}

class Looking {
  readonly #stage: LiveStage
  readonly #ask: LiveAsker
  readonly #found: Found
  readonly #before: ReadonlyMap<string, string>

  constructor(stage: LiveStage, ask: LiveAsker, found: Found) {
    this.#stage = stage
    this.#ask = ask
    this.#found = found
    this.#before = new Map(stage.earlier?.files.map(({ path, digest }) => [path, digest]))
  }

  /** Where the host sends a file; null for what it does not send, which no visitor asks for. */
  pathnameOf(path: string): string | null {
    const { site, host, files } = this.#stage
    const { answer, pathname } = follow(host, site, files, site.base + encodePath(path))
    return answer.file === path && answer.status === 200 ? pathname : null
  }

  async file({ path, size }: FileFacts): Promise<void> {
    const { site, build } = this.#stage
    const pathname = this.pathnameOf(path)
    if (pathname === null) return
    const url = site.origin + pathname
    this.#found.files++
    const { reply, at } = await this.#followed(url, size * 2 + 65_536)
    if (typeof reply === 'string')
      return this.#differs({ path, url, status: null, state: 'no answer', detail: `${reply}.` })
    if (reply.status >= 300) return this.#notThere(path, at, reply)
    const built = await build.read(path)
    const type = reply.headers.get('content-type') ?? ''
    const isPage = /^html?$/.test(extensionOf(path))
    const difference = reply.isWhole ? differenceOf(built, reply.body, type, isPage) : 'another'
    if (difference !== null)
      return this.#otherwise({ path, url: at, status: reply.status }, reply, difference)
    this.#found.asBuilt++
    this.#headers(path, at, reply)
  }

  #notThere(path: string, url: string, { status, headers }: LiveReply): void {
    const state: LiveState = status === 404 || status === 410 ? 'missing' : 'refused'
    const location = headers.get('location')
    const detail = location
      ? `It is answered with ${status} to ${location}.`
      : `It is answered with ${status}.`
    this.#differs({ path, url, status, state, detail })
  }

  async #otherwise(
    file: Pick<LiveFile, 'path' | 'url' | 'status'>,
    reply: LiveReply,
    difference: NonNullable<ReturnType<typeof differenceOf>>,
  ): Promise<void> {
    const sent = `It comes with ${headersOf(reply)}.`
    if (difference === 'a page') return this.#differs({ ...file, state: 'page instead', detail: sent })
    if (difference === 'changed')
      return this.#differs({
        ...file,
        state: 'changed on the way',
        detail: `All of it came, with something put in or blanks taken out. ${sent}`,
      })
    const isEarlier = reply.isWhole && this.#before.get(file.path) === (await contentDigest(reply.body))
    const detail = isEarlier ? `The content of the release before came. ${sent}` : sent
    this.#differs({ ...file, state: isEarlier ? 'older' : 'other content', detail })
  }

  #differs(difference: LiveDifference): void {
    this.#found.differing.push(difference)
  }

  /** What the headers of a file that came as it was built do to a visitor. */
  #headers(path: string, url: string, reply: LiveReply): void {
    const { headers, body, status } = reply
    const type = (headers.get('content-type') ?? '').split(';', 1)[0]?.trim().toLowerCase() ?? ''
    const wanted = contentTypeOf(path)?.split(';', 1)[0] ?? null
    const file = (detail: string): LiveFile => ({ path, url, status, detail })
    if (/^(?:m?js|css)$/.test(extensionOf(path)) && !isOfType(type, extensionOf(path)))
      this.#found.wrongType.push(
        file(`It comes as ${type === '' ? 'no type at all' : type}, and not as ${wanted}.`),
      )
    const isPacked = headers.has('content-encoding')
    if (body.length >= smallestPacked && packable.test(type) && !isPacked)
      this.#found.notCompressed.push(file(`${body.length} bytes come as they are.`))
    const kept = keptFor(headers)
    const isPage = /^html?$/.test(extensionOf(path))
    if (isPage && (kept ?? 0) > day)
      this.#found.pagesKept.push(file(`Browsers keep it for ${span(kept ?? 0)}.`))
    if (!isPage && withoutHash(path) !== path && (kept ?? 0) < 7 * day)
      this.#found.hashedNotKept.push(
        file(
          kept === null
            ? 'No header says for how long it may be kept.'
            : `Browsers keep it for ${span(kept)}.`,
        ),
      )
  }

  async route({ path, status: expected, entryFile, redirects }: RouteAnswer): Promise<void> {
    const { site, build, files } = this.#stage
    // What the host model sends elsewhere is compared where it ends.
    if (redirects.some((hop) => URL.canParse(hop))) return
    const size = entryFile && files.has(entryFile) ? ((await build.stat(entryFile))?.size ?? 0) : 0
    const { reply, at } = await this.#followed(site.origin + path, size * 2 + 65_536)
    if (typeof reply === 'string') {
      this.#found.routes.push({ path, url: at, status: null, expected, detail: `${reply}.` })
      return
    }
    const { status } = reply
    const isLike = status < 400 === expected < 400
    const differs =
      isLike && status < 400 && entryFile
        ? differenceOf(await build.read(entryFile), reply.body, 'text/html', true)
        : null
    if (isLike && differs !== 'another') return
    const detail = isLike
      ? `It is answered with ${status} and another page than ${entryFile}.`
      : `It is answered with ${status}, and the host model said ${expected}.`
    const route = { path, url: at, status, expected, detail }
    this.#found.routes.push(route)
    if (isLike && entryFile) this.#found.pages.set(route, entryFile)
  }

  /** The front page's policy, and what plain http does. */
  async front(asksPlain: boolean): Promise<void> {
    const { site, facts } = this.#stage
    const front = await this.#ask({ url: site.address, most: 65_536 })
    const stops = typeof front === 'string' ? null : policyStops(front.headers, site, facts)
    if (stops !== null && typeof front !== 'string')
      this.#found.policy = { path: site.base, url: site.address, status: front.status, detail: stops }
    if (!asksPlain || !site.origin.startsWith('https:')) return
    const url = site.address.replace(/^https:/, 'http:')
    const plain = await this.#ask({ url, most: 1_024 })
    const status = typeof plain === 'string' ? null : plain.status
    const location = typeof plain === 'string' ? undefined : plain.headers.get('location')
    if (location && URL.canParse(location, url) && new URL(location, url).origin === site.origin) return
    const detail =
      typeof plain === 'string'
        ? `Plain http gives no answer: ${plain}.`
        : `Plain http answers ${status}${location ? ` to ${location}` : ' itself'}, and sends nobody to ${site.origin}.`
    this.#found.plainHttp = { path: site.base, url, status, detail }
  }

  /** Follows redirects within the site. */
  async #followed(
    url: string,
    most: number,
  ): Promise<{ readonly reply: LiveReply | string; readonly at: string }> {
    let at = url
    for (let hop = 0; ; hop++) {
      const reply = await this.#ask({ url: at, most })
      const location = typeof reply === 'string' ? undefined : reply.headers.get('location')
      const isRedirect = typeof reply !== 'string' && reply.status >= 300 && reply.status < 400
      if (!isRedirect || !location || hop >= mostHops || !URL.canParse(location, at)) return { reply, at }
      const next = new URL(location, at)
      if (next.origin !== this.#stage.site.origin) return { reply, at }
      at = next.href
    }
  }
}

function isOfType(type: string, extension: string): boolean {
  return extension === 'css' ? type === 'text/css' : /(?:java|ecma)script$/.test(type)
}

/** The headers that tell where something came from. */
function headersOf({ status, headers }: LiveReply): string {
  const names = ['content-type', 'age', 'cache-control', 'last-modified', 'etag', 'via', 'x-cache']
  const said = names.flatMap((name) => {
    const value = headers.get(name)
    return value === undefined ? [] : [`${name}: ${value.slice(0, 80)}`]
  })
  return [`status ${status}`, ...said].join(', ')
}
