import { describe, expect, test } from 'vitest'
import { presetNamed } from '../host/presets.ts'
import { UsageError } from '../model/errors.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { compareReleases } from './compare.ts'
import { firstVisitsOf } from './first-visit.ts'
import { isPacked } from './kinds.ts'
import { fallbackChange, purgeList } from './purge.ts'
import { readRecord, recordOf, writeRecord } from './record.ts'
import { type Release, type ReleasedFile, releaseOf } from './release.ts'

const site = parseSite('https://skerryline.example/b/')
const hosting = { site, host: presetNamed('files') }

/** Files as `path` or `path=content`; `path*` is one that scripts request later. */
function release(files: readonly string[], more: Partial<Release> = {}): Release {
  return {
    base: '/b/',
    observed: '/b/',
    files: files.map((text): ReleasedFile => {
      const [name = '', content = ''] = text.split('=')
      const later = name.endsWith('*')
      return { path: name.replace('*', ''), bytes: content.length, digest: content, later }
    }),
    routes: [],
    variables: [],
    endpoints: [],
    ...more,
  }
}

describe('files', () => {
  const earlier = release([
    'index.html=a',
    'kept.txt=k',
    'gone.txt=g',
    'app-AbCdEf12.js*=1',
    'data-AbCdEf12.json*=1',
    'old-AbCdEf12.js=1',
  ])
  const later = release([
    'index.html=bb',
    'kept.txt=k',
    'new.txt=n',
    'app-XyZwVu98.js=22',
    'fresh-XyZwVu98.js=3',
  ])
  const found = compareReleases(earlier, later, hosting)

  test('are sorted by what became of them', () => {
    expect(found.kept).toBe(1)
    expect(found.changed).toEqual([{ path: 'index.html', was: 'index.html', before: 1, after: 2 }])
    expect(found.renamed).toEqual([{ path: 'app-XyZwVu98.js', was: 'app-AbCdEf12.js', before: 1, after: 2 }])
    expect(found.added.map(({ path }) => path)).toEqual(['new.txt', 'fresh-XyZwVu98.js'])
    expect(found.gone.map(({ path }) => path)).toEqual(['gone.txt', 'data-AbCdEf12.json', 'old-AbCdEf12.js'])
    expect(found.counts).toEqual({ changed: 1, renamed: 1, added: 2, gone: 3 })
    expect(found.bytes).toEqual({ before: 6, after: 7 })
    expect(found.same).toBe(false)
  })
  test('with a hash need no purge', () => {
    expect(found.needNone).toBe(2)
  })
  test('of code that scripts request later are gone; data is requested anew', () => {
    expect(found.chunksGone).toEqual(['app-AbCdEf12.js'])
  })
  test('changed under a name with a hash are named', () => {
    const again = compareReleases(
      release(['a-AbCdEf12.js=1', 'b.js=1']),
      release(['a-AbCdEf12.js=2', 'b.js=2']),
      hosting,
    )
    expect(again.rewritten).toEqual(['a-AbCdEf12.js'])
  })
})

test('the same files are the same release, and at another base path they are not', () => {
  const one = release(['index.html=a'])
  expect(compareReleases(one, one, hosting)).toMatchObject({ same: true, moved: null, purge: [] })
  const elsewhere = release(['index.html=b', 'a-AbCdEf12.js*=1'], { base: '/c/' })
  expect(compareReleases(elsewhere, one, hosting)).toMatchObject({
    same: false,
    moved: { from: '/c/', to: '/b/' },
    purge: [],
    purgeBelow: null,
    chunksGone: [],
  })
  const built = release(['index.html=a'], { observed: '/c/' })
  expect(compareReleases(built, one, hosting).moved).toEqual({ from: '/c/', to: '/b/' })
  expect(compareReleases(release(['index.html=a'], { observed: null }), one, hosting).moved).toBeNull()
})

test('routes, endpoints and variables that came and went', () => {
  const route = (path: string, status = 200): Release['routes'][number] => ({
    path,
    entryFile: 'index.html',
    status,
    download: 1,
  })
  const before = release([], {
    routes: [route('/b/a'), route('/b/x', 399), route('/b/c', 400)],
    endpoints: ['https://a.test'],
    variables: ['A'],
  })
  const after = release([], {
    routes: [route('/b/a'), route('/b/c')],
    endpoints: ['https://b.test'],
    variables: ['A', 'B'],
  })
  const found = compareReleases(before, after, hosting)
  expect(found.routes).toEqual({ won: ['/c'], lost: ['/x'] })
  expect(found.endpoints).toEqual({ won: ['https://b.test'], lost: ['https://a.test'] })
  expect(found.variables).toEqual({ won: ['B'], lost: [] })
})

test('first visits that changed, those that changed most first, each entry file once', () => {
  const route = (
    path: string,
    entryFile: string | null,
    download: number | null,
  ): Release['routes'][number] => ({
    path,
    entryFile,
    status: 200,
    download,
  })
  const before = release([], {
    routes: [
      route('/b/', 'i', 10),
      route('/b/1', 'i', 10),
      route('/b/2', 'j', 100),
      route('/b/3', 'k', 5),
      route('/b/4', 'l', null),
    ],
  })
  const after = release([], {
    routes: [
      route('/b/', 'i', 20),
      route('/b/1', 'i', 20),
      route('/b/2', 'j', 50),
      route('/b/3', 'k', 5),
      route('/b/4', 'l', 9),
      route('/b/5', 'm', 9),
    ],
  })
  expect(compareReleases(before, after, hosting).firstVisits).toEqual(
    [
      { route: '/2', before: 100, after: 50 },
      { route: '/', before: 10, after: 20 },
    ].map((each, index) => ({ ...each, route: ['/b/2', '/b/'][index] })),
  )
})

describe('what must be purged', () => {
  test('a page in every form in which it is answered', () => {
    const [before, after] = [
      release(['index.html=a', 'about/index.html=a', 'more.html=a', 'x.js=a']),
      release(['index.html=b', 'about/index.html=b', 'more.html=b', 'x.js=a']),
    ]
    expect(purgeList(before, after, { site, host: presetNamed('clean-urls') })).toEqual([
      '/b/',
      '/b/about/',
      '/b/about/index.html',
      '/b/index.html',
      '/b/more',
      '/b/more.html',
    ])
  })
  test('a hashed file that is gone is left alone, one that changed is not', () => {
    const [before, after] = [release(['a-AbCdEf12.js=1', 'b-AbCdEf12.js=1']), release(['b-AbCdEf12.js=2'])]
    expect(purgeList(before, after, hosting)).toEqual(['/b/b-AbCdEf12.js'])
  })
  test('whatever lies below, where the document for unknown paths changed', () => {
    const [before, after] = [release(['index.html=a']), release(['index.html=b'])]
    expect(fallbackChange(before, after, { site, host: presetNamed('fallback') })).toBe('/b/')
    expect(fallbackChange(before, before, { site, host: presetNamed('fallback') })).toBeNull()
    expect(fallbackChange(before, after, hosting)).toBeNull()
    const pages = [release(['404.html=a']), release(['404.html=b'])] as const
    expect(fallbackChange(...pages, { site, host: presetNamed('error-page') })).toBe('/b/')
  })
})

test('a first visit is of routes that answer, the heaviest first, each entry file once', () => {
  const answered = (path: string, entryFile: string | null, status: number): never =>
    ({ path, entryFile, status }) as never
  const loads = new Map([
    ['i', new Set(['a', 'b'])],
    ['a', new Set(['b'])],
  ])
  const visits = firstVisitsOf(
    [
      answered('/small', 's', 200),
      answered('/', 'i', 399),
      answered('/again', 'i', 200),
      answered('/gone', 'g', 400),
      answered('/none', null, 200),
    ],
    loads,
    (path) => (path === 's' ? 5 : 2),
  )
  expect(visits.map(({ route, files, bytes }) => `${route} ${files.join('+')} ${bytes}`)).toEqual([
    '/ i+a+b 6',
    '/small s 5',
  ])
})

test.each([
  ['a.png', true],
  ['a.JPEG', true],
  ['a.woff2', true],
  ['a.png.js', false],
  ['a.svg', false],
  ['apng', false],
])('%s is packed by its own form: %s', (path, expected) => {
  expect(isPacked(path)).toBe(expected)
})

describe('a record', () => {
  const written = writeRecord(
    recordOf(
      release(['a.js*=1', 'b.js=2'], {
        variables: ['A'],
        routes: [{ path: '/b/', entryFile: null, status: 200, download: null }],
      }),
      { verdict: 'clear', program: '1', sites: ['https://skerryline.example/b/'] },
    ),
  )
  test('is read as it was written', () => {
    expect(readRecord('r.json', written)).toEqual(
      release(['a.js*=1', 'b.js=2'], {
        variables: ['A'],
        routes: [{ path: '/b/', entryFile: null, status: 200, download: null }],
      }),
    )
  })
  test('has a line for each file and each route', () => {
    expect(written.split('\n').filter((line) => line.startsWith('  ["'))).toHaveLength(2)
    const empty = recordOf(release([]), { verdict: 'held', program: '1', sites: [] })
    expect(JSON.parse(writeRecord(empty))).toEqual(empty)
    const one = recordOf(release(['a.js=1']), { verdict: 'held', program: '1', sites: [] })
    expect(JSON.parse(writeRecord(one))).toEqual(one)
  })
  test.each([
    ['{', 'The release record r.json is not JSON.'],
    ['{}', 'r.json is no release record of the form wardoscope-record/1 at schema.'],
    [written.replace('"clear"', '"fine"'), 'at verdict.'],
  ])('%s is none', (text, message) => {
    expect(() => readRecord('r.json', text)).toThrow(UsageError)
    expect(() => readRecord('r.json', text)).toThrow(message)
  })
})

test('a digest is the first half of the SHA-256', async () => {
  const shipped = {
    base: '/b/',
    build: new MemoryFolder({ 'a.txt': '' }),
    facts: [{ path: 'a.txt', size: 0 }],
  }
  const made = await releaseOf({
    ...shipped,
    site,
    requested: { routes: [], later: new Set(), observed: null },
    delivery: { firstVisit: [] },
    environment: [],
    endpoints: [],
    named: (text: string) => text,
  } as never)
  expect(made.files).toEqual([{ path: 'a.txt', bytes: 0, digest: '47DEQpj8HBSa-_TImW-5JA', later: false }])
})
