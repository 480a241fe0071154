import fc from 'fast-check'
import { expect, test } from 'vitest'
import { parseSite } from '../../model/site.ts'
import { FolderIndex } from '../../requests/folder-index.ts'
import { answer } from '../answer.ts'
import type { Host } from '../host.ts'
import { assumedHost } from '../presets.ts'
import { directivesIn } from './directives.ts'
import { type Include, type NginxHost, readNginx, serverFor } from './read.ts'

const site = parseSite('https://skerryline.example/')
const files = new FolderIndex(['index.html', 'about/index.html', 'a.css'].map((path) => ({ path })))

async function nginxHost(
  text: string,
  include: Include = async () => [],
): Promise<Host & { readonly server: NginxHost }> {
  return { ...assumedHost, server: await readNginx('a.conf', text, include, null) }
}

test('the grammar: comments, quotes, escapes, variables in braces, and where each directive stands', () => {
  const { directives, broken } = directivesIn(
    'a.conf',
    `user nginx; # a; comment {\nhttp {\n  server_name "a b" 'c\\'d' ~^x\\.y$ \${z}w;}\n`,
  )
  expect(broken).toBeNull()
  expect(directives).toMatchObject([
    { name: 'user', args: ['nginx'], block: null, place: { line: 1, column: 1 }, source: 'user nginx;' },
    {
      name: 'http',
      source: 'http {',
      block: [
        { name: 'server_name', args: ['a b', "c'd", '~^x\\.y$', '${z}w'], place: { line: 3, column: 3 } },
      ],
    },
  ])
})

test.each([
  ['a;\nb', '"b" is not ended by ";"', 2],
  ['a {\n b; ', 'a "{" is not closed', 2],
  ['a; }', 'a "}" closes nothing', 1],
  ['; a;', '";" stands where a directive should', 1],
  ['{', '"{" stands where a directive should', 1],
  ['a { b }', '"b" is not ended by ";"', 1],
  ['a{'.repeat(200), 'blocks are nested too deeply', 1],
])('what breaks the grammar is said with its line: %s', (text, what, line) => {
  expect(directivesIn('a.conf', text).broken).toMatchObject({ what, place: { file: 'a.conf', line } })
})

test('any text is read, and every path gets an answer', async () => {
  const words = [
    'server',
    'location',
    '/',
    '~',
    '{',
    '}',
    ';',
    'root',
    '/srv',
    'try_files',
    '$uri',
    '/index.html',
    '=404',
  ]
  const more = [
    'if',
    '(-f',
    '$x)',
    'rewrite',
    '^(.*)$',
    '/$1',
    'last',
    'return',
    '301',
    'error_page',
    '404',
    'alias',
    '@a',
    'set',
    '"',
    '\\',
    '#',
    '\n',
  ]
  const text = fc.oneof(
    fc.string({ maxLength: 80 }),
    fc.array(fc.constantFrom(...words, ...more), { maxLength: 40 }).map((all) => all.join(' ')),
  )
  await fc.assert(
    fc.asyncProperty(text, fc.webPath(), async (configuration, path) => {
      const host = await nginxHost(configuration)
      const { status } = answer(host, site, files, path === '' ? '/' : path)
      expect(status).toBeGreaterThanOrEqual(100)
    }),
    { numRuns: 600 },
  )
})

test('the block that answers: by name, by scheme, the one that is no redirect', async () => {
  const of = async (text: string, origin: string): Promise<string> => {
    const host = await nginxHost(text)
    return serverFor(host.server, origin).top.settings.root.directory
  }
  const two = `server { listen 80; server_name skerryline.example; return 301 https://$host$request_uri; }
server { listen 443 ssl; server_name *.skerryline.example skerryline.example; root /one; }
server { listen 443 ssl default_server; root /two; }`
  expect(await of(two, 'https://skerryline.example')).toBe('/one')
  expect(await of(two, 'https://www.skerryline.example')).toBe('/one')
  expect(await of(two, 'https://other.example')).toBe('/two')
  const api =
    'server { listen 80; location / { proxy_pass http://api; } } server { listen 80; location / { root /five; } }'
  expect(await of(api, 'http://skerryline.example')).toBe('html')
  const named = `server { server_name api.skerryline.example; root /six; } ${api}`
  expect(await of(named, 'http://api.skerryline.example')).toBe('/six')
  const plain = 'server { listen 80; return 301 /x; } server { listen 8080; root /three; }'
  expect(await of(plain, 'https://skerryline.example')).toBe('/three')
  expect(await of('location / { } root /four;', 'https://skerryline.example')).toBe('/four')
})

test('a file that is included is read with its own places; one that is not at hand is named', async () => {
  const text = 'server { root /srv; include snippets/*.conf; include gone.conf; include mime.types; }'
  const host = await nginxHost(text, async (pattern) =>
    pattern === 'snippets/*.conf'
      ? [{ file: 'snippets/b.conf', text: '\nlocation / { try_files $uri /index.html; }' }]
      : [],
  )
  expect(answer(host, site, files, '/x')).toMatchObject({
    status: 200,
    file: 'index.html',
    by: 'fallback',
    rule: 'try_files at snippets/b.conf:2',
  })
  expect(serverFor(host.server, site.origin).unclear).toMatchObject([
    { what: 'include gone.conf', place: { file: 'a.conf', line: 1 } },
  ])
})

test('a file that includes itself ends', async () => {
  const host = await nginxHost('server { include a; }', async () => [{ file: 'a', text: 'include a;' }])
  expect(answer(host, site, files, '/').status).toBe(200)
})

test.each([
  ['a pattern that may take for ever', 'location ~ ^(a+)+$ { return 410; }', '/aaa'],
  ['a pattern of PCRE alone', 'location ~ ^/(?>a) { return 410; }', '/a'],
  ['a variable that nobody knows', 'location / { if ($geoip_country = x) { return 410; } }', '/a.css'],
  ['a module of somebody else', 'location / { own_module on; }', '/a.css'],
])('%s makes an answer unclear', async (_, inside, path) => {
  const host = await nginxHost(`server { root /srv; ${inside} }`)
  expect(answer(host, site, files, path).unclear).toBeDefined()
})

test('a redirect to the port of the server itself leaves the site; one to its usual port does not', async () => {
  const at = async (listen: string): Promise<string | null> => {
    const host = await nginxHost(`server { listen ${listen}; root /srv; }`)
    return answer(host, site, files, '/about').location
  }
  expect(await at('80')).toBe('/about/')
  expect(await at('8080')).toBe('http://skerryline.example:8080/about/')
})

test('no path and no base path is too odd for an answer', async () => {
  const host = await nginxHost(
    'server { root /srv; rewrite ^/o/(.*)$ /n/$1 permanent; location / { try_files $uri $uri/ =404; } }',
  )
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
