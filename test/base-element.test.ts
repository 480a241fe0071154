import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readFile } from '../src/core/output/read-file.ts'
import { baseAt } from '../src/core/requests/addresses.ts'
import { startBrowser } from './support/browser.ts'

/** What a page's `<base href>` may hold, and what its script is then asked at. */
const written = [
  'javascript:void 0',
  'java\nscript:1',
  'data:text/html,x',
  'about:blank',
  'https://other.example/x/',
  '//other.example/',
  'http://[',
  '',
  '  /b/  ',
  '\\\\c\\\\',
  '/c',
  'ftp://x/',
  'mailto:x',
  '?x',
  '#y',
  'http:c/',
  '/c/\n',
]

let browser: Awaited<ReturnType<typeof startBrowser>>
let held = ''
/** In place of the page with a base. */
let served: string | null = null
const reading = { names: [], values: [], paths: [], traces: [], secrets: [] }
const pageWith = (base: string): string =>
  `<!doctype html><base href="${base}"><script src="app.js"></script>`
const server = createServer((request, response) => {
  const isPage = request.url === '/b/'
  response.writeHead(200, { 'content-type': isPage ? 'text/html' : 'text/javascript' })
  response.end(isPage ? (served ?? pageWith(held)) : '')
})

beforeAll(async () => {
  browser = await startBrowser()
  await new Promise<void>((resolve) => server.listen(0, resolve))
})

afterAll(async () => {
  await browser.close()
  server.closeAllConnections()
  server.close()
})

test.each(written)('<base href=%j> leads where Chromium goes', async (base) => {
  held = base
  const address = `http://localhost:${(server.address() as AddressInfo).port}/b/`
  const page = await browser.newPage()
  const asked: string[] = []
  page.on('request', (request) => {
    if (request.url() !== address) asked.push(request.url())
  })
  await page.goto(address, { waitUntil: 'domcontentloaded' })
  await page.close()
  const { baseHref } = readFile('index.html', new TextEncoder().encode(pageWith(base)), reading)
  const start = baseAt({ baseHref }, address)
  expect(asked).toEqual(URL.canParse('app.js', start) ? [new URL('app.js', start).href] : [])
})

/** Documents in an attribute of a page at `/b/`: what their script is asked at. */
test.each([
  ['no base', '', 'app.js'],
  ['a path', '/c/', 'app.js'],
  ['a step', 'd/', 'app.js'],
  ['a step without a slash', 'd', 'app.js'],
  ['another origin', 'https://other.example/x/', 'app.js'],
  ['another origin, a path of it', 'https://other.example/x/', '/app.js'],
  ['an origin without its scheme', '//other.example/x/', 'app.js'],
  ['a path of its own', '/c/', '/app.js'],
  ['a scheme from which nothing starts', 'data:text/html,x', 'app.js'],
])('a document in srcdoc with %s starts where Chromium starts', async (_, base, script) => {
  const inner = `${base === '' ? '' : `<base href='${base}'>`}<script src='${script}'></script>`
  const whole = `<!doctype html><iframe srcdoc="${inner}"></iframe>`
  served = whole
  const address = `http://localhost:${(server.address() as AddressInfo).port}/b/`
  const page = await browser.newPage()
  const asked: string[] = []
  page.on('request', (request) => {
    if (!['document', 'iframe'].includes(request.resourceType())) asked.push(request.url())
  })
  await page.goto(address, { waitUntil: 'load' })
  await page.close()
  served = null
  const { references } = readFile('index.html', new TextEncoder().encode(whole), reading)
  const urls = [...references]
    .filter(({ kind }) => kind === 'script')
    .map(({ raw }) => new URL(raw, address).href)
  // A browser that looks ahead may ask for it at the page too, before it sees the base.
  expect(urls).toEqual(asked.slice(-1))
})
