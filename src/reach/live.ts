import { Agent, request as askHttp, type IncomingMessage } from 'node:http'
import { request as askHttps, Agent as SecureAgent } from 'node:https'
import { brotliDecompressSync, gunzipSync, inflateSync } from 'node:zlib'
import type { LiveAsker, LiveQuestion, LiveReply } from '../core/live/reply.ts'
import { own } from '../core/model/own.ts'
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
  /** What a protected preview wants, and the origin that gets it: no other does, plain http neither. Shown nowhere. */
  readonly authorization: { readonly value: string; readonly origin: string } | null
}

/** As often as a host that asks for patience is asked again, and as long as is waited for it; milliseconds. */
const mostTries = 3
const longestWait = 30_000

/** Asks over the network as a browser would, one address at a time: it keeps nothing and follows no redirect. */
export function liveAsker(options: LiveAskingOptions): LiveAsker {
  const pace = new Pace(options.perSecond)
  const agents = { plain: new Agent({ keepAlive: true }), secure: new SecureAgent({ keepAlive: true }) }
  return async (question) => {
    for (let tries = 1; ; tries++) {
      await pace.turn()
      const reply = await askOnce(question, options, agents)
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

/** Connections that are kept for the next request. */
interface Agents {
  readonly plain: Agent
  readonly secure: SecureAgent
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
  agents: Agents,
): Promise<LiveReply | string> {
  const over = AbortSignal.timeout(timeout)
  try {
    const answer = await send(new URL(url), instead, { authorization, agents, signal: over })
    const { body, isWhole } = await bodyOf(answer, most, over)
    return { status: answer.statusCode ?? 0, headers: headersOf(answer), body, isWhole }
  } catch (error) {
    return over.aborted ? `no answer within ${timeout / 1000} seconds` : failureOf(error)
  }
}

function send(
  url: URL,
  instead: ReadonlyMap<string, string>,
  {
    authorization,
    agents,
    signal,
  }: { authorization: LiveAskingOptions['authorization']; agents: Agents; signal: AbortSignal },
): Promise<IncomingMessage> {
  const other = instead.get(url.origin)
  const place = other === undefined ? url : new URL(url.pathname + url.search, other)
  const headers = {
    host: url.host,
    accept: '*/*',
    'accept-encoding': 'gzip, br',
    ...(authorization?.origin === url.origin && { authorization: authorization.value }),
  }
  return new Promise((resolve, reject) => {
    const isSecure = place.protocol === 'https:'
    const ask = isSecure ? askHttps : askHttp
    const agent = isSecure ? agents.secure : agents.plain
    // The name that was meant is the one that is asked for, wherever it leads.
    const named = isSecure ? { servername: url.hostname } : {}
    const asking = ask(place, { headers, signal, maxHeaderSize: 32_768, agent, ...named })
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
  const parts: Buffer[] = []
  let size = 0
  try {
    for await (const part of answer as AsyncIterable<Buffer>) {
      parts.push(part)
      size += part.length
      if (size > most) return { body: Buffer.concat(parts).subarray(0, most), isWhole: false }
    }
    // A connection that is given up ends like one that has said all.
    signal.throwIfAborted()
    return unpacked(Buffer.concat(parts), answer.headers['content-encoding'], most)
  } finally {
    // A connection whose answer was read to its end is used again.
    if (!answer.complete) answer.destroy()
  }
}

const unpackers = {
  br: brotliDecompressSync,
  gzip: gunzipSync,
  'x-gzip': gunzipSync,
  deflate: inflateSync,
} as const

function unpacked(
  packed: Buffer,
  encoding: string | undefined,
  most: number,
): { readonly body: Uint8Array; readonly isWhole: boolean } {
  const unpack = own(unpackers, encoding ?? '')
  if (!unpack) return { body: packed, isWhole: true }
  try {
    return { body: unpack(packed, { maxOutputLength: most }), isWhole: true }
  } catch (error) {
    const isTooLarge = error instanceof Error && 'code' in error && error.code === 'ERR_BUFFER_TOO_LARGE'
    if (isTooLarge) return { body: new Uint8Array(), isWhole: false }
    throw new Error(`what it sent is not packed as ${encoding}`)
  }
}
