// Does the desk page stay awake? A folder of 5,000 files and 100 MB is dropped on it in a real browser, and the browser's own
// long-task entries are reported: each is time in which the page did not answer. Run after: npm run build -w folder-desk
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { chromium } from 'playwright-core'

const dist = new URL('../examples/folder-desk/dist/', import.meta.url)
const types = { '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css' }
const folder = mkdtempSync(join(tmpdir(), 'wardoscope-bench-'))
const code = Array.from(
  { length: 16_000 },
  (_, i) => `export const v${i}={id:${i},name:"harbour ${i}",path:"/crossings/h/${i}"};`,
).join('\n')
mkdirSync(join(folder, 'assets'))
for (let i = 0; i < 85; i++) writeFileSync(join(folder, `assets/chunk-${i}.js`), code)
for (let i = 0; i < 4_915; i++) {
  const directory = join(folder, `h/${i % 50}`)
  mkdirSync(directory, { recursive: true })
  const page = `<!doctype html><script type=module src="/crossings/assets/chunk-${i % 85}.js"></script><img src="/crossings/pics/${i}.png">`
  writeFileSync(join(directory, i === 0 ? 'index.html' : `p${i}.html`), page)
}

const server = createServer((request, response) => {
  const path = request.url === '/' ? 'index.html' : request.url.slice(1)
  response.writeHead(200, { 'content-type': types[extname(path)] ?? 'text/plain' })
  response.end(readFileSync(new URL(path, dist)))
}).listen(0)
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})
const page = await browser.newPage()
await page.addInitScript(() => {
  globalThis.longTasks = []
  new PerformanceObserver((list) => {
    for (const { startTime, duration } of list.getEntries()) globalThis.longTasks.push([startTime, duration])
  }).observe({ type: 'longtask', buffered: true })
})
await page.goto(`http://127.0.0.1:${server.address().port}/`)
const box = await page.locator('.place-for-folder').boundingBox()
const client = await page.context().newCDPSession(page)
const data = { items: [], files: [folder], dragOperationsMask: 1 }
const started = performance.now()
for (const type of ['dragEnter', 'dragOver', 'drop']) {
  await client.send('Input.dispatchDragEvent', { type, x: box.x + 60, y: box.y + 80, data })
}
await page.locator('.verdict').waitFor({ timeout: 120_000 })
const seconds = (performance.now() - started) / 1_000
const tasks = await page.evaluate(() => globalThis.longTasks)
console.log(`5,000 files and 100 MB judged in ${seconds.toFixed(1)} s`)
console.log(
  `long tasks (50 ms and more): ${tasks.map(([, duration]) => `${Math.round(duration)} ms`).join(', ') || 'none'}`,
)
await browser.close()
server.close()
rmSync(folder, { recursive: true })
