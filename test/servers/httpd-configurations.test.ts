import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { answer } from '../../src/core/host/answer.ts'
import { serverHost } from '../../src/core/host/server-host.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { FolderIndex } from '../../src/core/requests/folder-index.ts'
import { installed, untilUp } from '../support/servers.ts'
import { asked, type Seen, sentBy, serverFiles, serverPaths } from './asking.ts'
import { httpdConfigurations } from './httpd-configurations.ts'

const place = mkdtempSync(join(tmpdir(), 'wardoscope-httpd-'))
const firstPort = 19_310
let server: ChildProcess | null = null
let compared = 0

const all = Object.entries(httpdConfigurations).map(([title, { host, files = {}, base = '/' }], at) => {
  const root = join(place, `root-${at}`)
  return { title, base, root, files, host: host?.replaceAll('ROOT', root) ?? null, port: firstPort + at }
})
const folderOf = ({ root, base }: { root: string; base: string }): string => join(root, base)

beforeAll(async () => {
  for (const each of all) {
    mkdirSync(`${each.root}-away`, { recursive: true })
    for (const path of serverFiles) {
      mkdirSync(dirname(join(folderOf(each), path)), { recursive: true })
      writeFileSync(join(folderOf(each), path), path)
    }
    for (const [directory, text] of Object.entries(each.files))
      writeFileSync(join(each.root, directory, '.htaccess'), `${text}\n`)
  }
  if (!installed('apache2')) return
  const modules = [
    'mpm_event',
    'authz_core',
    'alias',
    'autoindex',
    'dir',
    'env',
    'expires',
    'headers',
    'mime',
    'proxy',
    'proxy_http',
    'rewrite',
    'setenvif',
  ]
    .map((name) => `LoadModule ${name}_module /usr/lib/apache2/modules/mod_${name}.so`)
    .join('\n')
  const hosts = all.map(
    ({ port, host, root }) => `Listen 127.0.0.1:${port}
<VirtualHost 127.0.0.1:${port}>
${host ?? `DocumentRoot "${root}"\n<Directory "${root}">\nAllowOverride All\nOptions FollowSymLinks\n</Directory>`}
</VirtualHost>`,
  )
  const own = join(place, 'own')
  mkdirSync(own)
  const config = join(own, 'httpd.conf')
  writeFileSync(
    config,
    `ServerRoot "${own}"\nServerName 127.0.0.1\nPidFile ${own}/pid\nErrorLog ${own}/error.log\nDefaultRuntimeDir ${own}\n${modules}\nTypesConfig /etc/mime.types\n<Directory />\nRequire all granted\n</Directory>\n<FilesMatch "^\\.ht">\nRequire all denied\n</FilesMatch>\n${hosts.join('\n')}\n`,
  )
  execFileSync('apache2', ['-t', '-f', config], { stdio: 'pipe' })
  server = spawn('apache2', ['-X', '-f', config], { stdio: 'inherit' })
  await untilUp(firstPort)
})
afterAll(() => {
  server?.kill()
  rmSync(place, { recursive: true, force: true })
})

describe.skipIf(!installed('apache2'))('httpd answers as its configuration is read', () => {
  test.each(all)('$title', async ({ base, root, host: text, files, port }) => {
    const site = parseSite(`http://127.0.0.1:${port}${base}`)
    const top = base.replace(/^\/|\/$/g, '')
    const own = Object.entries(files).map(([directory, each]) => ({
      directory: directory === top ? '' : directory,
      file: '.htaccess',
      text: each,
    }))
    const names = [...serverFiles, ...own.map(({ directory }) => join(directory, '.htaccess'))]
    const index = new FolderIndex(names.map((path) => ({ path })))
    const mount = { directory: join(root, base), place: { file: 'httpd.conf', line: 1, column: 1 } }
    // Without the server's own configuration the folder stands where it usually does.
    const whole = text === null ? null : { file: 'httpd.conf', text }
    const host = await serverHost(whole, { files: own, ...(whole && { mount }) })
    const differing: string[] = []
    for (const path of serverPaths(base)) {
      const said = answer(host, site, index, path)
      const model: Seen = {
        status: said.by === 'proxy' ? 503 : said.status,
        file: said.file,
        location: said.location?.replace('/var/www/html', root) ?? null,
        contentType: said.file === null ? null : said.contentType,
      }
      const real = sentBy(await asked(port, path), port)
      // The server's own list of types is another on every machine.
      const known = model.contentType?.startsWith('text/x-') || /\.(?:html|css|wasm)$/.test(model.file ?? '')
      const shown = known ? real : { ...real, contentType: model.contentType }
      compared++
      if (JSON.stringify(model) !== JSON.stringify(shown))
        differing.push(`${path}: model ${JSON.stringify(model)}, httpd ${JSON.stringify(shown)}`)
    }
    expect(differing).toEqual([])
  })

  test('more than 2,500 requests were compared', () => {
    expect(compared).toBeGreaterThan(2_500)
  })
})
