import type { Endpoint } from '../endpoints/endpoint.ts'
import { absoluteOf } from '../endpoints/endpoints.ts'
import type { Site } from '../model/site.ts'
import {
  type CrossRequest,
  checkAnswer,
  checkPreflight,
  needsPreflight,
  type Permission,
  sentMethod,
} from './cors.ts'
import type { Asker, Question, Reached, Reply } from './reached.ts'

/** How the page's scripts ask, where the person knows better than the build shows. */
export interface ReachOptions {
  readonly method: string | null
  readonly headers: ReadonlyMap<string, string>
  readonly credentials: boolean
}

/** Flows that no script reads an answer of: no CORS applies to them. */
const unread = new Set([
  'element',
  'form',
  'navigation',
  'link',
  'policy',
  'preconnect',
  'hint',
  'message target',
])

/** Asks every endpoint of another origin that the build is seen to call whether it serves a page of this site. */
export async function reach(
  site: Site,
  endpoints: readonly Endpoint[],
  options: ReachOptions,
  ask: Asker,
): Promise<Reached[]> {
  const called = endpoints.filter(
    ({ certainty, flow, kind }) =>
      certainty === 'called' &&
      !unread.has(flow ?? '') &&
      kind !== 'own origin' &&
      kind !== 'forwarded path' &&
      kind !== 'own path' &&
      kind !== 'own host',
  )
  const found: Reached[] = called.flatMap((endpoint) => notSent(endpoint, site) ?? [])
  const questions = called
    .filter((endpoint) => notSent(endpoint, site) === null)
    .map(({ url, flow, settings }): Question => {
      const isSocket = flow === 'WebSocket' || /^wss?:/i.test(url)
      const request: CrossRequest = {
        origin: site.origin,
        method: options.method ?? settings?.method ?? 'GET',
        headers: new Map([...(settings?.headers ?? []), ...options.headers]),
        credentials: options.credentials || (settings?.credentials ?? false),
      }
      return { url: absoluteOf(url), request, kind: isSocket ? 'socket' : 'request' }
    })
  const replies = await ask(questions)
  for (const [index, question] of questions.entries()) {
    const reply = replies[index]
    if (reply) found.push(judged(question, reply))
  }
  return found.sort((a, b) => (a.url < b.url ? -1 : 1))
}

/** What a browser would not even send, or what would reach somebody else than visitors do. */
function notSent({ url, kind }: Endpoint, site: Site): Reached | null {
  const reason =
    kind === 'loopback'
      ? "it is the visitor's own machine"
      : kind === 'unfinished'
        ? 'it is a placeholder'
        : kind === 'private network' || kind === 'local name'
          ? 'it is only known inside its own network'
          : site.origin.startsWith('https:') && /^(?:http|ws):/i.test(absoluteOf(url))
            ? 'a browser sends no plain http from an https page'
            : null
  return reason === null
    ? null
    : { url, requested: '', outcome: 'not sent', status: null, reason, milliseconds: 0 }
}

function judged(
  { url, request, kind }: Question,
  { preflight, answer, failure, milliseconds }: Reply,
): Reached {
  const reported = (
    outcome: Reached['outcome'],
    reason: string,
    status: number | null = answer?.status ?? null,
  ): Reached => ({
    url,
    requested: kind === 'socket' ? 'handshake' : sentMethod(request.method),
    outcome,
    status,
    reason,
    milliseconds,
  })
  if (failure !== null) return reported('no answer', failure)
  if (kind === 'socket') return ofSocket(answer?.status ?? 0, reported)
  const first = needsPreflight(request) && preflight ? checkPreflight(request, preflight) : null
  if (first && !first.allowed) return reported('refuses', first.reason, preflight?.status ?? null)
  if (!answer) return reported('no answer', 'nothing came back')
  const permission: Permission = checkAnswer(request, answer)
  if (!permission.allowed) return reported('refuses', permission.reason)
  // Many services answer 401, 404 or 405 to a request without a login or a full path; that is an answer all the same.
  return answer.status >= 500
    ? reported('error', `it answers with status ${answer.status}`)
    : reported('allows', 'it allows this site')
}

function ofSocket(
  status: number,
  reported: (outcome: Reached['outcome'], reason: string) => Reached,
): Reached {
  if (status === 101) return reported('allows', 'it opens the socket')
  if (status === 401 || status === 403)
    return reported('refuses', `it answers the handshake with status ${status}`)
  return reported('error', `it answers the handshake with status ${status}`)
}
