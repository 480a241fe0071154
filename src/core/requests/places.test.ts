import { describe, expect, test } from 'vitest'
import { presetNamed } from '../host/presets.ts'
import type { FileFacts } from '../model/facts.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { noSearch } from '../model/search.ts'
import { parseSite } from '../model/site.ts'
import { safeDecode } from '../model/text.ts'
import { readInTurn } from '../output/reader.ts'
import { baseAt, encodePath, pageAddress } from './addresses.ts'
import { FolderIndex } from './folder-index.ts'
import { outputOf } from './output.ts'
import { fails, type Requested, requestAll } from './request.ts'
import { formOf } from './routes.ts'

const site = parseSite('https://skerryline.example/b/')

async function requested(
  files: Record<string, string>,
  host = 'files',
  named: readonly string[] = [],
): Promise<Requested> {
  const folder = new MemoryFolder(files)
  const facts: readonly FileFacts[] = await readInTurn(folder, Object.keys(files), noSearch, () => {})
  const preset = presetNamed(host)
  if (!preset) throw new Error(`no preset ${host}`)
  return requestAll(preset, site, outputOf(facts), {
    named: named.map((path) => ({ path, from: { by: 'a test' } })),
    known: [],
    samples: {},
  })
}

const page = (body: string): string => `<!doctype html><body>${body}`

describe('who asks', () => {
  test('is kept of every request, of those that fail and of those that are answered', async () => {
    const { requests } = await requested({
      'index.html': page('<img src="/b/a.png"><img src="/b/gone.png">'),
      'about.html': page('<img src="/b/a.png"><img src="/b/gone.png">'),
      'a.png': '',
    })
    expect(
      requests.map(
        ({ pathname, count, places }) => `${pathname} ×${count} ${places.map(({ file }) => file).join(' ')}`,
      ),
    ).toEqual(['/b/a.png ×2 index.html about.html', '/b/gone.png ×2 index.html about.html'])
  })
  test('a few are enough where all is well, and all are counted', async () => {
    const pages = Object.fromEntries(
      Array.from({ length: 9 }, (_, index) => [`p${index}.html`, page('<img src="/b/a.png">')]),
    )
    const { requests } = await requested({ ...pages, 'a.png': '' })
    expect(requests.map(({ count, places }) => [count, places.length])).toEqual([[9, 3]])
  })
  test('one place at two addresses of its page is one place', async () => {
    const { requests } = await requested({ 'index.html': page('<img src="a.png">') }, 'fallback', [
      '/b/x/y',
      '/b/x/z',
    ])
    const failing = requests.filter(fails)
    expect(failing.map(({ pathname, count }) => `${pathname} ×${count}`)).toEqual([
      '/b/a.png ×1',
      '/b/x/a.png ×1',
    ])
  })
})

test('only an address of another origin is outside', async () => {
  const { outside, insecure } = await requested({
    'index.html': page(
      '<img src="x//y.png"><img src="//cdn.example/a.png"><img src="http://cdn.example/b.png">',
    ),
  })
  expect(outside.map(({ reference }) => reference.raw)).toEqual([
    '//cdn.example/a.png',
    'http://cdn.example/b.png',
  ])
  expect(insecure.map(({ reference }) => reference.raw)).toEqual(['http://cdn.example/b.png'])
})

describe('what fails', () => {
  test('a page in place of a file, and no page in a frame', async () => {
    const { requests } = await requested(
      {
        'index.html': page(
          '<iframe src="/b/help"></iframe><img src="/b/x"><iframe src="/b/a.html"></iframe>',
        ),
      },
      'fallback',
    )
    expect(requests.filter(fails).map(({ pathname }) => pathname)).toEqual(['/b/x', '/b/a.html'])
  })
})

describe('what a page leads to', () => {
  test('is reached, and what nothing leads to is not', async () => {
    const found = await requested({
      'index.html': page('<script type=module src="/b/a.js"></script>'),
      'a.js': 'import("./b.js")',
      'b.js': '',
      'c.js': 'import("./gone.js")',
    })
    expect([...found.reached].sort()).toEqual(['a.js', 'b.js', 'index.html'])
    expect(found.requests.map(({ pathname }) => pathname)).toEqual(['/b/a.js', '/b/b.js'])
    expect([...found.later]).toEqual(['b.js'])
    expect([...(found.loads.get('index.html') ?? [])]).toEqual(['a.js'])
    expect(found.loads.get('a.js')).toBeUndefined()
  })
  test('without any page every script and style sheet is requested where it is', async () => {
    const { requests } = await requested({ 'a.css': 'p{background:url(x.png)}' })
    expect(requests.map(({ pathname }) => pathname)).toEqual(['/b/x.png'])
  })
})

test('routes are pages and links, and what answers errors is none', async () => {
  const { routes } = await requested({
    'index.html': page(
      '<a href="/b/sailings">x</a><a href="/b/logo.svg">y</a><a href="/elsewhere">z</a><a href="/b/about">w</a>',
    ),
    'about/index.html': page(''),
    '404.html': page(''),
    'x404.html': page(''),
    '404.htmlx/index.html': page(''),
  })
  expect(
    routes
      .map(({ path, from }) => `${path} ${'file' in from ? `${from.file}:${from.line}` : from.by}`)
      .sort(),
  ).toEqual([
    '/b/ the site address',
    '/b/404.htmlx/ 404.htmlx/index.html:1',
    '/b/about/ about/index.html:1',
    '/b/sailings index.html:1',
    '/b/x404.html x404.html:1',
  ])
})

test.each([
  [null, 'https://skerryline.example/b/x/', 'https://skerryline.example/b/x/'],
  ['/c/', 'https://skerryline.example/b/x/', 'https://skerryline.example/c/'],
  ['../', 'https://skerryline.example/b/x/', 'https://skerryline.example/b/'],
  ['$FLUTTER_BASE_HREF', 'https://skerryline.example/b/x/', 'https://skerryline.example/b/x/'],
  ['http://[', 'https://skerryline.example/b/x/', 'https://skerryline.example/b/x/'],
])('URLs of a page with the base %j', (baseHref, address, expected) => {
  expect(baseAt({ baseHref }, address)).toBe(expected)
})

test.each([
  ['index.html', ''],
  ['a/index.html', 'a/'],
  ['a/xindex.html', 'a/xindex.html'],
  ['a.html', 'a.html'],
])('the page %s is linked by %j', (path, expected) => {
  expect(pageAddress(path)).toBe(expected)
})

test('paths in URLs', () => {
  expect(encodePath('a/b c/ä.png')).toBe('a/b%20c/%C3%A4.png')
  expect(encodePath('a/~b-c_d.png')).toBe('a/~b-c_d.png')
  expect(safeDecode('a%20b')).toBe('a b')
  expect(safeDecode('a%zz')).toBe('a%zz')
})

test('an index knows directories, tails and near names', () => {
  const index = new FolderIndex(['a/b/c.js', 'a/B/d.js', 'Top.svg'].map((path) => ({ path })))
  expect(['', 'a', 'a/b', 'a/b/c.js', 'b'].map((path) => index.isDirectory(path))).toEqual([
    true,
    true,
    true,
    false,
    false,
  ])
  expect(index.tailOf('/x/y/a/b/c.js')).toEqual({ prefix: '/x/y/', file: 'a/b/c.js' })
  expect(index.tailOf('/a/b/c.js')).toEqual({ prefix: '/', file: 'a/b/c.js' })
  expect(index.tailOf('/x/c.js')).toBeNull()
  expect(index.nearlyNamed('top.svg')).toBe('Top.svg')
  expect(index.nearlyNamed('Top.svg')).toBeNull()
  expect(index.endingWith('b/c.js')).toEqual(['a/b/c.js'])
  expect(index.endingWith('xb/c.js')).toEqual([])
  expect(index.fitting('./a/\u0000/d.js').length + index.fitting('c.js').length).toBeGreaterThan(0)
})

test.each([
  ['/a/:id', '/a/7', true],
  ['/a/:id', '/a/7/', true],
  ['/a/:id', '/a', false],
  ['/a/:id', '/a/7/b', false],
  ['/a.b', '/axb', false],
])('the form of %s for %s: %s', (pattern, path, expected) => {
  expect(formOf(pattern).test(path)).toBe(expected)
})
