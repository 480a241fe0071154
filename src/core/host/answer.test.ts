import fc from 'fast-check'
import { expect, test } from 'vitest'
import { parseSite } from '../model/site.ts'
import { FolderIndex } from '../requests/folder-index.ts'
import { answer, follow } from './answer.ts'
import { presetNamed, presets } from './presets.ts'

const site = parseSite('https://skerryline.example/crossings/')
const files = new FolderIndex(
  ['index.html', 'about/index.html', 'plain.html', 'assets/a b.js', 'assets/häfen.css', 'deep/er/x.txt'].map(
    (path) => ({ path }),
  ),
)

test.each([
  ['files', '/crossings/', 200, 'index.html', null],
  ['files', '/crossings', 301, null, '/crossings/'],
  ['files', '/crossings/about/', 200, 'about/index.html', null],
  ['files', '/crossings/about', 301, null, '/crossings/about/'],
  ['files', '/crossings/plain.html', 200, 'plain.html', null],
  ['files', '/crossings/plain', 404, null, null],
  ['files', '/crossings/assets/a%20b.js', 200, 'assets/a b.js', null],
  ['files', '/crossings/assets/h%C3%A4fen.css', 200, 'assets/häfen.css', null],
  ['files', '/crossings/Assets/a%20b.js', 404, null, null],
  ['files', '/crossings/deep/er/', 404, null, null],
  ['files', '/crossings/deep', 301, null, '/crossings/deep/'],
  ['files', '/crossings/%zz', 400, null, null],
  ['files', '/crossings/%2e%2e/secret', 400, null, null],
  ['files', '/crossings/a%5Cb', 400, null, null],
  ['files', '/crossings/a%00', 400, null, null],
  ['files', '/assets/a.js', 404, null, null],
  ['files', '/', 404, null, null],
  ['files', '/crossingsx', 404, null, null],
  ['fallback', '/crossings/sailings/42', 200, 'index.html', null],
  ['fallback', '/crossings/gone.js', 200, 'index.html', null],
  ['fallback', '/sailings', 404, null, null],
])('host "%s" answers %s with %i', (name, path, status, file, location) => {
  const host = presetNamed(name)
  expect(host).not.toBeNull()
  if (host) expect(answer(host, site, files, path)).toMatchObject({ status, file, location })
})

test('every preset has a name of its own', () => {
  expect(new Set(presets.map(({ name }) => name)).size).toBe(presets.length)
  expect(presetNamed('nothing')).toBeNull()
})

test('redirects are followed to the answer', () => {
  const host = presets[0]
  if (!host) throw new Error('no preset')
  expect(follow(host, site, files, '/crossings/about')).toMatchObject({
    pathname: '/crossings/about/',
    answer: { status: 200, file: 'about/index.html', contentType: 'text/html' },
  })
})

test('a file that is called like a member of every object is of no known type', () => {
  const named = new FolderIndex(['a.constructor', 'a.tide'].map((path) => ({ path })))
  const [files] = presets
  if (!files) throw new Error('no preset')
  const host = { ...files, contentTypes: { tide: 'text/x-tide' } }
  const typeOf = (path: string): string | null => answer(host, site, named, path).contentType
  expect(typeOf('/crossings/a.constructor')).toBeNull()
  expect(typeOf('/crossings/a.tide')).toBe('text/x-tide')
})

test('every host answers every path, and sends no file that the folder does not hold', () => {
  const piece = fc.constantFrom(
    '/',
    'crossings',
    'about',
    'index.html',
    '%',
    '%2e',
    '%2F',
    '%00',
    '..',
    '.',
    '\\',
    'é',
    '\ud800',
    '*',
    ':a',
    '?',
    '#',
    '//',
  )
  const path = fc.oneof(
    fc.array(piece, { maxLength: 8 }).map((all) => `/${all.join('')}`),
    fc.string().map((text) => `/${text}`),
  )
  const rule = fc.record({
    from: path,
    to: fc.option(path),
    status: fc.constantFrom(200, 301, 404, 410),
    forced: fc.boolean(),
    conditions: fc.constant([]),
    place: fc.constant(null),
    onStatus: fc.constantFrom(undefined, [404]),
  })
  const names = presets.map(({ name }) => name)
  fc.assert(
    fc.property(fc.constantFrom(...names), fc.array(rule, { maxLength: 3 }), path, (name, rules, asked) => {
      const preset = presetNamed(name)
      if (!preset) throw new Error(name)
      const said = answer(
        {
          ...preset,
          rules: rules.map(({ onStatus, ...each }) => ({ ...each, ...(onStatus && { onStatus }) })),
        },
        site,
        files,
        asked,
      )
      expect(said.status).toBeGreaterThanOrEqual(200)
      expect(said.file === null || files.has(said.file)).toBe(true)
      expect(follow({ ...preset, rules: [] }, site, files, asked).hops.length).toBeLessThanOrEqual(20)
    }),
    { numRuns: 2_000 },
  )
})
