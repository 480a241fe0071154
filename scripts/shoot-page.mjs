// A picture of one part of an HTML report. node scripts/shoot-page.mjs <report.html> <picture.png> [part] [width] [scheme]
import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { chromium } from 'playwright-core'

const [report, picture, part = 'causes', width = '1280', colorScheme = 'light'] = process.argv.slice(2)
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: Number(width), height: 800 }, colorScheme })
await page.goto(`${pathToFileURL(resolve(report)).href}#${part}`)
await page.getByRole('heading', { level: 2 }).first().waitFor()
await page.waitForTimeout(300)
await page.screenshot({ path: picture })
await browser.close()
