// Pictures of the examples' pages: the desk with a build that is held, the log with the releases it comes with.
// node scripts/shoot-examples.mjs <directory> [desk|log]
import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { extname, join, resolve } from 'node:path'
import { chromium } from 'playwright-core'

const [out, only] = process.argv.slice(2)
const types = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.json': 'application/json',
}
const address = 'https://skerryline.example/crossings/'
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})

if (only !== 'log')
  await shoot('folder-desk', 'desk-held', 900, async (page) => {
    await page.locator('input[type=file]').first().setInputFiles(resolve('dist/demo/wrong-base'))
    await page.locator('.verdict').waitFor()
    await page.getByRole('radio', { name: 'fallback' }).check({ force: true })
    await page.getByRole('textbox', { name: 'Site address' }).fill(address)
    await page.locator('.verdict-site', { hasText: address }).waitFor()
  })
if (only !== 'desk')
  await shoot('release-log', 'release-log', 800, async (page) => {
    await page.getByRole('button', { name: 'Show the releases of Skerry Line' }).click()
    await page.getByText('files taken').waitFor()
  })
await browser.close()

/** Serves an example's build and takes a picture of its page after what is done there. */
async function shoot(example, name, height, act) {
  const dist = new URL(`../examples/${example}/dist/`, import.meta.url)
  const server = createServer(({ url }, response) => {
    const path = url === '/' ? 'index.html' : url.slice(1)
    response.writeHead(200, { 'content-type': types[extname(path)] ?? 'text/plain' })
    response.end(readFileSync(new URL(path, dist)))
  }).listen(0)
  const page = await browser.newPage({ viewport: { width: 1280, height } })
  await page.goto(`http://127.0.0.1:${server.address().port}/`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await act(page)
  await page.waitForTimeout(300)
  await page.screenshot({ path: join(out, `${name}.png`) })
  await page.close()
  server.close()
}
