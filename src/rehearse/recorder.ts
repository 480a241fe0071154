import type { ConsoleMessage, Page, Request, Response } from 'playwright-core'
import { own } from '../core/model/own.ts'
import { safeDecode } from '../core/model/text.ts'
import type { FailedRequest, LeftRequest, PageMessage } from '../core/rehearse/rehearsal.ts'
import type { HarEntry } from './har.ts'

/** More of one kind from one page tell nobody more. */
const mostKept = 200

/** Writes down what a page does while it is open. */
export class Recorder {
  readonly errors: PageMessage[] = []
  readonly complaints: (PageMessage & { kind: 'error' | 'warning' })[] = []
  readonly failed: FailedRequest[] = []
  readonly left: LeftRequest[] = []
  readonly entries: HarEntry[] = []
  requests = 0
  /** Requests that nothing has answered yet. */
  open = 0
  readonly #origin: string
  readonly #base: string
  readonly #started = new Map<Request, number>()

  /** @param origin the site's origin @param base its base path, below which its files are */
  constructor(page: Page, origin: string, base: string) {
    this.#origin = origin
    this.#base = base
    page.on('pageerror', (error) =>
      this.#keep(this.errors, { text: error.message, ...this.#placeIn(error.stack ?? '') }),
    )
    page.on('console', (message) => this.#noteConsole(message))
    page.on('request', (request) => {
      this.#started.set(request, Date.now())
      this.open++
      if (new URL(request.url()).origin === origin) this.requests++
    })
    page.on('requestfailed', (request) => this.#noteFailed(request))
    page.on('requestfinished', () => this.open--)
    page.on('response', (response) => this.#noteResponse(response))
  }

  #keep<T>(list: T[], item: T): void {
    if (list.length < mostKept) list.push(item)
  }

  #noteConsole(message: ConsoleMessage): void {
    const type = message.type()
    if (type !== 'error' && type !== 'warning') return
    const { url, lineNumber, columnNumber } = message.location()
    // The browser's own words on a request that failed: the request itself is noted.
    if (/^Failed to load resource/.test(message.text())) return
    // The browser's own words on an answer that it refused, at the address of that answer.
    const refused = refusalIn(message.text(), url)
    if (refused) {
      this.#keep(this.failed, { ...refused, status: null, data: false })
      return
    }
    const file = this.#fileOf(url)
    this.#keep(this.complaints, {
      kind: type,
      text: message.text(),
      file,
      line: lineNumber + 1,
      column: columnNumber + 1,
    })
  }

  /** A page that came in place of data: a browser shows no error, and the script reads HTML. */
  noteStandIn(url: string): void {
    this.#keep(this.failed, { url, status: 200, reason: 'the entry page came in its place', data: true })
  }

  #noteFailed(request: Request): void {
    this.open--
    const reason = request.failure()?.errorText ?? 'it failed'
    this.#enter(request, 0, 0)
    // A page that is left while it loads breaks its requests off; that is nobody's fault.
    if (reason === 'net::ERR_ABORTED') return
    if (this.left.some(({ url, outcome }) => url === request.url() && outcome === 'not sent')) return
    this.#keep(this.failed, {
      url: request.url(),
      status: null,
      reason: plainReason(reason),
      data: isData(request),
    })
  }

  #noteResponse(response: Response): void {
    const status = response.status()
    this.#enter(response.request(), status, Number(response.headers()['content-length'] ?? 0))
    if (status >= 400)
      this.#keep(this.failed, {
        url: response.url(),
        status,
        reason: `status ${status}`,
        data: isData(response.request()),
      })
  }

  #enter(request: Request, status: number, bytes: number): void {
    const started = this.#started.get(request) ?? Date.now()
    this.entries.push({
      method: request.method(),
      url: request.url(),
      headers: request.headers(),
      status,
      bytes,
      started,
      took: Date.now() - started,
    })
  }

  /** The first place of this site in a stack: `at f (https://…/assets/a.js:1:20)`. */
  #placeIn(stack: string): Pick<PageMessage, 'file' | 'line' | 'column'> {
    for (const match of stack.matchAll(/(https?:\/\/[^\s()]+?):(\d+):(\d+)/g)) {
      const file = this.#fileOf(match[1] ?? '')
      if (file !== null) return { file, line: Number(match[2]), column: Number(match[3]) }
    }
    return { file: null, line: 1, column: 1 }
  }

  #fileOf(url: string): string | null {
    if (!URL.canParse(url)) return null
    const { origin, pathname } = new URL(url)
    const own = origin === this.#origin && pathname.startsWith(this.#base)
    // A page may request what is not well encoded.
    return own ? safeDecode(pathname.slice(this.#base.length)) : null
  }
}

function isData(request: Request): boolean {
  return ['fetch', 'xhr', 'eventsource'].includes(request.resourceType())
}

/** An answer that the browser got and would not use, as it says on the console. */
function refusalIn(text: string, url: string): { url: string; reason: string } | null {
  const named = /'(https?:\/\/[^'\s]+)'/.exec(text)?.[1]
  if (/'integrity' attribute/.test(text) && named)
    return { url: named, reason: 'it is not the file that the page names by its digest' }
  return /MIME type/.test(text) && url !== '' ? { url, reason: 'the browser refused its content type' } : null
}

const reasons: Readonly<Record<string, string>> = {
  'net::ERR_BLOCKED_BY_RESPONSE': 'the browser refused the answer',
  'net::ERR_BLOCKED_BY_CLIENT': 'it was not sent',
  'net::ERR_NAME_NOT_RESOLVED': 'there is no such host',
  'net::ERR_CONNECTION_REFUSED': 'nothing listens there',
  'net::ERR_TOO_MANY_REDIRECTS': 'it is redirected in a circle',
  'net::ERR_TIMED_OUT': 'no answer came in time',
}

function plainReason(text: string): string {
  return own(reasons, text) ?? text.replace(/^net::/, '')
}
