import { request as askHttp, type IncomingMessage } from 'node:http'
import { request as askHttps } from 'node:https'
import type { Readable } from 'node:stream'
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib'
import type { LiveAsker, LiveQuestion, LiveReply } from '../core/live/reply.ts'
import { failureOf } from './failure.ts'
import { headersOf } from './headers.ts'

/** How an address is asked. */
export interface LiveAskingOptions {
  /** For one exchange; milliseconds. */
  readonly timeout: number
  /** Requests in a second at the most; null for no bound but that of those under way. */
  readonly perSecond: number | null
  /** The origin that is asked at another address: a machine behind the name. */
  readonly instead: ReadonlyMap<string, string>
  /** What a protected preview wants; shown nowhere. */
  readonly authorization: string | null
}

/** As often as a host that asks for patience is asked again, and as long as is waited for it; milliseconds. */
const mostTries = 3
const longestWait = 30_000

/** Asks over the network as a browser would, one address at a time: it keeps nothing and follows no redirect. */
export function liveAsker(options: LiveAskingOptions): LiveAsker {
  const pace = new Pace(options.perSecond)
  return async (question) => {
    for (let tries = 1; ; tries++) {
      await pace.turn()
      const reply = await askOnce(question, options)
      const wait = typeof reply === 'string' || tries >= mostTries ? null : patience(reply)
      if (wait === null) return reply
      await new Promise((resolve) => setTimeout(resolve, wait))
    }
  }
}

/** For how long a busy host asks to be left alone (RFC 9110, 10.2.3); null where it does not, or for longer than is waited. */
function patience({ status, headers }: LiveReply): number | null {
  if (status !== 429 && status !== 503) return null
  const said = headers.get('retry-after')
  if (said === undefined) return null
  const wait = /^\d+$/.test(said) ? Number(said) * 1000 : Date.parse(said) - Date.now()
  return wait >= 0 && wait <= longestWait ? wait : null
}

/** Lets requests go one by one, so many in a second. */
class Pace {
  readonly #gap: number
  #next = 0

  constructor(perSecond: number | null) {
    this.#gap = perSecond === null ? 0 : 1000 / perSecond
  }

  async turn(): Promise<void> {
    if (this.#gap === 0) return
    const now = performance.now()
    const at = Math.max(now, this.#next)
    this.#next = at + this.#gap
    if (at > now) await new Promise((resolve) => setTimeout(resolve, at - now))
  }
}

async function askOnce(
  { url, most }: LiveQuestion,
  { timeout, instead, authorization }: LiveAskingOptions,
): Promise<LiveReply | string> {
  const over = AbortSignal.timeout(timeout)
  try {
    const answer = await send(new URL(url), instead, authorization, over)
    const { body, isWhole } = await bodyOf(answer, most, over)
    return { status: answer.statusCode ?? 0, headers: headersOf(answer), body, isWhole }
  } catch (error) {
    return over.aborted ? `no answer within ${timeout / 1000} seconds` : failureOf(error)
  }
}

function send(
  url: URL,
  instead: ReadonlyMap<string, string>,
  authorization: string | null,
  signal: AbortSignal,
): Promise<IncomingMessage> {
  const other = instead.get(url.origin)
  const place = other === undefined ? url : new URL(url.pathname + url.search, other)
  const headers = {
    host: url.host,
    accept: '*/*',
    'accept-encoding': 'gzip, br',
    ...(authorization !== null && { authorization }),
  }
  return new Promise((resolve, reject) => {
    const ask = place.protocol === 'https:' ? askHttps : askHttp
    // The name that was meant is the one that is asked for, wherever it leads.
    const named = place.protocol === 'https:' ? { servername: url.hostname } : {}
    const asking = ask(place, { headers, signal, maxHeaderSize: 32_768, agent: false, ...named })
    asking.on('response', resolve)
    asking.on('error', reject)
    asking.end()
  })
}

/** The body, unpacked, up to a bound; what is more is left where it is. */
async function bodyOf(
  answer: IncomingMessage,
  most: number,
  signal: AbortSignal,
): Promise<{ readonly body: Uint8Array; readonly isWhole: boolean }> {
  const stream = unpacked(answer)
  const parts: Buffer[] = []
  let size = 0
  try {
    for await (const part of stream) {
      signal.throwIfAborted()
      parts.push(part as Buffer)
      size += (part as Buffer).length
      if (size > most) return { body: Buffer.concat(parts).subarray(0, most), isWhole: false }
    }
    // A connection that is given up ends like one that has said all.
    signal.throwIfAborted()
    return { body: Buffer.concat(parts), isWhole: true }
  } finally {
    answer.destroy()
  }
}

function unpacked(answer: IncomingMessage): Readable {
  const encoding = answer.headers['content-encoding']
  const unpack =
    encoding === 'br'
      ? createBrotliDecompress()
      : encoding === 'gzip' || encoding === 'x-gzip'
        ? createGunzip()
        : encoding === 'deflate'
          ? createInflate()
          : null
  if (!unpack) return answer
  answer.on('error', (error) => unpack.destroy(error))
  return answer.pipe(unpack)
}
