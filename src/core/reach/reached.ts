import type { CrossAnswer, CrossRequest } from './cors.ts'

/** How the other side is requested one endpoint. */
export interface Question {
  readonly url: string
  readonly request: CrossRequest
  /** `socket`: a WebSocket, which no CORS header rules: the other side looks at the origin itself. */
  readonly kind: 'request' | 'socket'
}

/** What came back. */
export interface Reply {
  readonly preflight: CrossAnswer | null
  readonly answer: CrossAnswer | null
  /** Why nothing came: refused, unknown host, no certificate, too slow. */
  readonly failure: string | null
  readonly milliseconds: number
}

/** Whether an endpoint serves a page at the site's origin. */
export interface Reached {
  readonly url: string
  /** The method, or `handshake`; empty when nothing was sent. */
  readonly requested: string
  readonly outcome: 'allows' | 'refuses' | 'no answer' | 'error' | 'not sent'
  readonly status: number | null
  /** One sentence: what the browser would say, or why nothing was sent. */
  readonly reason: string
  readonly milliseconds: number
}

/** Asks the other sides, one reply for each question. */
export type Asker = (questions: readonly Question[]) => Promise<readonly Reply[]>
