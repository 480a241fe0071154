// Pictures of the desk page: empty, and with a build that is held. node scripts/shoot-desk.mjs <directory>
import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { extname, join, resolve } from 'node:path'
import { chromium } from 'playwright-core'

const out = process.argv[2]
const dist = new URL('../examples/folder-desk/dist/', import.meta.url)
const types = { '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css' }
const server = createServer(({ url }, response) => {
  const path = url === '/' ? 'index.html' : url.slice(1)
  response.writeHead(200, { 'content-type': types[extname(path)] ?? 'text/plain' })
  response.end(readFileSync(new URL(path, dist)))
}).listen(0)
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})

for (const [name, build] of [
  ['empty', null],
  ['held', 'wrong-base'],
]) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 900 } })
  await page.goto(`http://127.0.0.1:${server.address().port}/`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  if (build !== null) {
    await page.locator('input[type=file]').first().setInputFiles(resolve('dist/demo', build))
    await page.locator('.verdict').waitFor()
    await page.getByRole('radio', { name: 'fallback' }).check({ force: true })
    const address = 'https://skerryline.example/crossings/'
    await page.getByRole('textbox', { name: 'Site address' }).fill(address)
    await page.locator('.verdict-site', { hasText: address }).waitFor()
  }
  await page.waitForTimeout(300)
  await page.screenshot({ path: join(out, `desk-${name}.png`) })
}
await browser.close()
server.close()
