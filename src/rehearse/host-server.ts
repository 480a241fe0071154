import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { AddressInfo, Socket } from 'node:net'
import { type HttpReply, respond, type Stage } from './respond.ts'

/** A host that is played on this machine. */
export interface HostServer {
  /** `http://127.0.0.1:5190`: what stands in place of the site's origin. */
  readonly origin: string
  close(): Promise<void>
}

/** Where it listens, and who watches. */
export interface ServerOptions {
  /** 0 takes a free port. */
  readonly port: number
  /** An address of this machine; the loopback one unless somebody says another. */
  readonly listen: string
  readonly onAnswer?: (
    request: { readonly method: string; readonly target: string },
    reply: HttpReply,
  ) => void
}

/** What a client may take of this machine. Longer targets and headers are refused by the parser. */
const bounds = {
  connections: 128,
  /** Requests of one connection that wait for their turn. */
  waiting: 64,
  /** For the headers, and for a whole request; milliseconds. */
  headers: 10_000,
  request: 20_000,
  /** For a client to take its answer; milliseconds. */
  answer: 30_000,
}

/** Serves a build as its host will, at the site's base path. */
export async function startHost(
  stage: Stage,
  { port, listen, onAnswer }: ServerOptions,
): Promise<HostServer> {
  const turns = new Turns()
  const limits = { maxHeaderSize: 32_768, headersTimeout: bounds.headers, requestTimeout: bounds.request }
  const server = createServer({ ...limits, connectionsCheckingInterval: 2_000 }, (request, answer) => {
    turns.next(request.socket, answer, () => handle(stage, listen, request, answer, onAnswer))
  })
  server.maxConnections = bounds.connections
  server.on('clientError', (_, socket: Socket) => {
    if (socket.writable)
      socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\ncontent-length: 0\r\n\r\n')
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, listen, resolve)
  })
  const found = server.address() as AddressInfo
  const name = found.family === 'IPv6' ? `[${found.address}]` : found.address
  return {
    origin: `http://${name}:${found.port}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve())
        server.closeAllConnections()
      }),
  }
}

/** Answers the requests of a connection one after the other: what a client does not take fills no memory. */
class Turns {
  readonly #waiting = new WeakMap<Socket, { count: number; last: Promise<void> }>()

  next(socket: Socket, answer: ServerResponse, work: () => Promise<void>): void {
    const queue = this.#waiting.get(socket) ?? { count: 0, last: Promise.resolve() }
    this.#waiting.set(socket, queue)
    if (++queue.count > bounds.waiting) {
      socket.destroy()
      return
    }
    queue.last = queue.last.then(async () => {
      try {
        if (!socket.destroyed) await Promise.all([work(), taken(answer)])
      } catch {
        socket.destroy()
      }
      queue.count--
    })
  }
}

/** Resolves when an answer was taken, or nobody is there to take it; who takes too long is let go. */
function taken(answer: ServerResponse): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(() => answer.destroy(), bounds.answer)
    answer.once('close', () => {
      clearTimeout(timer)
      resolve()
    })
  })
}

/**
 * Whether a request is meant for this server: by an address, a name of this machine, the name it listens at or the site's own. A page of another
 * site, whose name somebody let lead here, is answered nothing.
 */
function isMeant(host: string | undefined, listen: string, site: Stage['site']): boolean {
  if (host === undefined || !URL.canParse(`http://${host}`)) return false
  const { hostname } = new URL(`http://${host}`)
  const isAddress = /^\[|^\d+(?:\.\d+){3}$/.test(hostname)
  const own = ['localhost', listen.toLowerCase(), new URL(site.origin).hostname]
  return isAddress || hostname.endsWith('.localhost') || own.includes(hostname)
}

async function handle(
  stage: Stage,
  listen: string,
  request: IncomingMessage,
  answer: ServerResponse,
  onAnswer: ServerOptions['onAnswer'],
): Promise<void> {
  const { method = 'GET', url: target = '/', headers } = request
  if (!isMeant(headers.host, listen, stage.site)) {
    answer.writeHead(421, { 'content-type': 'text/plain', connection: 'close' })
    answer.end('This name is not served here.\n')
    return
  }
  const reply = await respond(stage, { method, target, headers })
  onAnswer?.({ method, target }, reply)
  const { location } = reply.headers
  // A redirect within the site stays at this server.
  const local = location?.startsWith(stage.site.origin)
    ? { location: location.slice(stage.site.origin.length) || '/' }
    : {}
  // Nobody reads what else such a request sends.
  const close = method === 'GET' || method === 'HEAD' ? {} : { connection: 'close' }
  answer.writeHead(reply.status, { ...reply.headers, ...local, ...close })
  answer.end(reply.body)
}
