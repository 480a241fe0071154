import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'

/** What a stand-in for a service answers. */
export interface StandInAnswers {
  /** The origins that it allows. */
  readonly origins: readonly string[]
  /** Bodies by path; all other paths get 404. */
  readonly bodies: Readonly<Record<string, unknown>>
}

/** A running stand-in: its own address, and how to end it. */
export interface StandIn {
  readonly address: string
  close(): Promise<void>
}

/** Plays a service on a free loopback port, so that a site can be tried where the real one is not reached. */
export async function startStandIn({ origins, bodies }: StandInAnswers): Promise<StandIn> {
  const server = createServer((request, answer) => {
    const { origin } = request.headers
    // As many services do: the first of their origins to whoever is not on the list.
    const allowed = origin !== undefined && origins.includes(origin) ? origin : (origins[0] ?? '')
    answer.setHeader('access-control-allow-origin', allowed)
    answer.setHeader('vary', 'Origin')
    if (request.method === 'OPTIONS') {
      answer.setHeader('access-control-allow-methods', 'GET, POST')
      answer.setHeader('access-control-allow-headers', 'content-type')
      answer.writeHead(204).end()
      return
    }
    const body = bodies[new URL(request.url ?? '/', 'http://stand-in.test').pathname]
    answer.setHeader('content-type', 'application/json')
    answer.writeHead(body === undefined ? 404 : 200).end(JSON.stringify(body ?? { error: 'not found' }))
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  return {
    address: `http://127.0.0.1:${port}`,
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections()
        server.close(() => resolve())
      }),
  }
}
