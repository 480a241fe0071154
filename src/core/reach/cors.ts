/** A request as a script of the page makes it. */
export interface CrossRequest {
  /** The page's own origin, as the browser sends it. */
  readonly origin: string
  readonly method: string
  /** Headers that the script sets, by name. */
  readonly headers: ReadonlyMap<string, string>
  /** Whether cookies and logins go along. */
  readonly credentials: boolean
}

/** An answer's status and headers; a header that came several times is joined by commas, as a browser joins it. */
export interface CrossAnswer {
  readonly status: number
  readonly headers: ReadonlyMap<string, string>
}

/** Whether a browser lets the page have the answer, and why not: one sentence that names the header. */
export type Permission = { readonly allowed: true } | { readonly allowed: false; readonly reason: string }

const yes: Permission = { allowed: true }

const simpleMethods = new Set(['GET', 'HEAD', 'POST'])
/** Methods that a browser writes in capitals whatever the script says (Fetch, 2.2.1, normalize). */
const normalised = new Set(['DELETE', 'GET', 'HEAD', 'OPTIONS', 'POST', 'PUT'])

/** A method as the browser sends it. */
export function sentMethod(method: string): string {
  const upper = method.toUpperCase()
  return normalised.has(upper) ? upper : method
}

/** Headers that no script sets (Fetch, 2.2.2, forbidden request-header). */
export function isForbiddenHeader(name: string): boolean {
  return forbidden.test(name) || /^(?:sec|proxy)-/i.test(name)
}

const forbidden =
  /^(?:accept-charset|accept-encoding|access-control-request-(?:headers|method|private-network)|connection|content-length|cookie2?|date|dnt|expect|host|keep-alive|origin|referer|set-cookie|te|trailer|transfer-encoding|upgrade|via)$/i

/** The names of the headers that a browser asks about beforehand, in lower case and sorted (Fetch, 4.8, CORS-unsafe names). */
export function askedHeaders(headers: ReadonlyMap<string, string>): string[] {
  const names: string[] = []
  const safe: string[] = []
  let size = 0
  for (const [name, value] of headers) {
    const lower = name.toLowerCase()
    if (!isSafeHeader(lower, value)) names.push(lower)
    else {
      safe.push(lower)
      size += value.length
    }
  }
  return [...names, ...(size > mostSafeBytes ? safe : [])].sort()
}

const mostSafeBytes = 1_024
const mostSafeValue = 128

/** CORS-safelisted request headers (Fetch, 2.2.2). */
function isSafeHeader(name: string, value: string): boolean {
  if (value.length > mostSafeValue) return false
  const unsafeByte = /[\x00-\x08\x0a-\x1f"():<>?@[\\\]{}\x7f]/
  switch (name) {
    case 'accept':
      return !unsafeByte.test(value)
    case 'accept-language':
    case 'content-language':
      return /^[\dA-Za-z *,\-.;=]*$/.test(value)
    case 'content-type':
      return (
        !unsafeByte.test(value) &&
        /^\s*(?:application\/x-www-form-urlencoded|multipart\/form-data|text\/plain)\s*(?:;|$)/i.test(value)
      )
    case 'range':
      return /^bytes=\d+-\d*$/.test(value)
    default:
      return false
  }
}

/** Whether a browser asks with OPTIONS before it sends the request (Fetch, 4.1, main fetch). */
export function needsPreflight({ method, headers }: CrossRequest): boolean {
  return !simpleMethods.has(sentMethod(method)) || askedHeaders(headers).length > 0
}

/** The CORS check (Fetch, 4.10): may the page have this answer? */
export function checkAnswer({ origin, credentials }: CrossRequest, { headers }: CrossAnswer): Permission {
  const allowed = headers.get('access-control-allow-origin')
  if (allowed === undefined) return refused('the answer has no access-control-allow-origin')
  if (allowed === '*' && credentials)
    return refused('access-control-allow-origin is *, which does not do for requests with credentials')
  if (allowed !== '*' && allowed !== origin) return refused(whyNot(allowed, origin))
  if (!credentials) return yes
  return headers.get('access-control-allow-credentials') === 'true'
    ? yes
    : refused('access-control-allow-credentials is not true')
}

function whyNot(allowed: string, origin: string): string {
  if (allowed.includes(',')) return `access-control-allow-origin came with more than one value: ${allowed}`
  if (allowed.toLowerCase() === `${origin.toLowerCase()}/`)
    return 'access-control-allow-origin ends in a slash; an origin has none'
  if (allowed.toLowerCase() === origin.toLowerCase())
    return 'access-control-allow-origin has other letter case than the origin'
  return `access-control-allow-origin is ${allowed || 'empty'}, not ${origin}`
}

/** The preflight (Fetch, 4.8): may the page send this request at all? */
export function checkPreflight(request: CrossRequest, answer: CrossAnswer): Permission {
  if (answer.status >= 300 && answer.status < 400)
    return refused('the preflight was answered with a redirect')
  const check = checkAnswer(request, answer)
  if (!check.allowed) return refused(check.reason.replace(/^the answer/, 'the answer to the preflight'))
  if (answer.status < 200 || answer.status > 299)
    return refused(`the preflight was answered with status ${answer.status}`)
  const methods = listOf(answer.headers.get('access-control-allow-methods'))
  const names = listOf(answer.headers.get('access-control-allow-headers'))
  if (!methods || !names) return refused('a list of the preflight is malformed')
  const method = sentMethod(request.method)
  const any = !request.credentials
  if (!simpleMethods.has(method) && !methods.includes(method) && !(any && methods.includes('*')))
    return refused(`access-control-allow-methods does not name ${method}`)
  const allowed = new Set(names.map((name) => name.toLowerCase()))
  for (const name of askedHeaders(request.headers)) {
    // A star never stands for the header that logs in.
    if (!allowed.has(name) && !(any && allowed.has('*') && name !== 'authorization'))
      return refused(`access-control-allow-headers does not name ${name}`)
  }
  return yes
}

/** The members of a list of tokens; null when it is none (RFC 9110, 5.6.1). */
function listOf(value: string | undefined): string[] | null {
  const members = (value ?? '').split(',').map((member) => member.trim())
  const tokens = members.filter((member) => member !== '')
  return tokens.every((token) => /^[\w!#$%&'*+.^`|~-]+$/.test(token)) ? tokens : null
}

function refused(reason: string): Permission {
  return { allowed: false, reason }
}
