// Does the report stay smooth? A report with 10,000 places of one cause and 2,000 requests is opened in a real browser, its lists are
// scrolled from end to end, and the time between frames is reported. Run after: npm run build
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { chromium } from 'playwright-core'
import { bin } from './measure.mjs'

const folder = mkdtempSync(join(tmpdir(), 'wardoscope-bench-'))
const pictures = (from) =>
  Array.from({ length: 5_000 }, (_, i) => `<img src="/crossings/pics/${from + i}.png">`).join('\n')
writeFileSync(join(folder, 'index.html'), `<!doctype html>${pictures(0)}`)
writeFileSync(join(folder, 'more.html'), `<!doctype html>${pictures(5_000)}`)
const report = join(folder, '..', 'wardoscope-frames.html')
const site = 'https://skerryline.example/crossings/'
spawnSync('node', [bin, folder, '--site', site, '--no-cache', '--format', 'html', '--out', report])
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(pathToFileURL(report).href)
await page.locator('.node-trigger').first().click()
await tell('5,000 places of one file', page.locator('.places-many'))
await page.getByRole('tab', { name: /^Assets/ }).click()
await tell('a table of 2,000 requests', page.locator('.table-many'))
await browser.close()
rmSync(folder, { recursive: true })
rmSync(report)

/** Scrolls a list to its end in 300 steps, one a frame, and prints how long the frames took. */
async function tell(what, list) {
  await list.waitFor()
  const frames = await list.evaluate(async (element) => {
    const steps = 300
    const times = []
    for (let step = 0; step <= steps; step++) {
      element.scrollTop = (element.scrollHeight * step) / steps
      times.push(await new Promise(requestAnimationFrame))
    }
    return times.slice(1).map((time, index) => time - times[index])
  })
  const sorted = [...frames].sort((a, b) => a - b)
  const at = (share) => sorted[Math.floor((sorted.length - 1) * share)].toFixed(1)
  const long = frames.filter((each) => each > 50).length
  console.log(
    `${what}: ${frames.length} frames, half below ${at(0.5)} ms, 95 % below ${at(0.95)} ms, ${long} above 50 ms`,
  )
}
