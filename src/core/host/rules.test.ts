import { describe, expect, test } from 'vitest'
import type { Rule } from '../model/rule.ts'
import { matchRule, targetOf } from '../model/rule.ts'
import { parseSite } from '../model/site.ts'
import { FolderIndex } from '../requests/folder-index.ts'
import { answer, follow } from './answer.ts'
import type { Host } from './host.ts'
import { presetNamed } from './presets.ts'

const site = parseSite('https://skerryline.example/b/')
const files = new FolderIndex(
  [
    'index.html',
    'about.html',
    'harbours/index.html',
    'both.html',
    'both/index.html',
    '_app/a.js',
    'x/_app/b.js',
    'app_/c.js',
    'Logo.svg',
    'data.bin',
    'empty/deep/x.txt',
    '404.html',
  ].map((path) => ({ path })),
)

const rule = (from: string, to: string | null, status = 200, more: Partial<Rule> = {}): Rule => ({
  from,
  to,
  status,
  forced: false,
  conditions: [],
  place: null,
  ...more,
})

/** `status file` or `status → location`, with what answered. */
function said(path: string, host: Partial<Host>): string {
  const { status, file, location, by } = answer({ ...presetNamed('files'), ...host }, site, files, path)
  return `${status} ${file ?? (location === null ? '-' : `→ ${location}`)} ${by}`
}

describe('the last slash', () => {
  const clean = { extensionless: true } as const
  test.each<[Host['trailingSlash'], string, string]>([
    ['keep', '/b/about', '200 about.html extensionless name'],
    ['keep', '/b/about/', '404 - nothing'],
    ['keep', '/b/harbours', '301 → /b/harbours/ redirect'],
    ['keep', '/b/harbours/', '200 harbours/index.html directory index'],
    ['keep', '/b/both', '200 both.html extensionless name'],
    ['add', '/b/about', '301 → /b/about/ redirect'],
    ['add', '/b/about/', '200 about.html extensionless name'],
    ['add', '/b/harbours', '301 → /b/harbours/ redirect'],
    ['add', '/b/about.html', '200 about.html file'],
    ['drop', '/b/about', '200 about.html extensionless name'],
    ['drop', '/b/about/', '301 → /b/about redirect'],
    ['drop', '/b/harbours', '200 harbours/index.html directory index'],
    ['drop', '/b/harbours/', '301 → /b/harbours redirect'],
    ['drop', '/b/', '200 index.html directory index'],
    ['drop', '/b/empty', '404 - nothing'],
    ['drop', '/b/empty/', '404 - nothing'],
    ['add', '/b', '301 → /b/ redirect'],
  ])('%s: %s', (trailingSlash, path, expected) => {
    expect(said(path, { ...clean, trailingSlash })).toBe(expected)
  })
  test('no page is found without its ending where names have theirs', () => {
    expect(said('/b/about', { trailingSlash: 'add' })).toBe('404 - nothing')
    expect(said('/b/about/', { trailingSlash: 'drop' })).toBe('404 - nothing')
  })
})

test.each<[Host['letterCase'], string, string]>([
  ['kept', '/b/logo.svg', '404 - nothing'],
  ['ignored', '/b/logo.svg', '200 Logo.svg file'],
  ['ignored', '/b/ABOUT.HTML', '200 about.html file'],
  ['ignored', '/b/gone.svg', '404 - nothing'],
])('letter case %s: %s', (letterCase, path, expected) => {
  expect(said(path, { letterCase })).toBe(expected)
})

test.each<[string, string]>([
  ['/b/_app/a.js', '404 - withheld'],
  ['/b/x/_app/b.js', '404 - withheld'],
  ['/b/_app/gone.js', '404 - nothing'],
  ['/b/app_/c.js', '200 app_/c.js file'],
])('names that begin with "_" are kept back: %s', (path, expected) => {
  expect(said(path, { withheld: ['_'] })).toBe(expected)
})

test('what is kept back is answered as the host answers unknown paths', () => {
  const host = { withheld: ['_'], fallback: { documents: ['index.html'], status: 200 } }
  expect(said('/b/_app/a.js', host)).toBe('200 index.html withheld')
  const { rule: words } = answer({ ...presetNamed('files'), ...host }, site, files, '/b/_app/a.js')
  expect(words).toContain('keeps such names back')
})

describe('rules', () => {
  test.each<[string, readonly Rule[], string, string]>([
    ['one that sends a page', [rule('/b/old', '/b/about.html')], '/b/old', '200 about.html rule'],
    ['one that sends a directory', [rule('/b/old', '/b/harbours')], '/b/old', '200 harbours/index.html rule'],
    ['one that sends the site', [rule('/b/old', '/b')], '/b/old', '200 index.html rule'],
    ['one that leads to nothing', [rule('/b/old', '/b/gone')], '/b/old', '404 - rule'],
    ['one that leads outside', [rule('/b/old', '/elsewhere')], '/b/old', '404 - rule'],
    ['one that sends on', [rule('/b/old', '/b/new', 302)], '/b/old', '302 → /b/new redirect'],
    [
      'one that sends on, blanks encoded',
      [rule('/b/old', '/b/a b%20c', 308)],
      '/b/old',
      '308 → /b/a%20b%20c redirect',
    ],
    ['one that sends on to nowhere', [rule('/b/old', null, 301)], '/b/old', '301 → /b/ redirect'],
    [
      'a status below those of redirects',
      [rule('/b/old', '/b/about.html', 299)],
      '/b/old',
      '299 about.html rule',
    ],
    [
      'a status above those of redirects',
      [rule('/b/old', '/b/about.html', 400)],
      '/b/old',
      '400 about.html rule',
    ],
    ['one that refuses', [rule('/b/old', null, 410)], '/b/old', '410 - rule'],
    [
      'one that forwards',
      [rule('/b/api/*', 'https://api.skerryline.example/:splat')],
      '/b/api/v1',
      '200 - proxy',
    ],
    ['a path with a colon is none of another origin', [rule('/b/old', '/b/x:y')], '/b/old', '404 - rule'],
    ['a file wins', [rule('/b/about.html', '/b/harbours/')], '/b/about.html', '200 about.html file'],
    [
      'a forced rule wins over a file',
      [rule('/b/about.html', '/b/both.html', 200, { forced: true })],
      '/b/about.html',
      '200 both.html rule',
    ],
    [
      'one with a condition is passed over',
      [rule('/b/old', '/b/about.html', 200, { conditions: ['Country=no'] })],
      '/b/old',
      '404 - nothing',
    ],
    [
      'the first that fits',
      [rule('/b/old', '/b/about.html'), rule('/b/*', '/b/index.html')],
      '/b/old',
      '200 about.html rule',
    ],
    [
      'the next where the first does not fit',
      [rule('/b/old', '/b/about.html'), rule('/b/*', '/b/index.html')],
      '/b/older',
      '200 index.html rule',
    ],
    ['one outside the base path', [rule('/old', '/b/new', 301)], '/old', '301 → /b/new redirect'],
  ])('%s', (_, rules, path, expected) => {
    expect(said(path, { rules })).toBe(expected)
  })
  test('what is kept back is sent by no rule', () => {
    expect(said('/b/old', { withheld: ['_'], rules: [rule('/b/old', '/b/_app/a.js')] })).toBe('404 - rule')
  })
  test('a rule leads to pages as they are, whatever becomes of the last slash', () => {
    const rules = [rule('/b/old', '/b/about')]
    expect(said('/b/old', { rules, extensionless: true, trailingSlash: 'add' })).toBe('200 about.html rule')
  })
})

test.each<[string, string, Record<string, string> | null]>([
  ['/a', '/a', {}],
  ['/a', '/a/', {}],
  ['/a', '/b', null],
  ['/a', '/a/b', null],
  ['/a/b', '/a', null],
  ['/a/:id', '/a/7', { id: '7' }],
  ['/a/:id', '/a', null],
  ['/a/:id/x', '/a/7/x', { id: '7' }],
  ['/a/*', '/a/b/c', { splat: 'b/c' }],
  ['/a/*', '/a', { splat: '' }],
  ['/*', '/', { splat: '' }],
])('the rule %s for %s', (from, path, expected) => {
  const found = matchRule({ from }, path)
  expect(found && Object.fromEntries(found)).toEqual(expected)
})

test('a target is filled in, and what has no value stays', () => {
  expect(
    targetOf(
      { to: '/b/:id/:splat/:other' },
      new Map([
        ['id', '7'],
        ['splat', 'x/y'],
      ]),
    ),
  ).toBe('/b/7/x/y/:other')
  expect(targetOf({ to: null }, new Map())).toBeNull()
})

describe('redirects', () => {
  const followed = (path: string, rules: readonly Rule[]): ReturnType<typeof follow> =>
    follow({ ...presetNamed('files'), rules }, site, files, path)

  test('two that lead to each other go on for ever', () => {
    const {
      loops,
      hops,
      answer: last,
    } = followed('/b/one', [rule('/b/one', '/b/two', 301), rule('/b/two', '/b/one', 301)])
    expect(loops).toBe(true)
    expect(last.status).toBe(301)
    expect(hops.slice(0, 3)).toEqual(['/b/two', '/b/one', '/b/two'])
    expect(hops).toHaveLength(20)
  })
  test('twenty in a row are as many as a browser follows', () => {
    const chain = (length: number): Rule[] =>
      Array.from({ length }, (_, index) =>
        rule(`/b/s${index}`, index + 1 < length ? `/b/s${index + 1}` : '/b/about.html', 302),
      )
    expect(followed('/b/s0', chain(20))).toMatchObject({ loops: false, pathname: '/b/about.html' })
    expect(followed('/b/s0', chain(21))).toMatchObject({ loops: true })
  })
  test('one that leaves the site is the last', () => {
    expect(followed('/b/one', [rule('/b/one', 'https://other.example/x', 302)])).toMatchObject({
      loops: false,
      pathname: '/b/one',
      hops: ['https://other.example/x'],
      answer: { status: 302 },
    })
  })
})

test('content types of its own', () => {
  const host = { ...presetNamed('files'), contentTypes: { bin: 'application/x-tide' } }
  expect(answer(host, site, files, '/b/data.bin').contentType).toBe('application/x-tide')
  expect(answer(host, site, files, '/b/about.html').contentType).toBe('text/html')
})

test.each<[string, string, string]>([
  ['error-page', '/b/gone', '404 404.html not-found document'],
  ['clean-urls', '/b/gone', '404 404.html not-found document'],
  ['clean-urls', '/b/about', '200 about.html extensionless name'],
  ['fallback', '/b/gone', '200 index.html fallback'],
])('the preset %s for %s', (name, path, expected) => {
  expect(said(path, presetNamed(name) ?? {})).toBe(expected)
})

test('the first document that is there is sent', () => {
  const documents = ['gone.html', 'about.html', 'index.html']
  expect(said('/b/unknown', { notFound: { documents, status: 410 } })).toBe(
    '410 about.html not-found document',
  )
  expect(said('/b/unknown', { fallback: { documents: ['gone.html'], status: 200 } })).toBe('404 - nothing')
})
