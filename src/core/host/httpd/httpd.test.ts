import fc from 'fast-check'
import { expect, test } from 'vitest'
import { parseSite } from '../../model/site.ts'
import { FolderIndex } from '../../requests/folder-index.ts'
import { answer } from '../answer.ts'
import type { Host } from '../host.ts'
import { assumedHost } from '../presets.ts'
import { directivesIn } from './directives.ts'
import { httpdServerFor, readHttpd } from './read.ts'

const site = parseSite('https://skerryline.example/')
const files = new FolderIndex(['index.html', 'about/index.html', 'a.css'].map((path) => ({ path })))

const published = (text: string): Host => ({
  ...assumedHost,
  server: readHttpd(null, [{ directory: '', file: '.htaccess', text }]),
})

test('the grammar: sections, quotes, lines that go on, comments, and where each directive stands', () => {
  const { directives, broken } = directivesIn(
    '.htaccess',
    '# none\n<IfModule mod_rewrite.c>\n  RewriteRule "^a b$" \\\n    \'/c\' [L]\n</IfModule>\nErrorDocument 404 "say \\"no\\""',
  )
  expect(broken).toEqual([])
  expect(directives).toMatchObject([
    {
      name: 'ifmodule',
      args: ['mod_rewrite.c'],
      inside: [{ name: 'rewriterule', args: ['^a b$', '/c', '[L]'], place: { line: 3, column: 3 } }],
    },
    { name: 'errordocument', args: ['404', 'say "no"'], inside: null, place: { line: 6 } },
  ])
})

test.each([
  ['</Files>', '</Files> closes nothing', 1],
  ['<Files a>\nOptions -Indexes', '<files> is not closed', 2],
  ['<Files a>\n'.repeat(200), 'sections are nested too deeply', 100],
])('what breaks the grammar is said with its line', (text, what, line) => {
  expect(directivesIn('.htaccess', text).broken[0]).toMatchObject({ what, place: { line } })
})

test('any text is read, and every path gets an answer', () => {
  const words = [
    'RewriteEngine On',
    'RewriteRule',
    '^(.*)$',
    '/$1',
    '[L]',
    '[R=301,L]',
    '.',
    '- [F]',
    'RewriteCond',
    '%{REQUEST_FILENAME}',
  ]
  const more = [
    '!-f',
    '[OR]',
    'ErrorDocument 404',
    '/index.html',
    'Redirect 301 /',
    'FallbackResource',
    '<Files a>',
    '</Files>',
    '"',
    '\\',
    '\n',
  ]
  const text = fc.oneof(
    fc.string({ maxLength: 80 }),
    fc
      .array(fc.constantFrom(...words, ...more), { maxLength: 30 })
      .map((all) => all.join(' ').replaceAll(' \n ', '\n')),
  )
  fc.assert(
    fc.property(text, fc.webPath(), (configuration, path) => {
      const { status } = answer(published(configuration), site, files, path === '' ? '/' : path)
      expect(status).toBeGreaterThanOrEqual(100)
    }),
    { numRuns: 600 },
  )
})

test('the virtual host that answers: by its name, by its port', () => {
  const text = `<VirtualHost *:80>\nServerName skerryline.example\nDocumentRoot /one\n</VirtualHost>
<VirtualHost *:443>\nServerName other.example\nServerAlias skerryline.example\nDocumentRoot "/two/"\n</VirtualHost>
<VirtualHost *:443>\nServerName third.example\nDocumentRoot /three\n</VirtualHost>`
  const host = readHttpd({ file: 'site.conf', text }, [])
  const rootFor = (origin: string): string => httpdServerFor(host, origin).root
  expect(rootFor('http://skerryline.example')).toBe('/one')
  expect(rootFor('https://skerryline.example')).toBe('/two')
  expect(rootFor('https://nobody.example')).toBe('/two')
})

test('files of directories are read only where they are allowed', () => {
  const at = (override: string): number => {
    const text = `DocumentRoot /srv\n<Directory /srv>\nAllowOverride ${override}\n</Directory>`
    const file = { directory: '', file: '.htaccess', text: 'FallbackResource /index.html' }
    return answer({ ...assumedHost, server: readHttpd({ file: 'a.conf', text }, [file]) }, site, files, '/x')
      .status
  }
  expect([at('All'), at('None')]).toEqual([200, 404])
})

test.each([
  ['a condition that is computed', 'RewriteEngine On\nRewriteCond expr "true"\nRewriteRule . /x [L]'],
  ['a map', 'RewriteEngine On\nRewriteRule ^(.*)$ ${paths:$1} [L]'],
  ['a pattern of PCRE alone', 'RewriteEngine On\nRewriteRule ^(?>x) /y [L]'],
  ['negotiation', 'Options +MultiViews'],
])('%s makes an answer unclear', (_, text) => {
  expect(answer(published(text), site, files, '/harbours').unclear).toBeDefined()
})

test('no path and no base path is too odd for an answer', async () => {
  const host = published('Redirect 301 /o /n\nFallbackResource disabled\n')
  const piece = fc.constantFrom(
    '/',
    'o',
    '%',
    '%zz',
    '%23',
    '%C3%A4',
    'é',
    '\ud800',
    '..',
    '?',
    '#',
    ' ',
    '%25',
  )
  const odd = fc.array(piece, { maxLength: 6 }).map((all) => `/${all.join('')}`)
  fc.assert(
    fc.property(odd, odd, (base, path) => {
      if (!URL.canParse(`https://skerryline.example${base}`)) return
      const at = parseSite(`https://skerryline.example${base}`)
      expect(answer(host, at, files, path).status).toBeGreaterThanOrEqual(200)
      expect(answer(host, at, files, at.base + path.slice(1)).status).toBeGreaterThanOrEqual(200)
    }),
    { numRuns: 1_000 },
  )
})
