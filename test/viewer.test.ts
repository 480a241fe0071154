import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Browser, BrowserContextOptions, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { shortenedApart } from '../viewer/src/parts/shortened.ts'
import { violationsIn } from './support/accessibility.ts'
import { startBrowser } from './support/browser.ts'
import { wardoscope } from './support/cli.ts'
import { folderWith, linkPackages } from './support/folders.ts'

const site = 'https://skerryline.example/crossings/'
const demo = 'dist/demo'

let browser: Browser
beforeAll(async () => {
  browser = await startBrowser()
})
afterAll(() => browser?.close())

/** Writes the report of a folder as one page, with the real program. */
function htmlOf(folder: string, ...options: readonly string[]): string {
  const file = join(mkdtempSync(join(tmpdir(), 'report-')), 'report.html')
  const sites = options.includes('--site') ? [] : ['--site', site]
  const { err } = wardoscope([
    'check',
    folder,
    ...sites,
    '--no-cache',
    '--host',
    'fallback',
    ...options,
    '--format',
    'html',
    '--out',
    file,
  ])
  expect(err).toContain(file)
  return file
}

/** A page from disk, with all that it requested, complained of, or was forbidden. */
async function opened(file: string, options: BrowserContextOptions = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options })
  const page = await context.newPage()
  const trouble: string[] = []
  const requested: string[] = []
  page.on('console', (message) => trouble.push(message.text()))
  page.on('pageerror', (error) => trouble.push(error.message))
  page.on('dialog', (dialog) => {
    trouble.push(`dialog ${dialog.message()}`)
    void dialog.dismiss()
  })
  page.on('request', (request) => requested.push(request.url()))
  await page.addInitScript(
    `document.addEventListener('securitypolicyviolation', (event) => console.error('policy: ' + event.violatedDirective + ' ' + event.blockedURI))`,
  )
  await page.goto(pathToFileURL(file).href)
  await page.getByRole('heading', { level: 1 }).waitFor()
  return { page, context, trouble, requested: () => requested.filter((url) => !url.startsWith('file:')) }
}

/** Opens every cause that is closed. */
async function openAll(page: Page): Promise<void> {
  const closed = page.locator('.cause-trigger[aria-expanded=false]')
  while ((await closed.count()) > 0) await closed.first().click()
}

describe('the report as one page', () => {
  test('is one file from disk, small, that asks nobody and breaks no policy of its own', async () => {
    const file = htmlOf(`${demo}/wrong-base`)
    expect(statSync(file).size).toBeLessThan(1_000_000)
    const text = readFileSync(file, 'utf8')
    expect(text).toContain("default-src 'none'")
    expect(text).not.toMatch(/unsafe-inline|unsafe-eval/)
    const { page, trouble, requested, context } = await opened(file)
    for (const tab of await page.getByRole('tab').all()) await tab.click()
    expect(await page.getByRole('heading', { level: 1 }).textContent()).toBe('Held')
    expect(trouble).toEqual([])
    expect(requested()).toEqual([])
    await context.close()
  })

  test('a person finds the cause, follows it to the source line, and copies the fix', async () => {
    const file = htmlOf(`${demo}/wrong-base`)
    const { page, context } = await opened(file)
    await context.grantPermissions(['clipboard-read', 'clipboard-write'])
    const trigger = page.getByRole('button', { name: /blocker.*files under another path/ })
    expect(await trigger.getAttribute('aria-expanded')).toBe('true')
    const cause = page.locator('.cause').first()
    expect(await cause.locator('.cause-impact').textContent()).toContain('do not arrive (404)')
    expect(await cause.locator('.exchange').textContent()).toContain('answered 404')
    const lines = cause.getByRole('group', { name: 'Lines of vite.config.ts' })
    expect(await lines.locator('mark').textContent()).toContain('defineConfig({')
    expect(await cause.locator('.lines figcaption').textContent()).toMatch(/^vite\.config\.ts:\d+/)
    const copy = cause.getByRole('button', { name: 'Copy the change in vite.config.ts' })
    await copy.click()
    await page.getByRole('button', { name: 'Copied' }).waitFor()
    expect(await page.evaluate('navigator.clipboard.readText()')).toBe("  base: '/crossings/',")
    expect(await cause.locator('.excerpt mark').first().textContent()).toMatch(/^\/assets\/index-/)
    await context.close()
  })

  test('the same by keyboard alone', async () => {
    const { page, context } = await opened(htmlOf(`${demo}/wrong-base`))
    const focused = () => page.evaluate<string>('document.activeElement.textContent')
    for (let step = 0; step < 12 && !(await focused()).startsWith('Causes'); step++) {
      await page.keyboard.press('Tab')
    }
    expect(await focused()).toMatch(/^Causes/)
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    expect(await page.getByRole('tab', { selected: true }).textContent()).toMatch(/^Map/)
    expect(page.url()).toMatch(/#map$/)
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('Enter')
    for (let step = 0; step < 12 && !(await focused()).startsWith('blocker'); step++) {
      await page.keyboard.press('Tab')
    }
    await page.keyboard.press('Enter')
    const trigger = page.getByRole('button', { name: /^blocker/ }).first()
    expect(await trigger.getAttribute('aria-expanded')).toBe('false')
    await page.keyboard.press('Enter')
    expect(await trigger.getAttribute('aria-expanded')).toBe('true')
    await context.close()
  })

  test('the address keeps what is searched, filtered and sorted, for a link and a reload', async () => {
    const file = htmlOf(`${demo}/no-fallback`, '--host', 'files', '--route', '/crossings/sailings/42')
    const { page, context } = await opened(file)
    await page.getByRole('tab', { name: /^Routes/ }).click()
    await page.getByRole('radio', { name: /^Failing/ }).click()
    await page.getByRole('searchbox', { name: 'Search routes' }).fill('sail')
    await page.getByRole('button', { name: /^Route/ }).click()
    await page.getByRole('button', { name: /^Route/ }).click()
    expect(page.url()).toMatch(/#routes\?show=failing&search=sail&sort=-path$/)
    const texts = () => page.getByRole('row').allTextContents()
    const before = await texts()
    await page.reload()
    await page.getByRole('tab', { name: /^Routes/, selected: true }).waitFor()
    expect(await texts()).toEqual(before)
    expect(await page.getByRole('searchbox', { name: 'Search routes' }).inputValue()).toBe('sail')
    await page.getByRole('radio', { name: /^All/ }).click()
    await page.getByRole('searchbox', { name: 'Search routes' }).fill('')
    expect(page.url()).toMatch(/#routes\?sort=-path$/)
    await page.getByRole('tab', { name: /^Survey/ }).click()
    expect(page.url()).toMatch(/#survey$/)
    await context.close()
  })

  test('all projects of a repository have a table of their own', async () => {
    const vite = (name: string): string =>
      `{"name":"${name}","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}`
    const home = folderWith({
      'package.json': '{"name":"skerry","private":true,"workspaces":["apps/*"]}',
      'apps/site/package.json': vite('site'),
      'apps/site/dist/index.html': '<!doctype html><title>x</title><script src="/gone.js"></script>',
      'apps/desk/package.json': vite('desk'),
      'apps/desk/dist/index.html': '<!doctype html><title>x</title>',
    })
    const file = join(home, 'report.html')
    wardoscope(['--all', home, '--no-cache', '--format', 'html', '--out', file])
    const { page, context, trouble } = await opened(file)
    await page.getByRole('tab', { name: /^Projects/ }).click()
    const rows = page.getByRole('row')
    expect(await rows.nth(1).textContent()).toMatch(/^apps\/deskclear00\/npm run build, dist$/)
    expect(await rows.nth(2).textContent()).toMatch(/^apps\/siteheld10/)
    expect(await violationsIn(page)).toEqual([])
    expect(trouble).toEqual([])
    await page.setViewportSize({ width: 375, height: 700 })
    expect(await page.evaluate('document.documentElement.scrollWidth')).toBeLessThanOrEqual(375)
    await context.close()
  })

  test('routes are filtered to those that fail, searched and sorted', async () => {
    const file = htmlOf(`${demo}/no-fallback`, '--host', 'files', '--route', '/crossings/sailings/42')
    const { page, context } = await opened(file)
    await page.getByRole('tab', { name: /^Routes/ }).click()
    const rows = page.getByRole('row')
    const all = await rows.count()
    await page.getByRole('radio', { name: /^Failing/ }).click()
    const failing = await rows.count()
    expect(failing).toBeLessThan(all)
    expect(failing).toBeGreaterThan(1)
    for (const row of (await rows.all()).slice(1)) expect(await row.textContent()).toContain('404')
    await page.getByRole('searchbox', { name: 'Search routes' }).fill('sailings 42')
    await expect.poll(() => rows.count()).toBe(2)
    await page.getByRole('searchbox', { name: 'Search routes' }).fill('zzz')
    await page.getByText('Nothing matches.').waitFor()
    await page.getByRole('button', { name: 'Clear the search' }).click()
    await page.getByRole('radio', { name: /^All/ }).click()
    await page.getByRole('columnheader', { name: 'Status' }).click()
    const statuses = async () =>
      Promise.all((await rows.all()).slice(1).map((row) => row.getByRole('cell').first().textContent()))
    const ascending = await statuses()
    expect(ascending).toEqual([...ascending].sort())
    await page.getByRole('columnheader', { name: 'Status' }).click()
    expect(await statuses()).toEqual([...ascending].sort().reverse())
    await context.close()
  })

  test('the plot has a bar for each kind of file, and another measure changes it', async () => {
    const { page, context } = await opened(htmlOf(`${demo}/sound`))
    expect(await page.getByRole('heading', { level: 1 }).textContent()).toBe('Clear')
    await page.getByRole('tab', { name: 'Weight' }).click()
    const plot = page.getByRole('img', { name: /First visits by kind of file/ })
    const script = plot.locator('rect.kind-script title')
    const compressed = await script.textContent()
    expect(compressed).toMatch(/^script: \d+ kB$/)
    await page.getByRole('radio', { name: 'uncompressed' }).click()
    await expect.poll(() => script.textContent()).not.toBe(compressed)
    await context.close()
  })

  test('several addresses stand side by side, each with what it needs', async () => {
    const file = htmlOf(`${demo}/sound`, '--site', site, '--site', 'https://www.skerryline.example/')
    const { page, context } = await opened(file)
    await page.getByRole('tab', { name: /^Addresses/ }).click()
    expect(await page.locator('.address-clear h3').allTextContents()).toEqual([site])
    expect(await page.locator('.address-held').textContent()).toMatch(/www\.skerryline.*base: '\/'/s)
    await context.close()
  })

  test('what a release changes is listed, and the paths to purge are there to copy', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'changes-')), 'report.html')
    const options = ['--site', site, '--host', 'fallback', '--format', 'html', '--out', file]
    wardoscope(['compare', `${demo}/sound`, `${demo}/environment-absent`, ...options])
    const { page, context, trouble } = await opened(file)
    await page.getByRole('tab', { name: /^Changes/ }).click()
    const list = page.getByRole('group', { name: 'Paths to purge' })
    expect((await list.textContent())?.split('\n')).toContain('/crossings/index.html')
    await page.getByRole('radio', { name: /^new hash/ }).click()
    for (const row of (await page.getByRole('row').all()).slice(1)) {
      expect(await row.textContent()).toContain('new hash')
    }
    expect(await violationsIn(page)).toEqual([])
    expect(trouble).toEqual([])
    await context.close()
  })

  test('a rehearsal is shown with its pictures and its console', async () => {
    const shots = mkdtempSync(join(tmpdir(), 'shots-'))
    const file = join(shots, 'report.html')
    const options = ['--site', site, '--host', 'fallback', '--browser', '--width', '390', '--shots', shots]
    wardoscope(['rehearse', `${demo}/sound`, ...options, '--format', 'html', '--out', file])
    const { page, context, trouble } = await opened(file)
    await page.getByRole('tab', { name: /^Rehearsal/ }).click()
    const picture = page.getByRole('img', { name: '/crossings/ at 390 px' })
    expect(
      await picture.evaluate((image) => (image as unknown as { naturalWidth: number }).naturalWidth),
    ).toBe(390)
    expect(trouble).toEqual([])
    await context.close()
  })
})

describe('what a build holds is text', () => {
  const markup = '</script><img src=x onerror=alert(1)><!--'
  const name = `"quote' <b onclick=alert(1)>.js`
  const turned = '\u202egnp.html'
  const files = {
    'package.json': `{"name":"</script><script>alert(2)</script>","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}`,
    'vite.config.js': `export default { base: '/crossings/' } // ${markup}`,
    'src/main.js': `fetch("http://localhost:8787/v1") // ${markup}`,
    'dist/index.html': `<!doctype html><title>${markup}</title><script src="/crossings/assets/&quot;quote%27 <b onclick=alert(1)>.js"></script><img src="/crossings/gone-&lt;/script&gt;&lt;script&gt;alert(3)&lt;/script&gt;.png"><a href="/crossings/\u202e\u0007elsewhere">x</a>`,
    [`dist/assets/${name}`]: `fetch("http://localhost:8787/v1");var a=${JSON.stringify(markup)} /* \u202e\u2066 */`,
    [`dist/${turned}`]: `<!doctype html><img src="/crossings/lost.png" alt="${'\u0000\u001b[31m'}">`,
  }

  test('names, addresses and excerpts with markup, quotes and turned letters run nothing', async () => {
    const file = htmlOf(folderWith(files), '--host', 'files', '--route', `/crossings/${markup}`)
    const { page, context, trouble, requested } = await opened(file)
    for (const tab of await page.getByRole('tab').all()) {
      await tab.click()
      await openAll(page)
    }
    await page.getByRole('tab', { name: /^Causes/ }).click()
    expect(trouble).toEqual([])
    expect(requested()).toEqual([])
    expect(await page.locator('img').count()).toBe(0)
    expect(await page.locator('b').count()).toBe(0)
    const visible = (await page.locator('#page').textContent()) ?? ''
    expect(visible).toContain('onclick=alert(1)')
    expect(visible).not.toMatch(/[\u202a-\u202e\u2066-\u2069\u0007]/)
    await context.close()
  })

  test('a report whose data was cut off says so and shows nothing false', async () => {
    const file = htmlOf(`${demo}/sound`)
    const text = readFileSync(file, 'utf8')
    const cut = text.replace(/(<script type="application\/json" id="report">.{200}).*?(<\/script>)/s, '$1$2')
    writeFileSync(file, cut)
    const context = await browser.newContext()
    const page = await context.newPage()
    await page.goto(pathToFileURL(file).href)
    await page.getByText('The data of this report is not whole').waitFor()
    await context.close()
  })
})

describe('many', () => {
  const places = 10_000
  const page = `<!doctype html>${Array.from({ length: 100 }, (_, i) => `<img src="/crossings/pics/${i}.png">`).join('')}`
  const files = Object.fromEntries(
    Array.from({ length: places / 100 }, (_, i) => [`p/${i}.html`, page] as const),
  )

  test('10,000 places are a tree by file, and scroll without all of them being drawn', async () => {
    const { page: tab, context } = await opened(
      htmlOf(folderWith({ 'index.html': '<!doctype html>', ...files }), '--host', 'files'),
    )
    const cause = tab.locator('.cause').first()
    expect(await cause.textContent()).toContain('10,000 places in 100 files')
    const nodes = cause.locator('.node-trigger')
    expect(await nodes.count()).toBe(100)
    expect(await nodes.last().textContent()).toBe('p/99.html 100 places')
    expect(await cause.locator('.place').count()).toBe(0)
    await nodes.last().click()
    const list = tab.getByRole('group', { name: 'Places in the build' })
    await list.waitFor()
    expect(await list.getByRole('listitem').count()).toBeLessThan(60)
    await list.evaluate((element) => {
      const box = element as unknown as { scrollTop: number; scrollHeight: number }
      box.scrollTop = box.scrollHeight
    })
    await expect.poll(() => list.textContent()).toContain('/crossings/pics/99.png')
    expect(await list.getByRole('listitem').count()).toBeLessThan(60)
    await tab.getByRole('tab', { name: /^Assets/ }).click()
    expect(await tab.getByRole('row').count()).toBeLessThan(120)
    await context.close()
  })
})

describe('a real build of more than a thousand files', () => {
  let report = ''
  beforeAll(async () => {
    const areas = ['harbours', 'sailings', 'tickets', 'tides']
    const pages = areas.flatMap((area) =>
      Array.from(
        { length: 260 },
        (_, i) => `${area}/${area}-of-the-northern-islands-in-the-year-${1700 + i}`,
      ),
    )
    const parts = pages.map((each) => `"${each}":()=>import("./pages/${each}.js")`).join(',')
    const root = folderWith({
      'package.json':
        '{"name":"skerry-archive","type":"module","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'vite.config.js': `export default { base: '/archive/', build: { rolldownOptions: { output: {
        chunkFileNames: (chunk) => \`parts/\${(chunk.facadeModuleId ?? '/shared/x').split('/').at(-2)}/[name]-[hash].js\` } } } }\n`,
      'index.html':
        '<!doctype html><title>Skerry archive</title><script type="module" src="/src/main.js"></script>',
      'src/main.js': `const parts={${parts}};document.body.onclick=()=>parts[location.hash.slice(1)]().then((m)=>m.default())`,
      ...Object.fromEntries(
        pages.map((each) => [
          `src/pages/${each}.js`,
          `export default () => fetch(import.meta.env.VITE_ARCHIVE_API + "/v1/${each}")`,
        ]),
      ),
    })
    linkPackages(root)
    const { NODE_ENV: _, VITEST: __, ...env } = process.env
    execFileSync('npx', ['vite', 'build', '--logLevel', 'error'], { cwd: root, env })
    report = htmlOf(root, '--site', 'https://skerryline.example/', '--host', 'files')
  })

  test.each([
    ['light', 375],
    ['dark', 820],
  ] as const)('every part keeps the rules and its width, %s at %d', async (colorScheme, width) => {
    const { page, context, trouble } = await opened(report, { colorScheme, viewport: { width, height: 800 } })
    const found: string[] = []
    const look = async (what: string): Promise<void> => {
      for (const each of await violationsIn(page)) found.push(`${what}: ${each}`)
      const over = await page.evaluate<number>('document.documentElement.scrollWidth - innerWidth')
      if (over > 0) found.push(`${what} is ${over} wider than the window`)
    }
    for (const tab of await page.getByRole('tab').all()) {
      await tab.click()
      await look((await tab.textContent()) ?? '')
    }
    await page.getByRole('tab', { name: /^Causes/ }).click()
    await page.locator('.node-trigger').first().click()
    await page.locator('.node-panel .node-trigger').first().click()
    await look('places')
    await page.getByRole('searchbox', { name: 'Search everything' }).fill('harbours 1750')
    await look('search')
    await page.getByRole('searchbox', { name: 'Search everything' }).fill('')
    await page.getByRole('tab', { name: /^Routes/ }).click()
    await page.getByRole('button', { name: '/', exact: true }).click()
    await look('what a route loads')
    expect(found).toEqual([])
    expect(trouble).toEqual([])
    await context.close()
  })

  test('places open by directory and file, by keyboard; names are short where they are alike', async () => {
    const { page, context } = await opened(report, { viewport: { width: 375, height: 800 } })
    const node = page.locator('.node-trigger').first()
    expect(await node.textContent()).toBe('parts/harbours/ 260 files, 260 places')
    await node.focus()
    await page.keyboard.press('Enter')
    const files = page.locator('.node-panel .node-trigger bdi')
    expect(await files.first().textContent()).toMatch(/^…1700-[\w-]{8}\.js$/)
    await page.keyboard.press('Tab')
    await page.keyboard.press('Enter')
    expect(await page.locator('.node .place').textContent()).toContain('undefined/v1/harbours')
    await context.close()
  })

  test('a search over everything leads to a part, searched for the same', async () => {
    const { page, context } = await opened(report)
    const box = page.getByRole('searchbox', { name: 'Search everything' })
    await box.fill('tides 1799')
    const assets = page.getByRole('region', { name: 'Found in Assets' })
    await assets.getByRole('button').first().click()
    expect(await page.getByRole('tab', { selected: true }).textContent()).toMatch(/^Assets/)
    await expect.poll(() => page.getByRole('row').count()).toBe(2)
    expect(await page.getByRole('row').nth(1).textContent()).toContain(
      'tides-of-the-northern-islands-in-the-year-1799',
    )
    await box.fill('in-the-year-175')
    await page.getByRole('button', { name: 'all 40' }).click()
    await expect.poll(() => page.getByRole('row').count()).toBe(41)
    expect(page.url()).toMatch(/#assets\?search=in-the-year-175$/)
    await box.fill('nothing of this name')
    await page.getByText('Nothing matches.').waitFor()
    await context.close()
  })

  test('a route opens what it loads, with status, size and what asks', async () => {
    const { page, context } = await opened(report)
    await page.getByRole('tab', { name: /^Routes/ }).click()
    await page.getByRole('button', { name: '/', exact: true }).click()
    const dialog = page.getByRole('dialog')
    expect(await dialog.textContent()).toContain('1 request, of which 1 does not arrive.')
    expect(await dialog.getByRole('row').nth(1).textContent()).toMatch(
      /^\/archive\/assets\/index-[\w-]+\.js404 ✕–index\.html:\d+:\d+$/,
    )
    await page.keyboard.press('Escape')
    await dialog.waitFor({ state: 'detached' })
    const sound = await opened(htmlOf(`${demo}/sound`))
    await sound.page.getByRole('tab', { name: /^Routes/ }).click()
    await sound.page.getByRole('button', { name: '/crossings/', exact: true }).click()
    const loads = sound.page.getByRole('dialog')
    expect(await loads.textContent()).toContain('6 requests, and all arrive.')
    expect(await loads.getByRole('row').nth(1).textContent()).toMatch(
      /index-[\w-]+\.js200317 kBindex\.html:11:44$/,
    )
    await sound.context.close()
    await context.close()
  })
})

test.each([
  [['/a/one', '/a/two'], 20, ['/a/one', '/a/two']],
  [['/harbours/of-the-north/one', '/harbours/of-the-north/two'], 12, ['…one', '…two']],
  [['part-1-of-the-islands.js', 'part-2-of-the-islands.js'], 12, ['…1…', '…2…']],
  [['a'.repeat(40)], 11, ['aaaaa…aaaaa']],
])('names are shortened where they are alike: %j', (names, most, expected) => {
  expect(shortenedApart(names, most)).toEqual(expected)
})

describe('rules of accessibility', () => {
  let report: string
  beforeAll(() => {
    const hard = folderWith({
      'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'src/main.js': 'fetch(import.meta.env.VITE_SAILINGS_API + "/v1")',
      'dist/index.html': `<!doctype html><script type=module src="/a.js"></script>${Array.from({ length: 20 }, (_, i) => `<img src="/crossings/pics/${i}.png">`).join('')}`,
      'dist/a.js': 'fetch("http://localhost:3000/v1");fetch("https://api.skerryline.example/v1")',
      'dist/about.html': '<!doctype html><a href="/crossings/gone">x</a>',
    })
    report = htmlOf(hard, '--site', site, '--site', 'https://www.skerryline.example/', '--host', 'files')
  })

  test.each([
    ['light', 1280],
    ['dark', 390],
  ] as const)('no part of the page breaks one, %s at %i pixels', async (colorScheme, width) => {
    const { page, context } = await opened(report, { colorScheme, viewport: { width, height: 800 } })
    const found: string[] = []
    for (const tab of await page.getByRole('tab').all()) {
      await tab.click()
      await openAll(page)
      found.push(...(await violationsIn(page)))
      const [wide, room] = await page.evaluate<number[]>('[document.documentElement.scrollWidth, innerWidth]')
      expect(wide).toBeLessThanOrEqual(room ?? 0)
    }
    expect([...new Set(found)]).toEqual([])
    await context.close()
  })

  test('the rules see what they are there for', async () => {
    const { page, context } = await opened(report)
    await page.evaluate(
      `document.body.insertAdjacentHTML('beforeend', '<img src="data:,"><button></button>')`,
    )
    const found = await violationsIn(page)
    expect(found.some((each) => each.startsWith('image-alt'))).toBe(true)
    expect(found.some((each) => each.startsWith('button-name'))).toBe(true)
    await context.close()
  })
})
