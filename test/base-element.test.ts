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
const pageWith = (base: string): string =>
  `<!doctype html><base href="${base}"><script src="app.js"></script>`
const server = createServer((request, response) => {
  const isPage = request.url === '/b/'
  response.writeHead(200, { 'content-type': isPage ? 'text/html' : 'text/javascript' })
  response.end(isPage ? pageWith(held) : '')
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
  const { baseHref } = readFile('index.html', new TextEncoder().encode(pageWith(base)), {
    names: [],
    values: [],
    paths: [],
    traces: [],
    secrets: [],
  })
  const start = baseAt({ baseHref }, address)
  expect(asked).toEqual(URL.canParse('app.js', start) ? [new URL('app.js', start).href] : [])
})
