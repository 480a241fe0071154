import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type RehearseFlags, rehearseCommand } from '../src/cli/commands/rehearse.ts'
import type { Host } from '../src/core/host/host.ts'
import { presetNamed } from '../src/core/host/presets.ts'
import { walk } from '../src/core/model/folder.ts'
import type { Report } from '../src/core/model/report.ts'
import { parseSite } from '../src/core/model/site.ts'
import { formatNamed } from '../src/core/report/formats/index.ts'
import { FolderIndex } from '../src/core/requests/folder-index.ts'
import { DiskFolder } from '../src/node/disk-folder.ts'
import { type HostServer, startHost } from '../src/rehearse/host-server.ts'
import type { Stage } from '../src/rehearse/respond.ts'
import { StandInBook } from '../src/rehearse/stand-in-book.ts'
import { hasBrowser } from './support/browser.ts'
import { folderWith } from './support/folders.ts'

const site = 'https://skerryline.example/crossings/'

async function stageOf(root: string, host = 'fallback', more: Partial<Host> = {}): Promise<Stage> {
  const folder = await DiskFolder.open(root)
  const paths: { path: string }[] = []
  for await (const path of walk(folder)) paths.push({ path })
  const preset = presetNamed(host)
  if (!preset) throw new Error(`no preset ${host}`)
  return { host: { ...preset, ...more }, site: parseSite(site), files: new FolderIndex(paths), folder }
}

describe('the host that is played', () => {
  const script = `console.log("${'ferry '.repeat(400)}")`
  let server: HostServer
  let plain: HostServer
  beforeAll(async () => {
    const root = folderWith({
      'index.html': '<!doctype html><title>Skerry Line</title>',
      'assets/app.js': script,
      'about/index.html': 'about',
      'mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
      'name with space.txt': 'x',
    })
    server = await startHost(await stageOf(root), { port: 0, listen: '127.0.0.1' })
    plain = await startHost(await stageOf(root, 'files'), { port: 0, listen: '127.0.0.1' })
  })
  afterAll(async () => {
    await server.close()
    await plain.close()
  })

  const ask = (path: string, init: RequestInit = {}, at = server): Promise<Response> =>
    fetch(at.origin + path, { redirect: 'manual', ...init })

  test.each<[string, number, string | null]>([
    ['/crossings/', 200, 'text/html; charset=utf-8'],
    ['/crossings/assets/app.js', 200, 'text/javascript; charset=utf-8'],
    ['/crossings/mark.svg', 200, 'image/svg+xml'],
    ['/crossings/name%20with%20space.txt', 200, 'text/plain; charset=utf-8'],
    ['/crossings/sailings/hl-0710', 200, 'text/html; charset=utf-8'],
    ['/crossings/assets/gone.js', 200, 'text/html; charset=utf-8'],
    ['/elsewhere', 404, 'text/plain'],
  ])('%s is answered %i', async (path, status, type) => {
    const answer = await ask(path)
    expect(answer.status).toBe(status)
    expect(answer.headers.get('content-type')?.replace(/;.*/, '')).toBe(type?.replace(/;.*/, ''))
  })

  test('a directory and the base path without their slash are sent on, to this server', async () => {
    for (const path of ['/crossings/about', '/crossings']) {
      const answer = await ask(path)
      expect([answer.status, answer.headers.get('location')]).toEqual([301, `${path}/`])
    }
  })

  test('the top of the host names the path of the site', async () => {
    const answer = await ask('/')
    expect(answer.status).toBe(404)
    expect(await answer.text()).toContain('The site is at <a href="/crossings/">/crossings/</a>')
  })

  test('plain files have no fallback', async () => {
    expect((await ask('/crossings/sailings', {}, plain)).status).toBe(404)
  })

  test('the same file again is not sent again', async () => {
    const etag = (await ask('/crossings/mark.svg')).headers.get('etag') ?? ''
    expect(etag).toMatch(/^"[\w-]{20,}"$/)
    const again = await ask('/crossings/mark.svg', { headers: { 'if-none-match': `"other", W/${etag}` } })
    expect([again.status, await again.text()]).toEqual([304, ''])
    expect((await ask('/crossings/mark.svg', { headers: { 'if-none-match': '"other"' } })).status).toBe(200)
  })

  test.each<[string, number, string | null, string]>([
    ['bytes=0-4', 206, 'bytes 0-4/', 'conso'],
    ['bytes=-3', 206, null, ' ")'],
    ['bytes=999999-', 416, 'bytes */', ''],
    ['bytes=5-2', 416, 'bytes */', ''],
    ['lines=1-2', 200, null, script],
    ['bytes=0-1,4-5', 200, null, script],
  ])('the range %s', async (range, status, place, body) => {
    const answer = await ask('/crossings/assets/app.js', { headers: { range } })
    expect(answer.status).toBe(status)
    if (place) expect(answer.headers.get('content-range')).toContain(place)
    expect(await answer.text()).toBe(body)
  })

  test('HEAD has the headers and no body, other methods are refused', async () => {
    const head = await ask('/crossings/assets/app.js', { method: 'HEAD' })
    expect([head.status, head.headers.get('content-type'), await head.text()]).toMatchObject([
      200,
      expect.stringContaining('javascript'),
      '',
    ])
    const post = await ask('/crossings/', { method: 'POST', body: 'x' })
    expect([post.status, post.headers.get('allow')]).toEqual([405, 'GET, HEAD'])
  })

  test.each(['br', 'gzip'])(
    'texts are packed with %s, pictures and small files are not',
    async (encoding) => {
      const headers = { 'accept-encoding': encoding }
      const answer = await ask('/crossings/assets/app.js', { headers })
      expect(answer.headers.get('content-encoding')).toBe(encoding)
      expect(await answer.text()).toBe(script)
      expect((await ask('/crossings/about/', { headers })).headers.get('content-encoding')).toBeNull()
    },
  )
})

describe('nothing outside the folder is served', () => {
  let server: HostServer
  beforeAll(async () => {
    const above = mkdtempSync(join(tmpdir(), 'wardoscope-above-'))
    writeFileSync(join(above, 'secret.txt'), 'the secret of it')
    const root = folderWith({ 'index.html': 'the entry page', 'a.txt': 'x' })
    symlinkSync(join(above, 'secret.txt'), join(root, 'link.txt'))
    symlinkSync(above, join(root, 'linked'))
    server = await startHost(await stageOf(root, 'files'), { port: 0, listen: '127.0.0.1' })
  })
  afterAll(() => server.close())

  /** What comes back on a bare socket: no client tidies the path. */
  function raw(target: string): Promise<string> {
    return new Promise((resolve) => {
      let text = ''
      const socket = connect(Number(new URL(server.origin).port), '127.0.0.1', () =>
        socket.write(`GET ${target} HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n\r\n`, 'latin1'),
      )
      socket.setEncoding('latin1').on('data', (part) => (text += part))
      socket.on('close', () => resolve(text))
      socket.on('error', () => resolve(text))
    })
  }

  test.each([
    '/crossings/../../secret.txt',
    '/crossings/..%2f..%2fsecret.txt',
    '/crossings/%2e%2e/%2e%2e/secret.txt',
    '/crossings/%252e%252e/secret.txt',
    '/crossings/..\\..\\secret.txt',
    '/crossings/..%5c..%5csecret.txt',
    '/crossings/a.txt%00.html',
    '/crossings/link.txt',
    '/crossings/linked/secret.txt',
    '/crossings//etc/passwd',
    '//etc/passwd',
    '/crossings/%',
    '/crossings/%ff%fe',
    'http://other.test/crossings/../secret.txt',
    '*',
    `/crossings/${'a/'.repeat(5_000)}`,
    `/crossings/${'a'.repeat(40_000)}`,
  ])('%.60s', async (target) => {
    const text = await raw(target)
    expect(text).toMatch(/^HTTP\/1\.1 (?:400|404) /)
    expect(text).not.toContain('secret of it')
  })

  test('what is requested rightly still comes', async () => {
    expect(await raw('/crossings/a.txt')).toMatch(/^HTTP\/1\.1 200 /)
  })
})

async function rehearsed(
  files: Readonly<Record<string, string>>,
  flags: Partial<RehearseFlags> = {},
): Promise<Report & { status: number; root: string }> {
  let out = ''
  const streams = { out: { write: (text: string) => (out += text) }, err: { write: () => true } }
  const root = folderWith(files)
  const all: RehearseFlags = {
    site: [site],
    host: 'fallback',
    pageTime: '15',
    time: '120',
    port: '0',
    listen: '127.0.0.1',
    deliveries: [{ format: formatNamed('json'), out: null }],
    cache: false,
    color: false,
    width: ['1280'],
    ...flags,
  }
  const status = await rehearseCommand(root, all, streams as never)
  return { ...JSON.parse(out), status, root }
}

const page = (head: string, body = '<div id="app"></div>'): string =>
  `<!doctype html><html><head><title>Skerry Line</title>${head}</head><body>${body}</body></html>`
const script = (src = '/crossings/assets/app-AbCdEf12.js'): string =>
  `<script type="module" src="${src}"></script>`
const draws = 'document.querySelector("#app").textContent="Sailings today";'
const codes = ({ findings }: Report): string[] =>
  findings.map(({ code, severity, seen }) => `${code} ${severity} ${seen.join('+')}`)

describe('visits by requests', () => {
  test.each(['files', 'fallback', 'error-page', 'clean-urls'])(
    'answers are as predicted, with the rules %s',
    async (host) => {
      const report = await rehearsed(
        {
          'index.html': page(`${script()}<link rel="stylesheet" href="/crossings/a.css">`),
          'about.html': page(script()),
          'deep/index.html': page('<base href="/crossings/">'.concat('<script src="deep/x.js"></script>')),
          '404.html': page(''),
          'deep/x.js': '1',
          'a.css': '@import "b.css";',
          'b.css': 'p{background:url(gone.png)}',
          'assets/app-AbCdEf12.js': 'import"./other-AbCdEf12.js"',
        },
        { host, route: ['/sailings', '/deep', '/about'] },
      )
      expect(report.rehearsal?.differences).toEqual([])
      expect(report.rehearsal?.visits.length).toBeGreaterThanOrEqual(4)
      expect(report.rehearsal?.visits[0]?.requests).toBeGreaterThan(3)
    },
  )

  test('a build that is not there is one sentence', async () => {
    const files = {
      'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'vite.config.js': 'export default {}',
    }
    await expect(rehearsed(files)).rejects.toThrow('There is no build folder to serve')
  })

  test('a port that is taken, and numbers that are none', async () => {
    const files = { 'index.html': page('') }
    await expect(rehearsed(files, { port: '70000' })).rejects.toThrow('--port')
    const server = await startHost(await stageOf(folderWith(files)), { port: 0, listen: '127.0.0.1' })
    await expect(rehearsed(files, { port: new URL(server.origin).port })).rejects.toThrow('EADDRINUSE')
    await server.close()
  })
})

describe('a host that is played among strangers', () => {
  test('a directory that becomes a link out of the folder is served no more', async () => {
    const outside = folderWith({ 'secret.txt': 'outside' })
    const root = folderWith({ 'index.html': 'x', 'data/secret.txt': 'inside' })
    const server = await startHost(await stageOf(root, 'files'), { port: 0, listen: '127.0.0.1' })
    const ask = async () => (await fetch(`${server.origin}/crossings/data/secret.txt`)).text()
    expect(await ask()).toBe('inside')
    rmSync(join(root, 'data'), { recursive: true })
    symlinkSync(outside, join(root, 'data'))
    expect(await ask()).not.toContain('outside')
    await server.close()
  })

  const raw = (origin: string, text: string, mayEnd = true): Promise<string> =>
    new Promise((resolve) => {
      const { port } = new URL(origin)
      let got = ''
      const socket = connect(Number(port), '127.0.0.1', () => socket.write(text))
      socket.setEncoding('utf8').on('data', (part) => {
        got += part
        if (!mayEnd) socket.pause()
      })
      socket.on('close', () => resolve(got)).on('error', () => resolve(got))
    })

  test('only names that it was told answer', async () => {
    const server = await startHost(await stageOf(folderWith({ 'index.html': 'x' })), {
      port: 0,
      listen: '127.0.0.1',
    })
    const at = (host: string) =>
      raw(server.origin, `GET /crossings/ HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`)
    for (const host of ['127.0.0.1:80', 'localhost', 'skerryline.example', '[::1]:5190', 'a.localhost:1'])
      expect(await at(host)).toMatch(/^HTTP\/1\.1 200/)
    for (const host of ['stranger.test', 'localhost.stranger.test', 'x:y:z'])
      expect(await at(host)).toMatch(/^HTTP\/1\.1 4(?:21|00)/)
    await server.close()
  })

  test('answers that nobody takes wait for their turn, and too many end the connection', async () => {
    const big = 'x'.repeat(2_000_000)
    const root = folderWith({ 'index.html': 'x', 'big.bin': big })
    const stage = await stageOf(root, 'files')
    let read = 0
    const { readNow } = stage.folder
    const folder = {
      ...stage.folder,
      readNow: (path: string, most?: number) => {
        read++
        return (readNow as NonNullable<typeof readNow>).call(stage.folder, path, most)
      },
    }
    const server = await startHost({ ...stage, folder }, { port: 0, listen: '127.0.0.1' })
    const one = 'GET /crossings/big.bin HTTP/1.1\r\nHost: localhost\r\n\r\n'
    await raw(server.origin, one.repeat(1_000), false)
    expect(read).toBeLessThan(10)
    const still = await fetch(`${server.origin}/crossings/`)
    expect(still.status).toBe(200)
    await server.close()
  })

  test('a body that goes on for ever is not waited for', async () => {
    const server = await startHost(await stageOf(folderWith({ 'index.html': 'x' })), {
      port: 0,
      listen: '127.0.0.1',
    })
    const head = 'POST /crossings/ HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\n\r\n'
    expect(await raw(server.origin, `${head}5\r\nhello\r\n`)).toMatch(/^HTTP\/1\.1 405/)
    await server.close()
  })
})

test('answers for services are read from a file that says them', () => {
  const book = StandInBook.parse('answers.json', '{"https://api.skerryline.example":{"/v1/sailings":[1]}}')
  const requested = (method: string, url: string) =>
    book.answer(method, new URL(url), 'https://skerryline.example')
  expect(requested('GET', 'https://api.skerryline.example/v1/sailings?day=1')).toMatchObject({
    status: 200,
    body: '[1]',
  })
  expect(requested('OPTIONS', 'https://api.skerryline.example/v1/sailings')).toMatchObject({ status: 204 })
  expect(requested('GET', 'https://api.skerryline.example/v2')).toMatchObject({ status: 404 })
  expect(requested('GET', 'https://other.example/v1/sailings')).toBeNull()
  for (const text of ['{', '[]', '{"api":{}}', '{"https://a.example":{"v1":1}}']) {
    expect(() => StandInBook.parse('answers.json', text)).toThrow('answers.json does not say')
  }
})

describe.skipIf(!hasBrowser)('visits in a browser', { timeout: 60_000 }, () => {
  const project = (source: string): Record<string, string> => ({
    'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js':
      "export default { base: '/crossings/', server: { proxy: { '/crossings/api': 'http://localhost:8787' } } }",
    'src/api.js': source,
    'dist/index.html': page(script()),
  })

  test('a sound build shows nothing wrong, at three widths, with pictures and an archive', async () => {
    const kept = mkdtempSync(join(tmpdir(), 'wardoscope-kept-'))
    const report = await rehearsed(
      {
        'index.html': page(script()),
        'assets/app-AbCdEf12.js': `${draws}document.body.innerHTML+='<a href="/crossings/harb'+'ours/holm">Holm</a>'`,
      },
      {
        width: ['390', '820', '1280'],
        browser: true,
        route: ['/sailings'],
        shots: join(kept, 'shots'),
        har: join(kept, 'x.har'),
      },
    )
    expect(codes(report)).toEqual([])
    expect(report.status).toBe(0)
    expect(
      report.rehearsal?.visits.map(({ route, width, status, blank }) => [route, width, status, blank]),
    ).toHaveLength(7)
    expect(
      report.rehearsal?.visits.every(
        ({ blank, errors, failed }) => !blank && errors.length + failed.length === 0,
      ),
    ).toBe(true)
    expect(report.rehearsal?.linked).toEqual(['/crossings/harbours/holm'])
    expect(readdirSync(join(kept, 'shots')).sort()).toContain('crossings-sailings-390.png')
    expect(readFileSync(join(kept, 'shots/crossings-1280.png')).subarray(1, 4).toString()).toBe('PNG')
    const { log } = JSON.parse(readFileSync(join(kept, 'x.har'), 'utf8'))
    expect([log.version, log.pages.length]).toEqual(['1.2', 7])
    expect(
      log.entries.find(({ request }: { request: { url: string } }) =>
        request.url.endsWith('app-AbCdEf12.js'),
      ),
    ).toMatchObject({
      request: { method: 'GET', queryString: [] },
      response: { status: 200 },
      timings: { send: 0 },
    })
  })

  test('a relative base at a nested route', async () => {
    const report = await rehearsed(
      { 'index.html': page(script('./assets/app-AbCdEf12.js')), 'assets/app-AbCdEf12.js': draws },
      { browser: true, host: 'error-page', route: ['/sailings/hl-0710'] },
    )
    expect(codes(report)).toContain('base/relative-at-depth blocker check+rehearsal')
    expect(codes(report).filter((code) => code.startsWith('run/'))).toEqual([])
  })

  test('a fallback that answers a script with the entry page', async () => {
    const report = await rehearsed({ 'index.html': page(script()) }, { browser: true })
    expect(codes(report)).toEqual(['asset/answered-with-page blocker check+rehearsal'])
    expect(report.rehearsal?.visits[0]).toMatchObject({
      blank: true,
      failed: [{ reason: 'the browser refused its content type' }],
    })
  })

  test('a start that fails for want of a variable', async () => {
    const report = await rehearsed(
      {
        ...project('fetch(`${import.meta.env.VITE_API}/v1/list`)'),
        'dist/assets/app-AbCdEf12.js': 'fetch(`undefined/v1/list`).then(e=>e.json()).then(e=>e.map(String))',
      },
      { browser: true },
    )
    expect(codes(report)).toEqual(['env/absent blocker check+rehearsal'])
    expect(report.rehearsal?.visits[0]?.errors[0]?.text).toContain('JSON')
  })

  test('a path that only the development server forwards', async () => {
    const call = 'fetch("/crossings/api/sailings")'
    const report = await rehearsed(
      { ...project(call), 'dist/assets/app-AbCdEf12.js': `${draws}${call}` },
      { browser: true },
    )
    expect(codes(report)).toEqual(['endpoint/proxy-only blocker check+rehearsal'])
    expect(report.rehearsal?.visits[0]?.failed).toMatchObject([
      { status: 200, reason: 'the entry page came in its place' },
    ])
  })

  test("the developer's machine is not requested, and the finding says that it was seen both ways", async () => {
    const call = 'fetch("http://localhost:8787/v1").catch(()=>{})'
    const report = await rehearsed(
      { ...project(call), 'dist/assets/app-AbCdEf12.js': `${draws}${call}` },
      { browser: true },
    )
    expect(codes(report)).toEqual(['endpoint/loopback blocker check+rehearsal'])
    expect(report.rehearsal?.visits[0]?.left).toEqual([
      { url: 'http://localhost:8787/v1', method: 'GET', outcome: 'not sent' },
    ])
  })

  test.each<[string, string, string, string]>([
    [
      'an error with its place',
      `${draws}\nconst list=undefined;\nlist.map(String)`,
      'run/page-error blocker rehearsal',
      'reading',
    ],
    ['a page that stays blank', 'document.title="x"', 'run/blank-page blocker rehearsal', 'stayed empty'],
    [
      'a complaint on the console',
      `${draws}console.error("Timetable is empty")`,
      'run/console-error caution rehearsal',
      'Timetable is empty',
    ],
    [
      'a request that is put together',
      `${draws}fetch(["/crossings","data",new Date().getFullYear()+".json"].join("/")).catch(()=>{})`,
      'run/request-failed blocker rehearsal',
      '/crossings/data/',
    ],
  ])('%s', async (_, code, expected, says) => {
    const report = await rehearsed(
      { 'index.html': page(script()), 'assets/app-AbCdEf12.js': code },
      { browser: true, host: 'files' },
    )
    expect(codes(report)).toEqual([expected])
    expect(JSON.stringify(report.findings)).toContain(says)
    if (expected.includes('page-error')) {
      expect(report.findings[0]?.places[0]).toMatchObject({ file: 'assets/app-AbCdEf12.js', line: 3 })
    }
  })

  test('services answered from a file, sockets and workers', async () => {
    const code = `${draws}fetch("https://api.skerryline.example/v1/sailings",{headers:{authorization:"x"}}).then(e=>e.json()).then(e=>document.body.append(e[0]));new WebSocket("wss://live.skerryline.example/");navigator.serviceWorker.register("/crossings/sw.js").catch(()=>{})`
    const answers = join(mkdtempSync(join(tmpdir(), 'wardoscope-answers-')), 'answers.json')
    writeFileSync(answers, '{"https://api.skerryline.example":{"/v1/sailings":["07:10"]}}')
    const report = await rehearsed(
      { 'index.html': page(script()), 'assets/app-AbCdEf12.js': code, 'sw.js': '' },
      { browser: true, answers },
    )
    expect(codes(report)).toEqual([])
    const [visit] = report.rehearsal?.visits ?? []
    expect([...(visit?.left ?? [])].sort((a, b) => (a.url < b.url ? -1 : 1))).toEqual([
      {
        url: 'https://api.skerryline.example/v1/sailings',
        method: 'GET',
        outcome: 'answered by the stand-in',
      },
      { url: 'wss://live.skerryline.example/', method: 'WebSocket', outcome: 'not sent' },
    ])
    expect(visit?.worker).toBe('https://skerryline.example/crossings/sw.js')
    expect(visit?.errors).toEqual([])
  })

  test('redirects of the own site are followed, and a page is where it ends up', async () => {
    const code = `${draws}fetch('/crossings/old.json').then(e=>e.json()).then(e=>document.body.append(e.name))`
    const report = await rehearsed(
      {
        'index.html': page(script()),
        'assets/app-AbCdEf12.js': code,
        'harbours/index.html': '<!doctype html><title>h</title><h1>Harbours</h1><img src="ferry.svg" alt="">',
        'harbours/ferry.svg': '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>',
        'new.json': '{"name":"Holm"}',
        rules: '/crossings/old.json /crossings/new.json 301\n',
      },
      { browser: true, host: 'files', route: ['/harbours'] },
    )
    expect(report.rehearsal?.visits.map(({ route, status }) => [route, status])).toContainEqual([
      '/crossings/harbours',
      200,
    ])
    expect(report.rehearsal?.visits.flatMap(({ failed, errors }) => [...failed, ...errors])).toEqual([])
    expect(codes(report)).toEqual([])
  })

  test('an address that holds undefined, put together as the page runs', async () => {
    const code = `${draws}fetch('/crossings/'+globalThis['no'+'where']+'/v1').catch(()=>{})`
    const report = await rehearsed(
      { 'index.html': page(script()), 'assets/app-AbCdEf12.js': code },
      { browser: true, host: 'files' },
    )
    expect(codes(report)).toEqual(['run/request-failed blocker rehearsal'])
    expect(report.findings[0]).toMatchObject({ title: 'A page requests an address that holds undefined' })
    expect(report.findings[0]?.fix.steps[0]).toContain('set its variable where the build runs')
  })

  test('a path that only a drawn link leads to, on a host that does not know it', async () => {
    const code = `${draws}document.body.innerHTML+='<a href="/crossings/harb'+'ours/holm">Holm</a>'`
    const report = await rehearsed(
      { 'index.html': page(script()), 'assets/app-AbCdEf12.js': code },
      { browser: true, host: 'files' },
    )
    expect(report.rehearsal?.linked).toEqual(['/crossings/harbours/holm'])
    expect(report.rehearsal?.visits.find(({ route }) => route === '/crossings/harbours/holm')?.status).toBe(
      404,
    )
    expect(codes(report)).toEqual([expect.stringMatching(/^route\//)])
    expect(JSON.stringify(report.findings)).toContain('/crossings/harbours/holm')
  })

  test('a worker whose script is not there', async () => {
    const code = `${draws}navigator.serviceWorker.register("/crossings/sw.js").catch(()=>{})`
    const report = await rehearsed(
      { 'index.html': page(script()), 'assets/app-AbCdEf12.js': code },
      { browser: true, host: 'files' },
    )
    expect(report.rehearsal?.visits[0]?.failed).toMatchObject([
      { status: 404, reason: "the service worker's script does not arrive" },
    ])
    expect(codes(report)).toEqual([expect.stringMatching(/^(?:asset\/missing|run\/request-failed) /)])
  })

  test('an error of a script whose address is not well encoded', async () => {
    const code = `${draws}console.error(Object.assign(new Error("x"),{stack:""}));const s=document.createElement("script");s.src="/crossings/%ff.js";document.head.append(s)`
    const report = await rehearsed(
      { 'index.html': page(script()), 'assets/app-AbCdEf12.js': code },
      { browser: true, host: 'files' },
    )
    expect(report.rehearsal?.visits[0]?.failed).toMatchObject([
      { url: 'https://skerryline.example/crossings/%ff.js', status: 400 },
    ])
  })

  test('a page wider than a phone', async () => {
    const report = await rehearsed(
      { 'index.html': page('', '<p style="width:900px">wide</p>') },
      { browser: true, width: ['390', '1280'] },
    )
    expect(report.rehearsal?.visits.map(({ width, overflows }) => [width, overflows])).toEqual([
      [390, true],
      [1280, false],
    ])
  })

  test('a browser that is not there is one sentence', async () => {
    await expect(rehearsed({ 'index.html': page('') }, { browser: '/nowhere/browser' })).rejects.toThrow(
      'There is no browser at /nowhere/browser',
    )
  })

  test('an interrupt ends the program and leaves no browser behind', async () => {
    const root = folderWith({ 'index.html': page('', '<p>x</p><script>for(;;);</script>') })
    const words = [
      join(import.meta.dirname, '../dist/cli/bin.cjs'),
      'rehearse',
      root,
      '--site',
      site,
      '--browser',
      '--no-cache',
    ]
    const child = spawn('node', words, { stdio: 'ignore' })
    let children: number[] = []
    for (let tries = 0; children.length < 3 && tries < 100; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 200))
      children = descendants(child.pid ?? 0)
    }
    expect(children.length).toBeGreaterThan(2)
    const ended = new Promise((resolve) => child.on('exit', resolve))
    child.kill('SIGINT')
    expect(await ended).toBe(3)
    await new Promise((resolve) => setTimeout(resolve, 500))
    expect(children.filter(isAlive)).toEqual([])
  })
})

/** Processes below one, as Linux tells them. */
function descendants(pid: number): number[] {
  const parents = new Map<number, number>()
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue
    try {
      const fields = readFileSync(`/proc/${name}/stat`, 'utf8')
        .replace(/^.*\) /, '')
        .split(' ')
      parents.set(Number(name), Number(fields[1]))
    } catch {
      // It ended while we looked.
    }
  }
  const below = (at: number): number[] =>
    [...parents].flatMap(([child, parent]) => (parent === at ? [child, ...below(child)] : []))
  return below(pid)
}

function isAlive(pid: number): boolean {
  try {
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return false
  }
}
