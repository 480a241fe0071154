import { join } from 'node:path'
import type { Browser, BrowserContext, Page, Route } from 'playwright-core'
import { extensionOf } from '../core/model/folder.ts'
import type { RouteAnswer } from '../core/model/report.ts'
import type { LeftRequest, Rehearsal, Visit } from '../core/rehearse/rehearsal.ts'
import { formOf } from '../core/requests/routes.ts'
import type { HarPage } from './har.ts'
import { type Look, lookScript, watchWorkerScript } from './page-scripts.ts'
import { Recorder } from './recorder.ts'
import { settled } from './redirects.ts'
import { respond, type Stage } from './respond.ts'
import type { StandInBook } from './stand-in-book.ts'

/** What is visited with a browser, and how. */
export interface BrowserVisits {
  readonly stage: Stage
  readonly browser: Browser
  readonly routes: readonly RouteAnswer[]
  /** Widths of the window; CSS pixels. */
  readonly widths: readonly number[]
  /** Whether requests for other origins are sent. */
  readonly online: boolean
  /** What plays the services that the pages call. */
  readonly answers: StandInBook | null
  /** Where pictures go, or null. */
  readonly shots: string | null
  /** Longest time for one page, and for all; milliseconds. */
  readonly pageTime: number
  readonly allTime: number
  readonly signal: AbortSignal
  readonly onProgress?: (done: number) => void
}

/** How long a page must have been quiet to count as done, and the longest wait for that; milliseconds. */
const quiet = 150
const longestWait = 3_000
/** Paths known only from links that are opened. */
const mostFollowed = 20
/** Parts of pages that frameworks keep as files of their own: nobody opens them. */
const partial = /\/[_.]/
/** Pages open at a time. */
const atOnce = 3
const height = 900
/** Links of one page that are looked at. */
const mostLinks = 500

/**
 * Opens every route as a stranger: each in a context of its own, without a cache, at the site's real address. What the page requests from its
 * own origin is answered by the host model, so scripts see the address, the encryption and the paths that visitors will see. Nothing
 * else is sent unless the person said so.
 */
export async function visitByBrowser(
  options: BrowserVisits,
): Promise<Rehearsal & { readonly pages: readonly HarPage[] }> {
  const { routes, widths, signal, allTime, onProgress } = options
  const until = Date.now() + allTime
  const wanted = routes
    .filter(({ path }) => isPage(path))
    .flatMap(({ path }) => widths.map((width) => ({ path, width })))
  const visits: Visit[] = []
  const pages: HarPage[] = []
  const linked = new Set<string>()
  let next = 0
  const work = async (): Promise<void> => {
    while (next < wanted.length && !signal.aborted && Date.now() < until) {
      const index = next++
      const one = wanted[index]
      if (!one) return
      const seen = await visit(options, one.path, one.width)
      visits[index] = seen.visit
      pages[index] = { title: `${one.path} at ${one.width}`, entries: seen.recorder.entries }
      for (const link of seen.links) linked.add(link)
      onProgress?.(visits.length)
    }
  }
  const all = (): Promise<unknown> => Promise.all(Array.from({ length: atOnce }, work))
  await all()
  const forms = routes.flatMap(({ pattern }) => (pattern === null ? [] : [formOf(pattern)]))
  const known = new Set(routes.map(({ path }) => path))
  const isKnown = (path: string): boolean =>
    known.has(path) ||
    forms.some((form) => form.test(path) || form.test(`/${path.slice(options.stage.site.base.length)}`))
  // What pages lead to is opened too, as far as a bound: it may exist only by clicking.
  const { base } = options.stage.site
  const found = [...linked].filter((path) => path.startsWith(base) && !isKnown(path) && isPage(path)).sort()
  for (const path of found.slice(0, mostFollowed)) wanted.push({ path, width: Math.max(...widths) })
  await all()
  const left = wanted.length - visits.filter(Boolean).length
  return {
    by: 'browser',
    visits: visits.filter(Boolean),
    pages: pages.filter(Boolean),
    linked: found,
    differences: left > 0 && !signal.aborted ? [`${left} visits were left out: the time for all was up`] : [],
  }
}

/** Whether a person opens a path as a page. A link to a file downloads it. */
function isPage(path: string): boolean {
  return !partial.test(path) && /^(?:html?)?$/.test(extensionOf(path))
}

async function visit(
  options: BrowserVisits,
  path: string,
  width: number,
): Promise<{ visit: Visit; recorder: Recorder; links: readonly string[] }> {
  const { stage, browser, pageTime, shots } = options
  const started = performance.now()
  const context = await browser.newContext({
    viewport: { width, height },
    serviceWorkers: 'block',
    ignoreHTTPSErrors: true,
  })
  context.setDefaultTimeout(pageTime)
  const page = await context.newPage()
  const recorder = new Recorder(page, stage.site.origin, stage.site.base)
  try {
    await context.route('**/*', (route) => answerRoute(options, recorder, route))
    await context.routeWebSocket('**/*', (socket) => {
      recorder.left.push({
        url: socket.url(),
        method: 'WebSocket',
        outcome: options.online ? 'sent' : 'not sent',
      })
      if (options.online) socket.connectToServer()
      else socket.close().catch(() => {})
    })
    const worker = await watchWorker(context)
    // A page is where it ends up: its URLs start from there.
    const { address } = await settled(stage, new URL(stage.site.origin + path), (target) =>
      respond(stage, { method: 'GET', target, headers: {} }),
    )
    const first = await open(page, recorder, () =>
      page.goto(address, { waitUntil: 'load', timeout: pageTime }),
    )
    const look = await lookAt(page, stage.site.origin)
    const picture = shots === null ? null : join(shots, `${nameFor(path)}-${width}.png`)
    if (picture !== null) await page.screenshot({ path: picture }).catch(() => {})
    const before = {
      errors: recorder.errors.length,
      failed: recorder.failed.length,
      complaints: recorder.complaints.length,
    }
    // A route is loaded again once: what the host answers does not hang on the width.
    const again =
      width === Math.max(...options.widths)
        ? await open(page, recorder, () => page.reload({ waitUntil: 'load', timeout: pageTime }))
        : null
    // What the second look repeats adds nothing.
    for (const [list, length] of [
      [recorder.errors, before.errors],
      [recorder.failed, before.failed],
      [recorder.complaints, before.complaints],
    ] as const) {
      list.splice(length)
    }
    const script = worker()
    if (script !== null) await checkWorker(stage, script, recorder)
    return {
      links: look.links,
      recorder,
      visit: {
        route: path,
        width,
        status: first,
        requests: recorder.requests,
        errors: recorder.errors,
        complaints: recorder.complaints,
        failed: recorder.failed,
        left: distinct(recorder.left),
        blank: look.blank,
        overflows: look.overflows,
        again,
        worker: script,
        milliseconds: Math.round(performance.now() - started),
        picture,
      },
    }
  } finally {
    await context.close().catch(() => {})
  }
}

/** Goes somewhere and waits until the page is quiet; the status, or null when nothing came in time. */
async function open(
  page: Page,
  recorder: Recorder,
  go: () => Promise<{ status(): number } | null>,
): Promise<number | null> {
  const answer = await go().catch(() => null)
  const until = Date.now() + longestWait
  let since = Date.now()
  let seen = recorder.requests
  while (Date.now() < until && Date.now() - since < quiet) {
    await page.waitForTimeout(50).catch(() => {})
    if (recorder.open > 0 || recorder.requests !== seen) since = Date.now()
    seen = recorder.requests
  }
  return answer?.status() ?? null
}

async function answerRoute(
  { stage, online, answers }: BrowserVisits,
  recorder: Recorder,
  route: Route,
): Promise<void> {
  const request = route.request()
  const url = new URL(request.url())
  const method = request.method()
  if (url.protocol === 'data:' || url.protocol === 'blob:') return route.continue()
  if (url.origin === stage.site.origin) {
    const reply = await settled(stage, url, (target) =>
      respond(stage, { method, target, headers: withoutPacking(request.headers()) }),
    )
    if (reply.leaves !== null) {
      recorder.left.push({ url: reply.leaves, method, outcome: 'not sent' })
      return route.abort('blockedbyclient').catch(() => {})
    }
    const { status, headers, body, said } = reply
    const forData = ['fetch', 'xhr'].includes(request.resourceType())
    if (forData && said.by === 'fallback') recorder.noteStandIn(url.href)
    return route.fulfill({ status, headers, body: Buffer.from(body) }).catch(() => {})
  }
  const played = answers?.answer(method, url, stage.site.origin) ?? null
  const outcome = played ? 'answered by the stand-in' : online ? 'sent' : 'not sent'
  if (method !== 'OPTIONS') recorder.left.push({ url: url.href, method, outcome })
  if (played) return route.fulfill(played).catch(() => {})
  return (online ? route.continue() : route.abort('blockedbyclient')).catch(() => {})
}

function withoutPacking(headers: Readonly<Record<string, string>>): Record<string, string> {
  const { 'accept-encoding': _, ...others } = headers
  return others
}

/** Notes which service worker a page requests. Workers are not run: they would answer in place of the host. */
async function watchWorker(context: BrowserContext): Promise<() => string | null> {
  let requested: string | null = null
  await context.exposeBinding('__rehearsed', (_, url: string) => {
    requested = url
  })
  await context.addInitScript({ content: watchWorkerScript })
  return () => requested
}

/** A worker whose script the host does not send as one is never installed. */
async function checkWorker(stage: Stage, script: string, recorder: Recorder): Promise<void> {
  const url = new URL(script)
  if (url.origin !== stage.site.origin) return
  const { status, headers } = await respond(stage, { method: 'GET', target: url.pathname, headers: {} })
  if (status === 200 && /javascript/.test(headers['content-type'] ?? '')) return
  recorder.failed.push({
    url: script,
    status,
    reason: "the service worker's script does not arrive",
    data: false,
  })
}

async function lookAt(page: Page, origin: string): Promise<Look> {
  const unseen: Look = { blank: false, overflows: false, links: [] }
  let seen = unseen
  // What is drawn late is drawn all the same; a page that goes on to another address is looked at there.
  for (let tries = 0; tries < 8; tries++) {
    const look = await page.evaluate<Look>(lookScript(mostLinks)).catch(() => null)
    if (look) seen = look
    if (look && !look.blank) break
    await page.waitForTimeout(250).catch(() => {})
  }
  const links = seen.links.flatMap((link) => {
    const url = URL.canParse(link) ? new URL(link) : null
    return url?.origin === origin ? [url.pathname] : []
  })
  return { ...seen, links }
}

function distinct(left: readonly LeftRequest[]): LeftRequest[] {
  return [...new Map(left.map((each) => [`${each.method} ${each.url}`, each])).values()]
}

/** A file name for a route: letters, digits and dashes only, whatever the route holds. */
function nameFor(path: string): string {
  return (
    path
      .replace(/[^\w]+/g, '-')
      .replace(/^-+|(?<!-)-+$/g, '')
      .slice(0, 80) || 'index'
  )
}
