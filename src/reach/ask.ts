import { request as askHttp, type IncomingMessage } from 'node:http'
import { request as askHttps } from 'node:https'
import {
  askedHeaders,
  type CrossAnswer,
  isForbiddenHeader,
  needsPreflight,
  sentMethod,
} from '../core/reach/cors.ts'
import type { Asker, Question, Reply } from '../core/reach/reached.ts'
import { failureOf } from './failure.ts'
import { headersOf } from './headers.ts'

/** How endpoints are requested. */
export interface AskingOptions {
  /** Longest wait for one answer; milliseconds. */
  readonly timeout: number
  /** Origins that are requested at another address: a stand-in, or the next release of a service. */
  readonly instead: ReadonlyMap<string, string>
  readonly onProgress?: (done: number) => void
}

/** How many are requested at a time. */
const atOnce = 6

/** Asks over the network, as a browser would for a page of the site: with its origin, following no redirect, keeping nothing. */
export function networkAsker(options: AskingOptions): Asker {
  return async (questions) => {
    const replies: Reply[] = []
    let next = 0
    let done = 0
    const work = async (): Promise<void> => {
      while (next < questions.length) {
        const index = next++
        const question = questions[index]
        if (question) replies[index] = await askOne(question, options)
        options.onProgress?.(++done)
      }
    }
    await Promise.all(Array.from({ length: Math.min(atOnce, questions.length) }, work))
    return replies
  }
}

async function askOne({ url, request, kind }: Question, options: AskingOptions): Promise<Reply> {
  const started = performance.now()
  const took = (): number => Math.round(performance.now() - started)
  const target = placeOf(url, options.instead)
  const over = AbortSignal.timeout(options.timeout)
  try {
    if (kind === 'socket') {
      const answer = await send(target, 'GET', { origin: request.origin, ...handshake }, over)
      return { preflight: null, answer, failure: null, milliseconds: took() }
    }
    const names = askedHeaders(request.headers)
    const method = sentMethod(request.method)
    const requested = { origin: request.origin, 'access-control-request-method': method }
    const withNames =
      names.length > 0 ? { ...requested, 'access-control-request-headers': names.join(',') } : requested
    const preflight = needsPreflight(request) ? await send(target, 'OPTIONS', withNames, over) : null
    // What changes data is not sent: the preflight says whether it would be let through.
    const safe = method === 'GET' || method === 'HEAD'
    const own = Object.fromEntries([...request.headers].filter(([name]) => !isForbiddenHeader(name)))
    const answer = safe
      ? await send(target, method, { ...own, origin: request.origin }, over)
      : (preflight ?? (await send(target, 'HEAD', { origin: request.origin }, over)))
    return { preflight, answer, failure: null, milliseconds: took() }
  } catch (error) {
    // One time for all of an exchange, however slowly it comes.
    const failure = over.aborted ? `no answer within ${options.timeout / 1000} seconds` : failureOf(error)
    return { preflight: null, answer: null, failure, milliseconds: took() }
  }
}

/** The opening handshake of a WebSocket (RFC 6455, 4.1). The key is the standard's own example: it proves nothing. */
const handshake = {
  connection: 'Upgrade',
  upgrade: 'websocket',
  'sec-websocket-version': '13',
  'sec-websocket-key': 'dGhlIHNhbXBsZSBub25jZQ==',
}

function placeOf(url: string, instead: ReadonlyMap<string, string>): URL {
  const requested = new URL(url.replace(/^ws/i, 'http'))
  const other = instead.get(new URL(url).origin) ?? instead.get(requested.origin)
  return other === undefined ? requested : new URL(requested.pathname + requested.search, other)
}

/** Sends one request and takes the head of its answer: the body is nobody's. */
function send(
  url: URL,
  method: string,
  headers: Record<string, string>,
  signal: AbortSignal,
): Promise<CrossAnswer> {
  return new Promise((resolve, reject) => {
    const ask = url.protocol === 'https:' ? askHttps : askHttp
    const asking = ask(url, { method, headers, signal, maxHeaderSize: largestHead, agent: false })
    const take = (answer: IncomingMessage): void => {
      resolve({ status: answer.statusCode ?? 0, headers: headersOf(answer) })
      answer.destroy()
    }
    asking.on('response', take)
    asking.on('upgrade', (answer, socket) => {
      socket.destroy()
      take(answer)
    })
    asking.on('error', reject)
    asking.end()
  })
}

/** Bytes. */
const largestHead = 32_768
