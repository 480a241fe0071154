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

/** Serves a build as its host will, at the site's base path. */
export async function startHost(
  stage: Stage,
  { port, listen, onAnswer }: ServerOptions,
): Promise<HostServer> {
  const server = createServer({ maxHeaderSize: 32_768 }, (request, answer) => {
    handle(stage, request, answer, onAnswer).catch(() => answer.destroy())
  })
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

async function handle(
  stage: Stage,
  request: IncomingMessage,
  answer: ServerResponse,
  onAnswer: ServerOptions['onAnswer'],
): Promise<void> {
  const { method = 'GET', url: target = '/', headers } = request
  const reply = await respond(stage, { method, target, headers })
  onAnswer?.({ method, target }, reply)
  const { location } = reply.headers
  // A redirect within the site stays at this server.
  const local = location?.startsWith(stage.site.origin)
    ? { location: location.slice(stage.site.origin.length) || '/' }
    : {}
  answer.writeHead(reply.status, { ...reply.headers, ...local })
  answer.end(reply.body)
}
