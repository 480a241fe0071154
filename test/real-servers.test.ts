import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { get } from 'node:http'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { answer } from '../src/core/host/answer.ts'
import type { Host } from '../src/core/host/host.ts'
import { presetNamed } from '../src/core/host/presets.ts'
import { apacheRules } from '../src/core/host/servers/apache.ts'
import { nginxRules } from '../src/core/host/servers/nginx.ts'
import type { Rule } from '../src/core/model/rule.ts'
import { parseSite, type Site } from '../src/core/model/site.ts'
import { FolderIndex } from '../src/core/requests/folder-index.ts'
import { installed, nginx, untilUp } from './support/servers.ts'

/** Files by their own names as content, so that the answer tells which was sent. */
const files = [
  'index.html',
  '404.html',
  'about/index.html',
  'plain.html',
  'both.html',
  'both/index.html',
  'deep/er/leaf.txt',
  'assets/app-AbCdEf12.js',
  'assets/a b.css',
  'assets/häfen.svg',
  'assets/100%.txt',
  'Case.txt',
  'no-extension',
  'index/inner.html',
  'dotted.name/index.html',
  '_kept/x.js',
  '.well-known/security.txt',
]

const rule = (from: string, to: string | null, status: number, forced = false): Rule => ({
  from,
  to,
  status,
  forced,
  conditions: [],
  place: null,
})

const named = (name: string, more: Partial<Host> = {}): Host => {
  const preset = presetNamed(name)
  if (!preset) throw new Error(name)
  return { ...preset, ...more }
}

const rules = (base: string): Rule[] => [
  rule(`${base}old`, `${base}about/`, 301),
  rule(`${base}moved/*`, `${base}deep/:splat`, 302),
  rule(`${base}by-name/:id/:part`, `${base}pages/:part/:id`, 308),
  rule(`${base}app/*`, `${base}index.html`, 200),
  rule(`${base}gone/*`, null, 410),
  rule(`${base}plain.html`, `${base}about/`, 301, true),
  rule(`${base}Case.txt`, `${base}about/`, 301),
  rule(`${base}away`, 'https://other.example/there', 302),
]

const hosts: readonly (readonly [string, (base: string) => Host])[] = [
  ['files', () => named('files')],
  ['fallback', () => named('fallback')],
  ['error-page', () => named('error-page')],
  ['clean-urls', () => named('clean-urls')],
  ['names withheld', () => named('files', { withheld: ['_', '.'] })],
  ['rules over plain files', (base) => named('files', { rules: rules(base) })],
  ['the last slash dropped', () => named('files', { trailingSlash: 'drop' })],
  ['the last slash dropped over a fallback', () => named('fallback', { trailingSlash: 'drop' })],
  ['the last slash and .html dropped', () => named('clean-urls', { trailingSlash: 'drop' })],
  ['the last slash added', () => named('files', { trailingSlash: 'add' })],
  ['the last slash added, .html dropped', () => named('clean-urls', { trailingSlash: 'add' })],
  ['rules over a fallback', (base) => named('fallback', { rules: rules(base) })],
]

const paths = [
  '',
  'index.html',
  'about',
  'about/',
  'about/index.html',
  'plain',
  'plain.html',
  'plain/',
  'both',
  'both/',
  'both.html',
  'deep',
  'deep/',
  'deep/er',
  'deep/er/',
  'deep/er/leaf.txt',
  'deep/er/leaf',
  'assets/app-AbCdEf12.js',
  'assets/gone.js',
  'assets/a%20b.css',
  'assets/h%C3%A4fen.svg',
  'assets/100%25.txt',
  'case.txt',
  'Case.txt',
  'no-extension',
  'no-extension/',
  'index',
  'index/',
  'dotted.name',
  'dotted.name/',
  '_kept/x.js',
  '.well-known/security.txt',
  'sailings',
  'sailings/',
  'sailings/42',
  'sailings/42/',
  'a%2Fb',
  'x.json',
  'x.html',
  '404',
  '404.html',
  'old',
  'old/',
  'older',
  'moved',
  'moved/x',
  'moved/er/leaf.txt',
  'by-name/7/tickets',
  'by-name/7',
  'app',
  'app/',
  'app/x/y',
  'gone/x',
  'away',
  'about?x=1',
  'sailings?x=1',
]
const outside = ['/', '/other', '/crossings', '/crossingsx', '/assets/app-AbCdEf12.js']

interface Seen {
  readonly status: number
  readonly location: string | null
  readonly file: string | null
}

const place = mkdtempSync(join(tmpdir(), 'wardoscope-servers-'))
const root = join(place, 'site')
const index = new FolderIndex(files.map((path) => ({ path })))
const running: ChildProcess[] = []

beforeAll(() => {
  for (const path of files) {
    mkdirSync(dirname(join(root, path)), { recursive: true })
    writeFileSync(join(root, path), path)
  }
})
afterAll(() => {
  for (const server of running) server.kill()
  rmSync(place, { recursive: true, force: true })
})

const servers = [
  {
    name: 'nginx',
    command: 'nginx',
    write: (host: Host, site: Site) => nginxRules(host, site, root, (file) => index.has(file)),
    start: startNginx,
    port: 18_810,
  },
  {
    name: 'Apache httpd',
    command: 'apache2',
    write: (host: Host, site: Site) => apacheRules(host, site, root, (file) => index.has(file)),
    start: startApache,
    port: 18_880,
  },
] as const

/** What a server does in its own way whatever its rules say. Listed in docs/hosts.md, with the reasons. */
const ownWays: Readonly<Record<string, readonly (readonly [RegExp, Seen])[]>> = {
  'Apache httpd': [[/%2F/, { status: 404, location: null, file: null }]],
}

function ownWay(server: string, path: string): Seen | null {
  return ownWays[server]?.find(([pattern]) => pattern.test(path))?.[1] ?? null
}

let requested = 0
for (const { name, command, write, start, port } of servers) {
  describe.skipIf(!installed(command))(`${name} answers as the model does`, () => {
    for (const [at, [title, hostOf]] of hosts.entries()) {
      for (const [turn, base] of ['/crossings/', '/'].entries()) {
        test(`${title}, at ${base}`, async () => {
          const host = hostOf(base)
          const site = parseSite(`http://127.0.0.1${base}`)
          const own = port + at * 2 + turn
          const text = write(host, site)
          // httpd has no plain words for slashes.
          if (host.trailingSlash !== 'keep' && name !== 'nginx') {
            expect(text).toBeNull()
            return
          }
          expect(text).not.toBeNull()
          await start(own, text ?? '')
          const all = [...paths.map((path) => base + path), ...(base === '/' ? [] : outside)]
          const differing: string[] = []
          for (const path of all) {
            const [model, real] = [ownWay(name, path) ?? modelled(host, site, path), await ask(own, path)]
            requested++
            if (JSON.stringify(model) !== JSON.stringify(real)) {
              differing.push(`${path}: model ${tell(model)}, ${name} ${tell(real)}`)
            }
          }
          expect(differing).toEqual([])
        })
      }
    }
  })
}

test('more than three hundred requests were compared with each server that is installed', () => {
  const there = servers.filter(({ command }) => installed(command)).length
  expect(there, 'nginx and apache2 are not installed: apt-get install nginx apache2').toBeGreaterThan(0)
  expect(requested).toBeGreaterThan(300 * there)
})

function tell({ status, location, file }: Seen): string {
  return [status, location ?? file ?? ''].join(' ')
}

function modelled(host: Host, site: Site, path: string): Seen {
  const { status, location, file } = answer(host, site, index, path.replace(/\?.*$/, ''))
  return { status, location, file }
}

function ask(port: number, path: string): Promise<Seen> {
  return new Promise((resolve, reject) => {
    get({ port, path, host: '127.0.0.1' }, (response) => {
      let body = ''
      response.setEncoding('utf8').on('data', (part) => {
        body += part
      })
      response.on('end', () => {
        const { statusCode: status = 0, headers } = response
        const location =
          headers.location?.replace(`http://127.0.0.1:${port}`, '').replace(/\?x=1$/, '') ?? null
        resolve({ status, location, file: location === null && files.includes(body) ? body : null })
      })
    }).on('error', reject)
  })
}

async function startNginx(port: number, text: string): Promise<void> {
  running.push(
    await nginx(join(place, `nginx-${port}`), port, `server { listen 127.0.0.1:${port};\n${text}}`),
  )
}

async function startApache(port: number, text: string): Promise<void> {
  const own = join(place, `apache-${port}`)
  // The rest of the origin belongs to somebody else, and has nothing at its top.
  mkdirSync(join(own, 'elsewhere'), { recursive: true })
  const elsewhere = text.includes('Alias "/') ? 'RedirectMatch 404 "^/$"\n' : ''
  const modules = ['mpm_event', 'authz_core', 'alias', 'dir', 'mime', 'rewrite']
    .map((name) => `LoadModule ${name}_module /usr/lib/apache2/modules/mod_${name}.so`)
    .join('\n')
  writeFileSync(
    join(own, 'httpd.conf'),
    `ServerRoot "${own}"\nServerName 127.0.0.1\nListen 127.0.0.1:${port}\nPidFile ${own}/pid\nErrorLog ${own}/error.log\nDefaultRuntimeDir ${own}\n${modules}\nTypesConfig /etc/mime.types\nDocumentRoot ${own}/elsewhere\n<Directory />\nRequire all granted\n</Directory>\n<VirtualHost 127.0.0.1:${port}>\n${elsewhere}${text}</VirtualHost>\n`,
  )
  execFileSync('apache2', ['-t', '-f', join(own, 'httpd.conf')], { stdio: 'pipe' })
  running.push(spawn('apache2', ['-X', '-f', join(own, 'httpd.conf')], { stdio: 'inherit' }))
  await untilUp(port)
}
