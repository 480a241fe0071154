import { createServer, type RequestListener, type Server } from 'node:http'
import { type AddressInfo, createServer as createTcpServer } from 'node:net'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type ReachFlags, reachCommand } from '../src/cli/commands/reach.ts'
import { type CrossRequest, checkAnswer, checkPreflight, needsPreflight } from '../src/core/reach/cors.ts'
import { formatNamed } from '../src/core/report/formats/index.ts'
import { networkAsker } from '../src/reach/ask.ts'
import { startStandIn } from '../src/reach/stand-in.ts'
import { hasBrowser, startBrowser } from './support/browser.ts'
import { folderWith } from './support/folders.ts'

type Headers = Readonly<Record<string, string | string[]>>

interface Combination {
  readonly method?: string
  readonly headers?: Readonly<Record<string, string>>
  readonly credentials?: boolean
  /** What the service answers to OPTIONS. */
  readonly before?: { readonly status?: number; readonly headers: Headers }
  readonly answer: Headers
  /** Where this browser is laxer than the standard, whose word the engine follows: others are not. */
  readonly laxer?: true
}

// `ORIGIN` stands for the page's own origin, which has a port that is known only when the test runs.
const own = { 'access-control-allow-origin': 'ORIGIN' }
const any = { 'access-control-allow-origin': '*' }
const login = { ...own, 'access-control-allow-credentials': 'true' }
const put = { method: 'PUT' }
const json = { method: 'POST', headers: { 'content-type': 'application/json' } }
const methods = (text: string): Headers => ({ ...own, 'access-control-allow-methods': text })
const names = (text: string): Headers => ({ ...own, 'access-control-allow-headers': text })

const combinations: Readonly<Record<string, Combination>> = {
  'no header at all': { answer: {} },
  'the own origin': { answer: own },
  'every origin': { answer: any },
  'another origin': { answer: { 'access-control-allow-origin': 'http://localhost:5173' } },
  null: { answer: { 'access-control-allow-origin': 'null' } },
  'an empty value': { answer: { 'access-control-allow-origin': '' } },
  'a slash at the end': { answer: { 'access-control-allow-origin': 'ORIGIN/' } },
  'another scheme': { answer: { 'access-control-allow-origin': 'SECURE' } },
  'other letter case of the scheme': { answer: { 'access-control-allow-origin': 'SHOUTED' } },
  'two values in one header': { answer: { 'access-control-allow-origin': 'ORIGIN, http://localhost:5173' } },
  'the header twice': { answer: { 'access-control-allow-origin': ['ORIGIN', 'http://localhost:5173'] } },
  'the same header twice': { answer: { 'access-control-allow-origin': ['ORIGIN', 'ORIGIN'] } },
  'a pattern': { answer: { 'access-control-allow-origin': 'http://*' } },
  'blanks around the origin': { answer: { 'access-control-allow-origin': '  ORIGIN  ' } },
  'credentials, allowed': { credentials: true, answer: login },
  'credentials, not allowed': { credentials: true, answer: own },
  'credentials and every origin': {
    credentials: true,
    answer: { ...any, 'access-control-allow-credentials': 'true' },
  },
  'credentials, True': { credentials: true, answer: { ...own, 'access-control-allow-credentials': 'True' } },
  'credentials, 1': { credentials: true, answer: { ...own, 'access-control-allow-credentials': '1' } },
  HEAD: { method: 'HEAD', answer: own },
  'POST of plain text': { method: 'POST', headers: { 'content-type': 'text/plain' }, answer: own },
  'POST of a form': {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded;charset=UTF-8' },
    answer: own,
  },
  'POST of JSON, nothing allowed': { ...json, before: { headers: own }, answer: own },
  'POST of JSON, allowed': { ...json, before: { headers: names('content-type') }, answer: own },
  'POST of JSON, allowed in other letter case': {
    ...json,
    before: { headers: names('Content-Type') },
    answer: own,
  },
  'POST of JSON, all allowed': { ...json, before: { headers: names('*') }, answer: own },
  'POST of JSON, others allowed': {
    ...json,
    before: { headers: names('authorization, x-skerry') },
    answer: own,
  },
  'POST of JSON, the preflight without an origin': {
    ...json,
    before: { headers: { 'access-control-allow-headers': 'content-type' } },
    answer: own,
  },
  'POST of JSON, the answer without an origin': {
    ...json,
    before: { headers: names('content-type') },
    answer: {},
  },
  'POST of JSON, the preflight not found': {
    ...json,
    before: { status: 404, headers: names('content-type') },
    answer: own,
  },
  'POST of JSON, the preflight 401': {
    ...json,
    before: { status: 401, headers: names('content-type') },
    answer: own,
  },
  'POST of JSON, the preflight 204': {
    ...json,
    before: { status: 204, headers: names('content-type') },
    answer: own,
  },
  'POST of JSON, the preflight redirects': {
    ...json,
    before: { status: 302, headers: { ...names('content-type'), location: '/elsewhere' } },
    answer: own,
  },
  'PUT, nothing allowed': { ...put, before: { headers: own }, answer: own },
  'PUT, allowed': { ...put, before: { headers: methods('PUT') }, answer: own },
  'PUT, allowed among others': { ...put, before: { headers: methods('GET,PUT ,DELETE') }, answer: own },
  'PUT, allowed in small letters': { ...put, before: { headers: methods('put') }, answer: own },
  'PUT, all allowed': { ...put, before: { headers: methods('*') }, answer: own },
  'PUT with credentials, all allowed': {
    ...put,
    credentials: true,
    before: { headers: { ...login, 'access-control-allow-methods': '*' } },
    answer: login,
  },
  'PUT with credentials, named': {
    ...put,
    credentials: true,
    before: { headers: { ...login, 'access-control-allow-methods': 'PUT' } },
    answer: login,
  },
  'PUT with credentials, the preflight does not allow them': {
    ...put,
    credentials: true,
    before: { headers: methods('PUT') },
    answer: login,
  },
  'PUT written small': { method: 'put', before: { headers: methods('PUT') }, answer: own },
  'PATCH, allowed': { method: 'PATCH', before: { headers: methods('PATCH') }, answer: own },
  'patch written small is another method': {
    method: 'patch',
    before: { headers: methods('PATCH') },
    answer: own,
  },
  'a list that is none': { ...put, before: { headers: methods('PUT, (x)') }, answer: own },
  'a login, named': {
    headers: { authorization: 'Bearer x' },
    before: { headers: names('authorization') },
    answer: own,
  },
  'a login, all allowed': {
    headers: { authorization: 'Bearer x' },
    before: { headers: names('*') },
    answer: own,
    laxer: true,
  },
  'a header of its own, all allowed': {
    headers: { 'x-skerry': '1' },
    before: { headers: names('*') },
    answer: own,
  },
  'a header of its own with credentials, all allowed': {
    headers: { 'x-skerry': '1' },
    credentials: true,
    before: { headers: { ...login, 'access-control-allow-headers': '*' } },
    answer: login,
  },
  'two headers, one named': {
    headers: { 'x-skerry': '1', 'x-line': '2' },
    before: { headers: names('x-skerry') },
    answer: own,
  },
  'an accept header that is safe': { headers: { accept: 'application/json' }, answer: own },
  'an accept header that is not': {
    headers: { accept: 'application/json;v="1"' },
    before: { headers: own },
    answer: own,
  },
  'an accept header that is too long': {
    headers: { accept: `application/${'x'.repeat(140)}` },
    before: { headers: own },
    answer: own,
  },
  'a language that is safe': { headers: { 'accept-language': 'nb, en;q=0.5' }, answer: own },
  'a language that is not': {
    headers: { 'content-language': 'nb@x' },
    before: { headers: own },
    answer: own,
  },
  'a range that is safe': { headers: { range: 'bytes=0-9' }, answer: own },
  'a range that is not': { headers: { range: 'bytes=-9' }, before: { headers: own }, answer: own },
}

async function serve(listener: RequestListener): Promise<{ server: Server; origin: string }> {
  const server = createServer(listener)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return { server, origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}` }
}

describe.skipIf(!hasBrowser)('a browser and the engine agree on', () => {
  let browser: Browser
  let page: Page
  let servers: Server[] = []
  let site = ''
  let service = ''

  const filled = (headers: Headers): Map<string, string[]> =>
    new Map(
      Object.entries(headers).map(([name, value]) => [
        name,
        [value]
          .flat()
          .map((each) =>
            each
              .replace('ORIGIN', site)
              .replace('SECURE', site.replace('http:', 'https:'))
              .replace('SHOUTED', site.replace('http:', 'HTTP:')),
          ),
      ]),
    )

  beforeAll(async () => {
    const home = await serve((_, answer) =>
      answer.setHeader('content-type', 'text/html').end('<!doctype html><title>x</title>'),
    )
    const other = await serve((request, answer) => {
      const name = decodeURIComponent((request.url ?? '/').slice(1))
      const one = combinations[name]
      const { status = 200, headers } =
        request.method === 'OPTIONS'
          ? (one?.before ?? { status: 405, headers: {} })
          : { headers: one?.answer ?? {} }
      for (const [header, values] of filled(headers)) answer.setHeader(header, values)
      answer.writeHead(status).end()
    })
    servers = [home.server, other.server]
    site = home.origin
    service = other.origin
    browser = await startBrowser()
    page = await browser.newPage()
    await page.goto(site)
  }, 60_000)

  afterAll(async () => {
    await browser?.close()
    for (const server of servers) server.close()
  })

  test('there are many combinations', () => {
    expect(Object.keys(combinations).length).toBeGreaterThanOrEqual(40)
  })

  test.each(Object.entries(combinations))('%s', async (name, one) => {
    const {
      method = 'GET',
      headers = {},
      credentials = false,
      before = { status: 405, headers: {} },
      answer,
    } = one
    const seen = await page.evaluate(
      async ([url, init]) =>
        fetch(url, init).then(
          () => true,
          () => false,
        ),
      [
        `${service}/${encodeURIComponent(name)}`,
        { method, headers, credentials: credentials ? 'include' : 'omit' } as RequestInit,
      ] as const,
    )
    const request: CrossRequest = {
      origin: site,
      method,
      headers: new Map(Object.entries(headers)),
      credentials,
    }
    const joined = (each: Headers): Map<string, string> =>
      new Map(
        [...filled(each)].map(([header, values]) => [header, values.map((value) => value.trim()).join(', ')]),
      )
    const first = needsPreflight(request)
      ? checkPreflight(request, { status: before.status ?? 200, headers: joined(before.headers) })
      : null
    const last = checkAnswer(request, { status: 200, headers: joined(answer) })
    expect((first?.allowed ?? true) && last.allowed).toBe(one.laxer ? !seen : seen)
  })
})

const app = (code: string): Record<string, string> => ({
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': 'export default {}',
  'src/api.js': code,
  'dist/index.html': '<!doctype html><script type="module" src="/assets/app-AbCdEf12.js"></script>',
  'dist/assets/app-AbCdEf12.js': code,
})

async function reached(
  code: string,
  flags: Partial<ReachFlags>,
  more: Readonly<Record<string, string>> = {},
): Promise<{ status: number; out: string; err: string }> {
  let out = ''
  let err = ''
  const streams = {
    out: { write: (text: string) => (out += text) },
    err: { write: (text: string) => (err += text) },
  }
  const all: ReachFlags = {
    site: ['https://skerryline.example/'],
    timeout: '2',
    deliveries: [{ format: formatNamed('text'), out: null }],
    cache: false,
    color: false,
    ...flags,
  }
  const status = await reachCommand(folderWith({ ...app(code), ...more }), all, streams as never)
  return { status, out, err }
}

describe('the command', () => {
  const call = 'fetch("https://api.skerryline.example/v1")'

  test('a service that allows the site, and one that does not', async () => {
    const service = await startStandIn({ origins: ['https://skerryline.example'], bodies: { '/v1': [] } })
    const instead = [`https://api.skerryline.example=${service.address}`]
    expect(await reached(call, { instead })).toMatchObject({
      status: 0,
      out: expect.stringMatching(/^CLEAR[\s\S]*allows/),
      err: 'Asking on behalf of https://skerryline.example:\n  GET https://api.skerryline.example/v1\n\n',
    })
    const other = await reached(call, { instead, site: ['https://www.skerryline.example/'] })
    await service.close()
    expect(other.status).toBe(1)
    expect(other.out).toContain('endpoint/origin-refused')
    expect(other.out).toMatch(/access-control-allow-origin\s+is/)
  })

  test('who is asked is shown by the name of the variable, never by its value', async () => {
    const service = await startStandIn({ origins: ['https://skerryline.example'], bodies: { '/v1': [] } })
    const instead = [`https://api.skerryline.example=${service.address}`]
    const file = { '.env.production': 'VITE_SAILINGS_API=https://api.skerryline.example' }
    const { err } = await reached(call, { instead }, file)
    await service.close()
    expect(err).toContain('GET ${VITE_SAILINGS_API}/v1')
    expect(err).not.toContain('api.skerryline.example')
  })

  test('what nothing is seen to call is not asked', async () => {
    const code =
      'open({ docs: "https://docs.skerryline.example/v1" });h("a",{href:"https://www.skerryline.example/x"})'
    const { err, out } = await reached(code, {})
    expect(err).toBe('')
    expect(out).not.toContain('docs.skerryline.example')
  })

  test('a request that is requested about beforehand, and never sent itself', async () => {
    const seen: string[] = []
    const { server, origin } = await serve((request, answer) => {
      seen.push(
        `${request.method} ${request.headers['access-control-request-method']} ${request.headers['access-control-request-headers']}`,
      )
      answer
        .setHeader('access-control-allow-origin', '*')
        .setHeader('access-control-allow-methods', 'GET')
        .end()
    })
    const flags = {
      method: 'DELETE',
      header: ['x-skerry=1'],
      instead: [`https://api.skerryline.example=${origin}`],
    }
    const { status, out } = await reached(call, flags)
    server.close()
    expect(seen).toEqual(['OPTIONS DELETE x-skerry'])
    expect(status).toBe(1)
    expect(out).toMatch(/access-control-allow-methods\s+does\s+not\s+name\s+DELETE/)
  })

  test('what the call itself says of method and headers is requested', async () => {
    const post =
      'fetch(`https://api.skerryline.example/v1`,{method:`POST`,headers:{"Content-Type":`application/json`,Authorization:e},body:t})'
    const service = await startStandIn({ origins: ['https://skerryline.example'], bodies: { '/v1': [] } })
    const { out } = await reached(post, { instead: [`https://api.skerryline.example=${service.address}`] })
    await service.close()
    expect(out).toMatch(/refuses .*POST, status 204/)
    expect(out).toContain('access-control-allow-headers')
    expect(out).toMatch(/name\s+authorization/)
  })

  test('nothing listens, nothing answers in time, a server error', async () => {
    const slow = await serve(() => {})
    const broken = await serve((_, answer) =>
      answer.setHeader('access-control-allow-origin', '*').writeHead(503).end(),
    )
    const requested = async (origin: string): Promise<string> =>
      (await reached(call, { timeout: '0.2', instead: [`https://api.skerryline.example=${origin}`] })).out
    expect(await requested('http://127.0.0.1:9')).toContain('nothing listens there')
    expect(await requested(slow.origin)).toContain('no answer within 0.2 seconds')
    expect(await requested(broken.origin)).toContain('status 503')
    slow.server.closeAllConnections()
    for (const { server } of [slow, broken]) server.close()
  })

  test("the visitor's own machine and plain http are not requested", async () => {
    const { out } = await reached(
      'fetch("http://localhost:1/a");fetch("http://api.skerryline.example/b")',
      {},
    )
    expect(out).toMatch(/not sent +http:\/\/localhost:1\/a/)
    expect(out).toContain('a browser sends no plain http')
  })

  test('what can not be meant is one sentence', async () => {
    const wrong = { instead: ['https://api.skerryline.example'] }
    await expect(reached(call, wrong)).rejects.toThrow('--instead https://')
    await expect(reached(call, { timeout: 'soon' })).rejects.toThrow('--timeout 5')
    await expect(reached(call, { header: ['x'] })).rejects.toThrow('--header')
    for (const name of ['Cookie', 'host', 'Sec-Fetch-Site', 'proxy-x'])
      await expect(reached(call, { header: [`${name}=1`] })).rejects.toThrow(`can't set the header ${name}`)
    await expect(reached(call, { method: 'G T' })).rejects.toThrow('--method POST')
    await expect(reached(call, { site: [''] })).rejects.toThrow('http')
  })
})

test('a socket is requested by its handshake, with the origin of the site', async () => {
  const { server, origin } = await serve(() => {})
  server.on('upgrade', (request, socket) => {
    const allowed = request.headers.origin === 'https://skerryline.example'
    socket.end(
      allowed
        ? 'HTTP/1.1 101 Switching Protocols\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n\r\n'
        : 'HTTP/1.1 403 Forbidden\r\n\r\n',
    )
  })
  const ask = networkAsker({ timeout: 2_000, instead: new Map([['wss://live.skerryline.example', origin]]) })
  const from = (site: string) => ({
    url: 'wss://live.skerryline.example/x',
    kind: 'socket' as const,
    request: { origin: site, method: 'GET', headers: new Map(), credentials: false },
  })
  const replies = await ask([from('https://skerryline.example'), from('https://elsewhere.example')])
  server.close()
  expect(replies.map(({ answer }) => answer?.status)).toEqual([101, 403])
})

test('an answer that comes by drops, and one without an end, have one time for all of it', async () => {
  const drops = createTcpServer((socket) => {
    socket.on('error', () => {})
    socket.write('HTTP/1.1 200 OK\r\n')
    const timer = setInterval(() => socket.write('x-more: 1\r\n'), 20)
    socket.on('close', () => clearInterval(timer))
  })
  const flood = createTcpServer((socket) => {
    socket.on('error', () => {})
    socket.write(`HTTP/1.1 200 OK\r\nx-more: ${'a'.repeat(100_000)}`)
  })
  const failures: (string | null)[] = []
  for (const server of [drops, flood]) {
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
    const ask = networkAsker({ timeout: 300, instead: new Map([['https://api.skerryline.example', origin]]) })
    const started = performance.now()
    const headers = new Map([['cookie', 'a=1']])
    const request = { origin: 'https://skerryline.example', method: 'GET', headers, credentials: false }
    const [reply] = await ask([{ url: 'https://api.skerryline.example/v1', kind: 'request', request }])
    failures.push(reply?.failure ?? null)
    expect(performance.now() - started).toBeLessThan(5_000)
    server.close()
  }
  expect(failures).toEqual(['no answer within 0.3 seconds', 'the head of its answer is too large'])
})

test('headers that no script sets are not sent', async () => {
  const seen: unknown[] = []
  const { server, origin } = await serve((request, answer) => {
    seen.push([request.headers.cookie, request.headers['x-skerry']])
    answer.setHeader('access-control-allow-origin', '*').setHeader('access-control-allow-headers', '*').end()
  })
  const ask = networkAsker({ timeout: 2_000, instead: new Map([['https://api.skerryline.example', origin]]) })
  const headers = new Map([
    ['Cookie', 'a=1'],
    ['X-Skerry', '1'],
  ])
  const request = { origin: 'https://skerryline.example', method: 'GET', headers, credentials: false }
  await ask([{ url: 'https://api.skerryline.example/v1', kind: 'request', request }])
  server.close()
  expect(seen.at(-1)).toEqual([undefined, '1'])
})
