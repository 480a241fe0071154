import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Browser, BrowserContextOptions, Page } from 'playwright-core'
import { createServer as createDevelopment } from 'vite'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { violationsIn } from './support/accessibility.ts'
import { startBrowser } from './support/browser.ts'
import { wardoscope } from './support/cli.ts'
import { buildChecked, type ServedExample, serveExample } from './support/example.ts'
import { folderWith } from './support/folders.ts'

let browser: Browser
let example: ServedExample
let printed = ''

beforeAll(async () => {
  const at = { site: 'https://skerryline.example/tools/log/', host: 'files', hold: true }
  printed = buildChecked('release-log', at)
  example = await serveExample('release-log', '/tools/log/')
  browser = await startBrowser()
})
afterAll(async () => {
  await browser?.close()
  example?.close()
})

async function opened(options: BrowserContextOptions = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options })
  const page = await context.newPage()
  const trouble: string[] = []
  page.on('console', (message) => trouble.push(message.text()))
  page.on('pageerror', (error) => trouble.push(error.message))
  await page.goto(example.address)
  await page.getByRole('heading', { level: 1, name: 'Release log' }).waitFor()
  return { page, context, trouble }
}

async function withSample(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Show the releases of Skerry Line' }).click()
  await page.getByText('80 files taken.').waitFor()
}

async function give(page: Page, files: Readonly<Record<string, string>>): Promise<void> {
  await page.locator('input[type=file]').setInputFiles(
    Object.entries(files).map(([name, text]) => ({
      name,
      mimeType: 'application/json',
      buffer: Buffer.from(text),
    })),
  )
}

/** The report and the record of a build of the demo, as the program writes them. */
function filesOf(build: string, date: string): Record<string, string> {
  const record = join(folderWith({ a: '' }), 'record.json')
  const at = ['--site', 'https://skerryline.example/crossings/', '--host', 'fallback', '--no-cache']
  const { out } = wardoscope([`dist/demo/${build}`, ...at, '--format', 'json', '--record', record])
  return { [`${date}.report.json`]: out, [`${date}.record.json`]: readFileSync(record, 'utf8') }
}

describe('the page itself', () => {
  test('is clear by the plugin, and by the command, wherever it is put', () => {
    expect(printed).toMatch(
      /CLEAR {2}https:\/\/skerryline\.example\/tools\/log\/[\s\S]*0 blockers, 0 cautions/,
    )
    for (const at of ['https://skerryline.example/', 'https://skerryline.example/tools/log/']) {
      const { out, status } = wardoscope(['examples/release-log', '--site', at, '--host', 'files'])
      expect(out).toMatch(/^CLEAR[\s\S]*0 blockers, 0 cautions/)
      expect(status).toBe(0)
    }
  })

  test.each([
    ['light', 1280],
    ['dark', 820],
    ['light', 375],
  ] as const)('breaks no rule of accessibility, %s at %d', async (colorScheme, width) => {
    const { page, context, trouble } = await opened({ colorScheme, viewport: { width, height: 800 } })
    expect(await violationsIn(page)).toEqual([])
    await withSample(page)
    expect(await violationsIn(page)).toEqual([])
    expect(await page.evaluate('document.documentElement.scrollWidth - innerWidth')).toBeLessThanOrEqual(0)
    const inCards = `[...document.querySelectorAll('.place-for-files *, .timeline *')].filter((each) => each.getBoundingClientRect().right > innerWidth).length`
    expect(await page.evaluate(inCards)).toBe(0)
    expect(trouble).toEqual([])
    await context.close()
  })
})

test('its development server makes the releases when they are asked for', async () => {
  const server = await createDevelopment({
    root: 'examples/release-log',
    logLevel: 'silent',
    server: { port: 0 },
  })
  await server.listen()
  const [at = ''] = server.resolvedUrls?.local ?? []
  const names = (await (await fetch(`${at}sample/index.json`)).json()) as string[]
  expect(names).toHaveLength(80)
  const report = (await (await fetch(`${at}sample/${names[0]}`)).json()) as { schema: string }
  expect(report.schema).toBe('wardoscope-report/1')
  await server.close()
})

describe('releases over time', () => {
  test('two projects of forty releases, as plots with sentences, numbers and what came and went', async () => {
    const { page, context } = await opened()
    await withSample(page)
    await page.getByRole('radio', { name: 'crossings26' }).waitFor()
    await page.getByRole('radio', { name: 'harbour-board14' }).waitFor()
    const plots = page.locator('svg[role=img]')
    expect(await plots.count()).toBe(4)
    expect(await plots.first().getAttribute('aria-label')).toBe(
      'Verdicts. Held 4 of 26 times, the last time on 2026-08-16.',
    )
    expect(await page.locator('.timeline .crossed').count()).toBe(4)
    await page.getByRole('radio', { name: /^Held/ }).click()
    const rows = page.getByRole('table', { name: 'Releases' }).locator('tbody tr')
    expect(await rows.count()).toBe(4)
    expect(await rows.first().textContent()).toMatch(/^2026-08-16held10/)
    expect(await page.locator('.log-changes').textContent()).toContain(
      'New blocker The build requests its files under another path base/wrong-path',
    )
    await page.getByRole('radio', { name: /^harbour-board/ }).click()
    expect(await plots.first().getAttribute('aria-label')).toMatch(/^Verdicts\. Held 3 of 14 times/)
    await context.close()
  })

  test('are kept in this browser, and forgotten when told', async () => {
    const { page, context } = await opened()
    await withSample(page)
    await page.reload()
    await page.getByRole('radio', { name: 'harbour-board14' }).click()
    expect(page.url()).toContain('project=')
    await page.getByRole('button', { name: 'Forget harbour-board' }).click()
    await page.getByRole('radio', { name: 'harbour-board14' }).waitFor({ state: 'detached' })
    await page.reload()
    await page.getByRole('radio', { name: 'crossings26' }).waitFor()
    expect(await page.getByRole('radio', { name: /harbour-board/ }).count()).toBe(0)
    await context.close()
  })

  test('real files of the program; what is none is said, by name, and the others are taken', async () => {
    const { page, context } = await opened()
    await give(page, {
      ...filesOf('wrong-base', '2026-11-20'),
      ...filesOf('sound', '2026-11-27'),
      'notes.json': '{"a":1}',
      'cut.json': '{"schema": "wardoscope-rep',
      'hostile.json': JSON.stringify({ schema: 'wardoscope-record/1', verdict: 'clear', sites: ['x'] }),
    })
    await page.getByText('4 files taken.').waitFor()
    const said = await page.getByRole('status').first().textContent()
    expect(said).toContain('notes.json is neither a report (wardoscope-report/1) nor a record')
    expect(said).toContain('cut.json is not JSON. Was it cut off?')
    expect(said).toContain('hostile.json is no release record')
    expect(await page.locator('.log-changes').textContent()).toContain('Solved')
    await context.close()
  })

  test('by keyboard alone', async () => {
    const { page, context } = await opened()
    for (let step = 0; step < 12; step++) {
      await page.keyboard.press('Tab')
      if ((await page.evaluate('document.activeElement.textContent')) === 'Show the releases of Skerry Line')
        break
    }
    await page.keyboard.press('Enter')
    await page.getByText('80 files taken.').waitFor()
    await context.close()
  })
})
