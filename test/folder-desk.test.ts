import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { zipSync } from 'fflate'
import type { Browser, BrowserContextOptions, Page } from 'playwright-core'
import { build, createServer as createDevelopment } from 'vite'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Report } from '../src/core/model/report.ts'
import { violationsIn } from './support/accessibility.ts'
import { startBrowser } from './support/browser.ts'
import { wardoscope } from './support/cli.ts'
import { buildExample, type ServedExample, serveExample } from './support/example.ts'
import { folderWith, linkPackages } from './support/folders.ts'

const desk = 'examples/folder-desk'
const site = 'https://skerryline.example/crossings/'
const place = mkdtempSync(join(tmpdir(), 'wardoscope-desk-'))
let browser: Browser
let example: ServedExample
let address = ''

beforeAll(async () => {
  buildExample('folder-desk')
  example = await serveExample('folder-desk', '/tools/desk/')
  address = example.address
  browser = await startBrowser()
})
afterAll(async () => {
  await browser?.close()
  example?.close()
  rmSync(place, { recursive: true, force: true })
})

async function opened(options: BrowserContextOptions = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options })
  const page = await context.newPage()
  const trouble: string[] = []
  page.on('console', (message) => trouble.push(message.text()))
  page.on('pageerror', (error) => trouble.push(error.message))
  await page.goto(address)
  await page.getByRole('heading', { level: 1, name: 'Folder desk' }).waitFor()
  return { page, context, trouble }
}

const nowPlace = (page: Page) => page.locator('.place-for-folder').first()

async function put(page: Page, path: string, where = nowPlace(page), zip = false): Promise<void> {
  await where
    .locator('input[type=file]')
    .nth(zip ? 1 : 0)
    .setInputFiles(path)
}

async function judgedAt(page: Page, at: string, host: string): Promise<void> {
  await page.getByRole('radio', { name: host }).check({ force: true })
  await page.getByRole('textbox', { name: 'Site address' }).fill(at)
  await page.locator('.verdict-site', { hasText: at }).waitFor()
}

interface Reported {
  readonly code: string
  readonly severity: string
  readonly title: string
  readonly impact: string
  readonly count: string
  readonly source: string | null
  readonly steps: readonly string[]
}

/** Every finding that the page shows. */
async function reportedBy(page: Page): Promise<Reported[]> {
  const closed = page.locator('.cause-trigger[aria-expanded=false]')
  while ((await closed.count()) > 0) await closed.first().click()
  const reported: Reported[] = []
  for (const cause of await page.locator('.cause').all()) {
    const text = async (selector: string): Promise<string> =>
      (await cause.locator(selector).first().textContent()) ?? ''
    const source = cause.locator('.lines figcaption').first()
    reported.push({
      code: await text('.cause-code'),
      severity: await text('.severity'),
      title: await text('.cause-title'),
      impact: await text('.cause-impact'),
      count: (await text('.cause-count')).replace(/\D/g, ''),
      source: (await source.count()) > 0 ? ((await source.textContent()) ?? '').replace(/:\d+$/, '') : null,
      steps: await cause.locator('.steps li').allTextContents(),
    })
  }
  return reported.sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1))
}

/** The same, of the command line. */
function reportedByCommand(folder: string, host: string): Reported[] {
  const { out, err } = wardoscope(
    [folder, '--site', site, '--host', host, '--format', 'json', '--no-cache'],
    place,
  )
  expect(err).toBe('')
  const { findings } = JSON.parse(out) as Report
  return findings
    .map(({ code, severity, title, impact, count, source, fix }) => ({
      code,
      severity,
      title,
      impact,
      count: String(count),
      source: source && `${source.file}:${source.line}`,
      steps: fix.steps,
    }))
    .sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1))
}

/** A folder beside the others, under a name of its own. */
function placed(from: string, name: string): string {
  cpSync(from, join(place, name), { recursive: true })
  return join(place, name)
}

async function corpusBuild(name: string, change: (root: string) => void = () => {}): Promise<string> {
  const root = join(place, name)
  cpSync(join('corpus', name, 'project'), root, { recursive: true })
  linkPackages(root)
  change(root)
  await build({ root, logLevel: 'silent' })
  rmSync(join(root, 'node_modules'))
  return root
}

describe('the page itself', () => {
  test("is clear by Wardoscope's own check, wherever it is put", () => {
    for (const at of ['https://skerryline.example/', 'https://skerryline.example/tools/desk/']) {
      const { out, status } = wardoscope([desk, '--site', at, '--host', 'files'])
      expect(out).toMatch(/^CLEAR[\s\S]*0 blockers, 0 cautions/)
      expect(status).toBe(0)
    }
  })

  test.each(['light', 'dark'] as const)(
    'breaks no rule of accessibility, %s, empty and with a folder on it',
    async (colorScheme) => {
      const { page, context, trouble } = await opened({ colorScheme })
      expect(await violationsIn(page)).toEqual([])
      await put(page, placed('dist/demo/wrong-base', `wrong-base-${colorScheme}`))
      await page.getByRole('heading', { name: 'Held' }).waitFor()
      expect(await violationsIn(page)).toEqual([])
      await page.setViewportSize({ width: 380, height: 800 })
      expect(await violationsIn(page)).toEqual([])
      const [wide, room] = await page.evaluate<number[]>('[document.documentElement.scrollWidth, innerWidth]')
      expect(wide).toBeLessThanOrEqual(room ?? 0)
      expect(trouble).toEqual([])
      await context.close()
    },
  )
})

describe('the same findings as the command line, one by one', () => {
  test.each([
    ['sound', 'fallback'],
    ['wrong-base', 'fallback'],
    ['environment-absent', 'fallback'],
    ['endpoint-left', 'fallback'],
    ['file-removed', 'files'],
  ])('the demo %s, its project and its build folder alone', async (name, host) => {
    const { page, context } = await opened()
    const project = placed(join('dist/demo', name), name)
    await put(page, project)
    await page.locator('.verdict').waitFor()
    await judgedAt(page, site, host)
    expect(await reportedBy(page)).toEqual(reportedByCommand(name, host))
    const bare = placed(join('dist/demo', name, 'dist'), `${name}-build`)
    await put(page, bare)
    await page.locator('.verdict-quiet', { hasText: `${name}-build:` }).waitFor()
    expect(await reportedBy(page)).toEqual(reportedByCommand(`${name}-build`, host))
    await context.close()
  })

  test.each([
    ['vite-vue', 'base: "/elsewhere/",'],
    ['vite-svelte', ''],
    ['vite-pages', ''],
    ['vite-react', ''],
  ])('a real build of %s', async (name, base) => {
    await corpusBuild(name, (root) => {
      const file = join(root, 'vite.config.js')
      const text = readFileSync(file, 'utf8')
      if (base !== '') writeFileSync(file, text.replace("base: '/crossings/',", base))
      writeFileSync(
        join(root, 'src/api.js'),
        'export const sailings = () => fetch("http://localhost:8787/v1").then((r) => r.json())',
      )
    })
    const { page, context } = await opened()
    await put(page, join(place, name))
    await page.locator('.verdict').waitFor()
    await judgedAt(page, site, 'fallback')
    const reported = await reportedBy(page)
    expect(reported).toEqual(reportedByCommand(name, 'fallback'))
    expect(reported.some(({ code }) => code === 'endpoint/loopback')).toBe(true)
    await context.close()
  })

  test('a zip, as a folder was packed', async () => {
    const root = 'dist/demo/wrong-base/dist'
    const files = readdirSync(root, { recursive: true, withFileTypes: true }).filter((entry) =>
      entry.isFile(),
    )
    const packed = Object.fromEntries(
      files.map((entry) => {
        const path = join(entry.parentPath, entry.name)
        return [`site/${relative(root, path)}`, new Uint8Array(readFileSync(path))]
      }),
    )
    writeFileSync(join(place, 'site.zip'), zipSync(packed))
    placed(root, 'site.zip.folder')
    const { page, context } = await opened()
    await put(page, join(place, 'site.zip'), nowPlace(page), true)
    await page.locator('.verdict').waitFor()
    await judgedAt(page, site, 'fallback')
    const named = (reported: readonly Reported[]): string =>
      JSON.stringify(reported).replaceAll('site.zip.folder', 'site.zip')
    expect(named(await reportedBy(page))).toBe(named(reportedByCommand('site.zip.folder', 'fallback')))
    await context.close()
  })
})

describe('nothing leaves the page', () => {
  test('no request is made for whatever is put on it, and none can be', async () => {
    const { page, context, trouble } = await opened()
    await page.waitForLoadState('networkidle')
    const before = example.requested.length
    const requested: string[] = []
    context.on('request', (request) => requested.push(request.url()))
    await put(page, placed('dist/demo/endpoint-left', 'leaving'))
    await page.locator('.verdict').waitFor()
    await judgedAt(page, site, 'fallback')
    for (const tab of await page.getByRole('tab').all()) await tab.click()
    expect(requested.filter((url) => !/^(?:blob|data):/.test(url))).toEqual([])
    expect(example.requested.length).toBe(before)
    expect(trouble).toEqual([])
    const tried = `fetch(${JSON.stringify(`${address}out`)}, { method: 'POST', body: 'x' }).then(() => 'sent', () => 'refused')`
    expect(await page.evaluate(tried)).toBe('refused')
    const [worker] = page.workers()
    expect(await worker?.evaluate(tried)).toBe('refused')
    expect(example.requested.some((url) => url.includes('out'))).toBe(false)
    await context.close()
  })
})

describe('a folder of 8,000 files', () => {
  test('is read with progress, is stopped, and read again', async () => {
    const home = folderWith({ 'site/index.html': '<!doctype html><title>Skerry Line</title>' })
    for (let area = 0; area < 40; area++) {
      mkdirSync(join(home, 'site', `area-${area}`))
      for (let i = 0; i < 200; i++)
        writeFileSync(
          join(home, 'site', `area-${area}`, `${i}.html`),
          `<!doctype html><a href="../index.html">${i}</a>`,
        )
    }
    const { page, context, trouble } = await opened()
    // The page begins before the list of files is passed on as a whole.
    const putting = put(page, join(home, 'site'))
    await page.getByText(/^Collecting site: [\d,]+ files?$/).waitFor({ timeout: 120_000 })
    await putting
    const progress = page.getByRole('progressbar', { name: 'Reading site' })
    const share = async (): Promise<number> => Number(await progress.getAttribute('aria-valuenow'))
    await expect.poll(share, { timeout: 60_000 }).toBeGreaterThan(0)
    await page.getByRole('button', { name: 'Stop' }).click()
    await progress.waitFor({ state: 'detached' })
    expect(await page.getByText('Drop a build folder, a project').isVisible()).toBe(true)
    // Nothing of it comes afterwards.
    await page.waitForTimeout(1_000)
    expect(await page.locator('.verdict').count()).toBe(0)
    expect(await page.getByRole('progressbar').count()).toBe(0)
    await put(page, join(home, 'site'))
    await page.locator('.verdict-quiet', { hasText: '8,001 files' }).waitFor({ timeout: 120_000 })
    expect(trouble).toEqual([])
    await context.close()
  })
})

describe('at the desk', () => {
  test('routes that nobody knows are said, and named there', async () => {
    const { page, context } = await opened()
    const script = '<!doctype html><title>x</title><script type="module" src="/app.js"></script>'
    await put(page, folderWith({ 'index.html': script, 'app.js': 'document.body.append(1)' }))
    const said = page.locator('.verdict-quiet', { hasText: 'The routes of this application are not known' })
    await said.waitFor()
    await page.getByRole('radio', { name: 'fallback' }).check({ force: true })
    await page.getByRole('textbox', { name: 'Routes visitors open' }).fill('/tickets/new')
    await page.getByRole('tab', { name: /^Routes 2/ }).waitFor()
    await said.waitFor({ state: 'detached' })
    await context.close()
  })

  test('nothing is kept when the page is closed, and fixes are there to copy', async () => {
    const { page, context } = await opened()
    await put(page, placed('dist/demo/wrong-base', 'copying'))
    await page.locator('.verdict').waitFor()
    await judgedAt(page, site, 'fallback')
    await page.getByRole('button', { name: 'Copy the change in vite.config.ts' }).waitFor()
    const kept =
      await page.evaluate(`Promise.all([indexedDB.databases(), caches.keys(), navigator.serviceWorker?.getRegistrations()])
      .then((found) => found.flat().length + localStorage.length + sessionStorage.length + document.cookie.length)`)
    expect(kept).toBe(0)
    await page.reload()
    await page.getByText('Drop a build folder, a project').waitFor()
    expect(await page.locator('.verdict').count()).toBe(0)
    await context.close()
  })

  test('another preset and another address change the verdict without reading again', async () => {
    const { page, context } = await opened()
    await put(page, placed('dist/demo/sound', 'turning'))
    await page.locator('.verdict').waitFor()
    await page.evaluate(`new MutationObserver(() => {
      if (document.querySelector('[role=progressbar]')) globalThis.readAgain = true
    }).observe(document.body, { childList: true, subtree: true })`)
    const word = page.locator('.verdict-heading')
    await judgedAt(page, site, 'fallback')
    await expect.poll(() => word.textContent()).toBe('Clear')
    await judgedAt(page, 'https://skerryline.example/', 'fallback')
    await expect.poll(() => word.textContent()).toBe('Held')
    await judgedAt(page, site, 'files')
    await expect.poll(() => page.locator('.cause-code').allTextContents()).toContain('route/no-answer')
    expect(await page.evaluate('globalThis.readAgain')).toBeUndefined()
    await context.close()
  })

  test('an address that is none is reported, and the folder stays', async () => {
    const { page, context } = await opened()
    await put(page, placed('dist/demo/sound', 'addressed'))
    await page.locator('.verdict').waitFor()
    await page.getByRole('textbox', { name: 'Site address' }).fill('skerryline')
    await page.getByText('is no http or https URL').waitFor()
    expect(await page.locator('.verdict').count()).toBe(1)
    await context.close()
  })

  test('a proposal of the project is taken as the address', async () => {
    const { page, context } = await opened()
    const project = folderWith({
      'package.json': '{"name":"a","scripts":{"build":"astro build"},"devDependencies":{"astro":"5.0.0"}}',
      'astro.config.mjs': "export default { site: 'https://docs.skerryline.example' }",
      'dist/index.html': '<!doctype html><title>Skerry Line</title>',
    })
    await put(page, project)
    await page.locator('.verdict-site', { hasText: 'https://docs.skerryline.example/' }).waitFor()
    await context.close()
  })

  test('the folder from before, beside the one of now, is compared with it', async () => {
    const { page, context } = await opened()
    await put(page, placed('dist/demo/environment-absent', 'release'))
    await page.locator('.verdict').waitFor()
    await judgedAt(page, site, 'fallback')
    await put(page, placed('dist/demo/sound', 'release-before'), page.locator('.place-for-folder').nth(1))
    await page.getByRole('tab', { name: /^Changes/ }).click()
    const listed = await page.getByRole('group', { name: 'Paths to purge' }).textContent()
    const options = ['--site', site, '--host', 'fallback', '--print', 'purge']
    expect(listed).toBe(wardoscope(['compare', 'release-before', 'release', ...options], place).out.trimEnd())
    await page.getByRole('button', { name: 'Take away' }).nth(1).click()
    await expect.poll(() => page.getByRole('tab', { name: /^Changes/ }).count()).toBe(0)
    await context.close()
  })

  test.each<[string, () => string, boolean, string]>([
    [
      'a folder without a page',
      () => folderWith({ 'notes/a.txt': 'x' }),
      false,
      'is neither a project nor a build folder',
    ],
    [
      'a file that is no zip',
      () => join(folderWith({ 'x.zip': 'no archive' }), 'x.zip'),
      true,
      'x.zip is no zip archive that can be read',
    ],
    ['a broken manifest', () => folderWith({ 'package.json': '{', 'index.html': '' }), false, 'package.json'],
  ])('%s gets one sentence, and the desk goes on', async (_, make, zip, message) => {
    const { page, context, trouble } = await opened()
    await put(page, make(), nowPlace(page), zip)
    const alert = page.getByRole('alert')
    await alert.waitFor()
    expect(await alert.textContent()).toContain(message)
    await put(page, placed('dist/demo/sound', `after-${message.length}`))
    await page.locator('.verdict').waitFor()
    expect(trouble).toEqual([])
    await context.close()
  })

  test('a folder that is dropped is read as one that is picked', async () => {
    const { page, context } = await opened()
    const box = await nowPlace(page).boundingBox()
    const client = await context.newCDPSession(page)
    const files = [placed('dist/demo/wrong-base', 'dropped')]
    const data = { items: [], files, dragOperationsMask: 1 }
    for (const type of ['dragEnter', 'dragOver', 'drop'] as const) {
      await client.send('Input.dispatchDragEvent', {
        type,
        x: (box?.x ?? 0) + 60,
        y: (box?.y ?? 0) + 80,
        data,
      })
    }
    await page.locator('.verdict').waitFor()
    expect(await page.locator('.place-read').textContent()).toMatch(/dropped18 files/)
    await context.close()
  })
})

test('the desk of the development server looks at folders too', async () => {
  const development = await createDevelopment({
    root: desk,
    configFile: join(desk, 'vite.config.ts'),
    cacheDir: join(place, 'vite-cache'),
    logLevel: 'silent',
    mode: 'development',
    server: { port: 0, host: '127.0.0.1' },
  })
  try {
    await development.listen()
    const listening = development.httpServer?.address()
    const port = typeof listening === 'object' ? listening?.port : null
    const page = await browser.newPage()
    const trouble: string[] = []
    page.on('pageerror', (error) => trouble.push(error.message))
    page.on('console', (message) => {
      if (message.type() === 'error') trouble.push(message.text())
    })
    await page.goto(`http://127.0.0.1:${port}/`)
    await page.getByRole('heading', { level: 1, name: 'Folder desk' }).waitFor()
    // Styles are in: without them the place for a folder has no border.
    const border = await nowPlace(page).evaluate(
      (element: { computedStyleMap(): { get(name: string): unknown } }) =>
        String(element.computedStyleMap().get('border-top-style')),
    )
    expect(border).not.toBe('none')
    await put(page, placed('dist/demo/wrong-base/dist', 'developed'))
    await judgedAt(page, site, 'fallback')
    expect((await reportedBy(page)).map(({ code }) => code)).toEqual(['base/wrong-path'])
    expect(trouble).toEqual([])
    await page.close()
  } finally {
    await development.close()
  }
})
