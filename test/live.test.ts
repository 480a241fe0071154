import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import {
  createServer,
  type IncomingMessage,
  type RequestListener,
  type Server,
  type ServerResponse,
} from 'node:http'
import type { AddressInfo } from 'node:net'
import { createServer as createTcpServer } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type LiveFlags, liveCommand } from '../src/cli/commands/live.ts'
import { parseHostFile } from '../src/core/host/host-file.ts'
import type { Report } from '../src/core/model/report.ts'
import { formatNamed } from '../src/core/report/formats/index.ts'
import { liveAsker } from '../src/reach/live.ts'
import { folderWith } from './support/folders.ts'
import { installed, nginx, untilUp } from './support/servers.ts'

const script = `const harbours = [${'"Aldwick", '.repeat(400)}]\n`
const page =
  '<!doctype html><html><head><title>Skerry Line</title></head><body><script src="/b/assets/app-AbCdEf12.js"></script></body></html>\n'
const files = {
  'index.html': page,
  'about/index.html': page.replace('Skerry Line', 'About'),
  'assets/app-AbCdEf12.js': script,
  'assets/app-AbCdEf12.css': 'body { color: teal }\n',
  'mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
}
const servers: { close(): unknown }[] = []
afterAll(() => {
  for (const server of servers) server.close()
})

async function served(listener: RequestListener): Promise<string> {
  const server: Server = createServer(listener)
  servers.push(server)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`
}

const types: Readonly<Record<string, string>> = {
  html: 'text/html; charset=utf-8',
  js: 'text/javascript',
  css: 'text/css',
  svg: 'image/svg+xml',
}

/** A sound host, which a fault changes: what is sent for a path, or null for an error. */
interface Sending {
  status: number
  body: string | Buffer
  headers: Record<string, string>
}
type Fault = (path: string, sending: Sending, answer: ServerResponse) => void

const host =
  (fault: Fault, content: Readonly<Record<string, string>> = files): RequestListener =>
  ({ url = '' }: IncomingMessage, answer) => {
    const path = url.replace(/^\/b\//, '').replace(/\/$|^$/, (end) => `${end}index.html`)
    const name = path in content ? path : /\.\w+$/.test(path) ? null : 'index.html'
    const body = name === null ? 'nothing' : (content[name] as string)
    const extension = (name ?? '').split('.').at(-1) ?? ''
    const isHashed = /-[A-Za-z]{6}\d\d\./.test(name ?? '')
    const sending: Sending = {
      status: name === null ? 404 : 200,
      body: gzipSync(body),
      headers: {
        'content-type': types[extension] ?? 'text/plain',
        'content-encoding': 'gzip',
        'cache-control': isHashed ? 'public, max-age=31536000, immutable' : 'no-cache',
      },
    }
    fault(path, sending, answer)
    if (answer.writableEnded || answer.destroyed) return
    answer.writeHead(sending.status, sending.headers).end(sending.body)
  }
const sound: Fault = () => {}

async function live(
  origin: string,
  flags: Partial<LiveFlags> = {},
  folder = folderWith(files),
): Promise<{ status: number; report: Report; err: string }> {
  let out = ''
  let err = ''
  const streams = {
    out: { write: (text: string) => (out += text) },
    err: { write: (text: string) => (err += text) },
  }
  const status = await liveCommand(
    folder,
    {
      site: [`${origin}/b/`],
      host: 'fallback',
      route: ['/b/harbours'],
      atOnce: '6',
      timeout: '2',
      deliveries: [{ format: formatNamed('json'), out: null }],
      cache: false,
      color: false,
      ...flags,
    },
    streams as never,
  )
  return { status, report: JSON.parse(out) as Report, err }
}

const codes = ({ report }: { report: Report }): string[] => report.findings.map(({ code }) => code).sort()
const app = 'assets/app-AbCdEf12.js'
const plain = (sending: Sending, body: string): void => {
  sending.body = body
  delete sending.headers['content-encoding']
}

describe('a sound host', () => {
  test('all has arrived, and nothing is found', async () => {
    const found = await live(await served(host(sound)))
    expect(codes(found)).toEqual([])
    expect(found.report.live).toMatchObject({ files: 5, asBuilt: 5, differing: [], routes: [] })
    expect(found.status).toBe(0)
  })
})

test.each<[string, string[], Fault, string]>([
  [
    'a file is missing',
    ['live/missing'],
    (path, sending) => {
      if (path === app) sending.status = 404
    },
    'assets/app-AbCdEf12.js is in the folder, and the address does not have it',
  ],
  [
    'a file is kept back',
    ['live/missing'],
    (path, sending) => {
      if (path === 'mark.svg') sending.status = 403
    },
    'mark.svg is answered with 403',
  ],
  [
    'a page in its place',
    ['live/page-instead'],
    (path, sending) => {
      if (path !== app) return
      sending.body = gzipSync(page)
      sending.headers['content-type'] = 'text/html'
    },
    'is answered with a page',
  ],
  [
    'other content, from a cache',
    ['live/old-content'],
    (path, sending) => {
      if (path !== app) return
      sending.body = gzipSync('old()')
      sending.headers.age = '86000'
      sending.headers['x-cache'] = 'HIT'
    },
    'age: 86000',
  ],
  [
    'a page that is another',
    ['live/old-content'],
    (path, sending) => {
      if (/^(?:index\.html|harbours)$/.test(path))
        sending.body = gzipSync(page.replace('AbCdEf12', 'ZyXwVu98').replace('Skerry', 'Old'))
    },
    'is answered with other content',
  ],
  [
    'a script that is put in',
    ['live/changed-on-way'],
    (path, sending) => {
      if (/^(?:index\.html|harbours)$/.test(path))
        sending.body = gzipSync(page.replace('</body>', '<script>track()</script></body>'))
    },
    'with something put in',
  ],
  [
    'blanks that are taken out',
    ['live/changed-on-way'],
    (path, sending) => {
      if (path === 'assets/app-AbCdEf12.css') sending.body = gzipSync('body{color:teal}')
    },
    'blanks taken out',
  ],
  [
    'a wrong type',
    ['live/wrong-type'],
    (path, sending) => {
      if (path === app) sending.headers['content-type'] = 'application/octet-stream'
    },
    'It comes as application/octet-stream, and not as text/javascript.',
  ],
  [
    'no compression',
    ['live/not-compressed'],
    (path, sending) => {
      if (path === app) plain(sending, script)
    },
    'bytes come as they are',
  ],
  [
    'pages that are kept',
    ['live/caching'],
    (_, sending) => {
      sending.headers['cache-control'] = 'max-age=31536000'
    },
    'Browsers keep it for 365 days.',
  ],
  [
    'hashed files that are not',
    ['live/hashed-not-kept'],
    (_, sending) => {
      sending.headers['cache-control'] = 'no-cache'
    },
    'Browsers keep it for 0 seconds.',
  ],
  [
    'a route without an answer',
    ['live/route-differs'],
    (path, sending) => {
      if (path === 'harbours') sending.status = 404
    },
    'It is answered with 404, and the host model said 200.',
  ],
  [
    'a policy',
    ['live/policy-blocks'],
    (_, sending) => {
      sending.headers['content-security-policy'] = "default-src 'self'; script-src https://cdn.example"
    },
    'script-src https://cdn.example',
  ],
  [
    'a policy that lets them run',
    [],
    (_, sending) => {
      sending.headers['content-security-policy'] = "script-src 'self' 'nonce-x'"
    },
    '',
  ],
  [
    'a connection that is broken off',
    ['live/no-answer'],
    (path, _, answer) => {
      if (path === 'mark.svg') answer.destroy()
    },
    'the connection was broken off',
  ],
])('%s is found by its name, and nothing else is', async (_, expected, fault, says) => {
  const found = await live(await served(host(fault)))
  expect(codes(found)).toEqual(expected)
  expect(JSON.stringify(found.report.findings)).toContain(says)
  const isHeld = found.report.findings.some(({ severity }) => severity === 'blocker')
  expect(found.status).toBe(isHeld ? 1 : 0)
})

test('old content is told from another where the release before is known', async () => {
  const before = folderWith({ ...files, [app]: 'before()' })
  const fault: Fault = (path, sending) => {
    if (path === app) sending.body = gzipSync('before()')
  }
  const { report } = await live(await served(host(fault)), { before })
  expect(report.live?.differing).toMatchObject([{ path: app, state: 'older' }])
  expect(JSON.stringify(report.findings)).toContain('The content of the release before came.')
})

test('it waits until all has arrived, and not longer', async () => {
  const since = Date.now()
  const late: Fault = (path, sending) => {
    if (path === app && Date.now() - since < 3_000) sending.status = 404
  }
  const found = await live(await served(host(late)), { wait: '30' })
  expect(found.err).toContain('1 not as built; looking again.')
  expect(codes(found)).toEqual([])
  expect(Date.now() - since).toBeLessThan(20_000)
})

test('a host that asks for patience gets it, and one at its limit is asked slowly', async () => {
  const times: number[] = []
  let refused = 0
  const busy: Fault = (path, sending) => {
    times.push(Date.now())
    if (path !== app || refused++ > 0) return
    sending.status = 503
    sending.headers['retry-after'] = '1'
  }
  const found = await live(await served(host(busy)), { perSecond: '20' })
  expect(codes(found)).toEqual([])
  expect(refused).toBe(2)
  expect((times.at(-1) ?? 0) - (times[0] ?? 0)).toBeGreaterThan(300)
})

test('credentials come from a variable, and are shown nowhere', async () => {
  const guarded: RequestListener = (request, answer) =>
    request.headers.authorization === 'Bearer s3cr3t-pr3view'
      ? host(sound)(request, answer)
      : answer.writeHead(401).end()
  const origin = await served(guarded)
  process.env.SKERRY_PREVIEW = 'Bearer s3cr3t-pr3view'
  const found = await live(origin, { credentials: 'SKERRY_PREVIEW' })
  expect(codes(found)).toEqual([])
  expect(JSON.stringify(found)).not.toContain('s3cr3t')
  delete process.env.SKERRY_PREVIEW
  await expect(live(origin, { credentials: 'SKERRY_PREVIEW' })).rejects.toThrow('holds no credentials')
})

test('credentials go to the origin of the site alone', async () => {
  const seen: [string | undefined, string | undefined][] = []
  const own = await served((request, answer) => {
    seen.push([request.headers.host, request.headers.authorization])
    answer.end('x')
  })
  const instead = new Map(
    ['https://skerryline.example', 'http://skerryline.example'].map((each) => [each, own] as const),
  )
  const authorization = { value: 'Bearer s3cr3t-pr3view', origin: 'https://skerryline.example' }
  const ask = liveAsker({ timeout: 2_000, perSecond: null, instead, authorization })
  await ask({ url: 'https://skerryline.example/b/', most: 10 })
  await ask({ url: 'http://skerryline.example/b/', most: 10 })
  expect(seen).toEqual([
    ['skerryline.example', 'Bearer s3cr3t-pr3view'],
    ['skerryline.example', undefined],
  ])
})

test('a machine behind the name is asked by that name', async () => {
  const names = new Set<string | undefined>()
  const origin = await served((request, answer) => {
    names.add(request.headers.host)
    host(sound)(request, answer)
  })
  const site = ['https://skerryline.example/b/']
  const found = await live(origin, { site, instead: [`https://skerryline.example=${origin}`] })
  expect(codes(found)).toEqual([])
  expect([...names]).toEqual(['skerryline.example'])
})

describe('the host as it is seen to answer', () => {
  const site = {
    ...files,
    'plain.html': page.replace('Skerry Line', 'Plain'),
    '404.html': page.replace('Skerry Line', 'Lost'),
    '_kept/x.js': '1',
    'data.json': '{}',
  }
  const written = async (fault: Fault, content = site): Promise<[Record<string, unknown>, number]> => {
    let asked = 0
    const counting: Fault = (path, sending, answer) => {
      asked++
      fault(path, sending, answer)
    }
    const folder = folderWith(content)
    const out = join(folder, '..', `host-${asked}-${Math.random().toString(36).slice(2)}.json`)
    await live(await served(host(counting, content)), { writeHost: out, route: [] }, folder)
    const text = readFileSync(out, 'utf8')
    parseHostFile('host.json', text)
    return [JSON.parse(text), asked]
  }

  test('a fallback, and types of its own', async () => {
    const [said, asked] = await written((path, sending) => {
      if (path === 'data.json') sending.headers['content-type'] = 'text/x-data'
    })
    expect(said).toMatchObject({ basedOn: 'files', fallback: { documents: ['index.html'], status: 200 } })
    expect(said.contentTypes).toMatchObject({ json: 'text/x-data' })
    expect(asked).toBeLessThan(40 + Object.keys(site).length + 5)
  })

  test('clean URLs, a page for what is not found, names that are kept back, letter case', async () => {
    const [said] = await written((path, sending) => {
      const name = path.toLowerCase()
      if (path === 'plain') sending.body = gzipSync(site['plain.html'])
      else if (path.startsWith('_')) sending.status = 403
      else if (name !== path && name in site) {
        sending.status = 200
        sending.body = gzipSync(site[name as keyof typeof site])
      } else if (!(path in site)) {
        sending.status = 404
        sending.body = gzipSync(site['404.html'])
      }
    })
    expect(said).toMatchObject({
      extensionless: true,
      notFound: { documents: ['404.html'], status: 404 },
      withheld: ['_'],
      letterCase: 'ignored',
    })
    expect(said.fallback).toBeUndefined()
  })
})

describe('servers that mean harm', () => {
  const at = async (raw: string | Buffer, then: 'end' | 'drip' | 'wait'): Promise<string> => {
    const server = createTcpServer((socket) => {
      socket.on('error', () => {})
      socket.once('data', () => {
        socket.write(raw)
        if (then === 'end') socket.end()
        const timer = then === 'drip' ? setInterval(() => socket.write('x'), 20) : undefined
        socket.on('close', () => clearInterval(timer))
      })
    })
    servers.push(server)
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  }
  const bomb = gzipSync(Buffer.alloc(200_000_000))
  test.each<[string, string | Buffer, 'end' | 'drip' | 'wait', string]>([
    [
      'a body without an end',
      'HTTP/1.1 200 OK\r\ncontent-type: text/html\r\n\r\n',
      'drip',
      'no answer within 0.5 seconds',
    ],
    ['no head', '', 'wait', 'no answer within 0.5 seconds'],
    ['a head that is not HTTP', 'hello\r\n\r\n', 'end', 'the connection failed'],
    ['less than it says', 'HTTP/1.1 200 OK\r\ncontent-length: 999\r\n\r\nx', 'end', ''],
    [
      'a body that unpacks to more than memory holds',
      Buffer.concat([
        Buffer.from(
          `HTTP/1.1 200 OK\r\ncontent-type: text/javascript\r\ncontent-encoding: gzip\r\ncontent-length: ${bomb.length}\r\n\r\n`,
        ),
        bomb,
      ]),
      'end',
      '',
    ],
    [
      'a body that can not be unpacked',
      'HTTP/1.1 200 OK\r\ncontent-encoding: gzip\r\ncontent-length: 3\r\n\r\nabc',
      'end',
      '',
    ],
  ])('%s ends in a sentence', async (_, raw, then, says) => {
    const folder = folderWith({ 'index.html': page })
    const { status, report } = await live(await at(raw, then), { timeout: '0.5', route: [] }, folder)
    expect(status).toBe(1)
    expect(report.live?.asBuilt).toBe(0)
    expect(JSON.stringify(report.live)).toContain(says)
    expect(process.memoryUsage().rss).toBeLessThan(1_500_000_000)
  })

  test('a redirect that goes round for ever, or away, is followed no further', async () => {
    const origin = await served(({ url }, answer) =>
      answer
        .writeHead(302, { location: url?.endsWith('.svg') ? 'https://other.example/' : '/b/index.html' })
        .end(),
    )
    const { report } = await live(origin)
    expect(report.live).toMatchObject({ files: 5, asBuilt: 0 })
  })
})

test.each<[string, Partial<LiveFlags>, string]>([
  ['no address', { site: [] }, '--site'],
  ['no number', { atOnce: 'many' }, '"many" is no number for --at-once. Write one up to 64'],
  ['no time', { wait: '-1' }, '--wait'],
  ['no rate', { perSecond: '0' }, '--per-second'],
  ['no other address', { instead: ['x'] }, '--instead'],
])('%s is one sentence', async (_, flags, says) => {
  await expect(live('http://127.0.0.1:1', flags)).rejects.toThrow(says)
})

describe.skipIf(!installed('nginx'))('nginx, and a cache in front of it', () => {
  const place = mkdtempSync(join(tmpdir(), 'wardoscope-live-'))
  const [origin, cached] = [19_410, 19_411]
  let running: Awaited<ReturnType<typeof nginx>> | null = null
  const put = (content: Readonly<Record<string, string>>): void => {
    for (const [path, text] of Object.entries(content)) {
      mkdirSync(dirname(join(place, 'www/b', path)), { recursive: true })
      writeFileSync(join(place, 'www/b', path), text)
    }
  }
  beforeAll(async () => {
    put({ ...files, 'index.html': page.replace('Skerry Line', 'The release before') })
    const location =
      'location /b/ { add_header Cache-Control no-cache; try_files $uri $uri/ /b/index.html; } location /b/assets/ { expires 1y; try_files $uri =404; }'
    running = await nginx(
      join(place, 'own'),
      origin,
      `include /etc/nginx/mime.types; gzip on; gzip_types text/css application/javascript image/svg+xml; gzip_proxied any;
proxy_cache_path ${place}/cache keys_zone=z:1m;
server { listen 127.0.0.1:${origin}; root ${place}/www; absolute_redirect off; ${location} }
server { listen 127.0.0.1:${cached}; location / { proxy_pass http://127.0.0.1:${origin}; proxy_set_header Accept-Encoding ""; proxy_cache z; proxy_ignore_headers Cache-Control Expires; proxy_cache_valid any 1h; add_header X-Cache $upstream_cache_status; } }`,
    )
    // A visitor fills the cache, and then the release goes out.
    execFileSync('node', ['-e', `fetch("http://127.0.0.1:${cached}/b/index.html")`])
    put(files)
  })
  afterAll(() => {
    running?.kill()
    rmSync(place, { recursive: true, force: true })
  })

  test('the server has it all', async () => {
    const found = await live(`http://127.0.0.1:${origin}`)
    expect(codes(found)).toEqual([])
  })

  test('the cache still has the page of before', async () => {
    const found = await live(`http://127.0.0.1:${cached}`, { route: [] })
    expect(codes(found)).toEqual(['live/old-content'])
    expect(JSON.stringify(found.report.findings)).toContain('x-cache: HIT')
  })
})

describe.skipIf(!installed('apache2'))('httpd', () => {
  const place = mkdtempSync(join(tmpdir(), 'wardoscope-live-httpd-'))
  const port = 19_415
  let running: ChildProcess | null = null
  const rules = `FallbackResource /b/index.html
AddType text/javascript .js
<FilesMatch "-[A-Za-z0-9]{8}\\.">
Header set Cache-Control "public, max-age=31536000, immutable"
</FilesMatch>
<FilesMatch "\\.html$">
Header set Cache-Control "no-cache"
</FilesMatch>
AddOutputFilterByType DEFLATE text/html text/css text/javascript image/svg+xml
`
  beforeAll(async () => {
    for (const [path, text] of Object.entries({ ...files, '.htaccess': rules })) {
      mkdirSync(dirname(join(place, 'www/b', path)), { recursive: true })
      writeFileSync(join(place, 'www/b', path), text)
    }
    const names = ['mpm_event', 'authz_core', 'alias', 'deflate', 'dir', 'filter', 'headers', 'mime']
    const modules = names
      .map((name) => `LoadModule ${name}_module /usr/lib/apache2/modules/mod_${name}.so`)
      .join('\n')
    const config = join(place, 'httpd.conf')
    writeFileSync(
      config,
      `ServerRoot "${place}"\nServerName 127.0.0.1\nListen 127.0.0.1:${port}\nPidFile ${place}/pid\nErrorLog ${place}/error.log\nDefaultRuntimeDir ${place}\n${modules}\nTypesConfig /etc/mime.types\nDocumentRoot ${place}/www\n<Directory ${place}/www>\nRequire all granted\nAllowOverride All\n</Directory>\n`,
    )
    running = spawn('apache2', ['-X', '-f', config], { stdio: 'inherit' })
    await untilUp(port)
  })
  afterAll(() => {
    running?.kill()
    rmSync(place, { recursive: true, force: true })
  })
  const folder = (): string => folderWith({ ...files, '.htaccess': rules })

  test('the server has it all, by the rules that the folder itself holds', async () => {
    const found = await live(`http://127.0.0.1:${port}`, { host: undefined } as never, folder())
    expect(codes(found)).toEqual([])
    expect(found.report.live).toMatchObject({ files: 5, asBuilt: 5 })
  })

  test('what goes away on it is missed, and what is put there instead is other content', async () => {
    rmSync(join(place, 'www/b/mark.svg'))
    writeFileSync(join(place, 'www/b', app), 'before()')
    const found = await live(`http://127.0.0.1:${port}`, { host: undefined } as never, folder())
    expect(codes(found)).toEqual(['live/old-content', 'live/page-instead'])
  })
})
