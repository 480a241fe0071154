import type { ChildProcess } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { answer } from '../../src/core/host/answer.ts'
import { serverHost } from '../../src/core/host/server-host.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { FolderIndex } from '../../src/core/requests/folder-index.ts'
import { installed, nginx } from '../support/servers.ts'
import { asked, type Seen, sentBy, serverFiles, serverPaths } from './asking.ts'
import { nginxConfigurations } from './nginx-configurations.ts'

const place = mkdtempSync(join(tmpdir(), 'wardoscope-nginx-'))
const index = new FolderIndex(serverFiles.map((path) => ({ path })))
const firstPort = 19_210
let server: ChildProcess | null = null
let compared = 0

const all = Object.entries(nginxConfigurations).map(([title, written], at) => {
  const base = written.base ?? '/'
  const root = join(place, base === '/' ? 'site' : 'sites')
  const text = written.text.replaceAll('ROOT', root)
  return { title, base, text, outside: written.outside ?? '', port: firstPort + at }
})

beforeAll(async () => {
  for (const directory of ['site', 'sites/crossings'])
    for (const path of serverFiles) {
      mkdirSync(dirname(join(place, directory, path)), { recursive: true })
      writeFileSync(join(place, directory, path), path)
    }
  if (!installed('nginx')) return
  const types = '/etc/nginx/mime.types'
  const blocks = all.map(
    ({ text, outside, port }) =>
      `${outside}\nserver { listen 127.0.0.1:${port}; server_name 127.0.0.1; ${text} }`,
  )
  server = await nginx(
    join(place, 'own'),
    firstPort,
    `include ${types}; default_type application/octet-stream; ${blocks.join('\n')}`,
  )
})
afterAll(() => {
  server?.kill()
  rmSync(place, { recursive: true, force: true })
})

describe.skipIf(!installed('nginx'))('nginx answers as its configuration is read', () => {
  test.each(all)('$title', async ({ base, text, outside, port }) => {
    const site = parseSite(`http://127.0.0.1:${port}${base}`)
    const whole = `${outside}\nserver { listen ${port}; server_name 127.0.0.1; ${text} }`
    const host = await serverHost({ file: 'nginx.conf', text: whole })
    const differing: string[] = []
    for (const path of serverPaths(base)) {
      const said = answer(host, site, index, path)
      const model: Seen = {
        status: said.by === 'proxy' ? 502 : said.status,
        file: said.file,
        location: said.location,
        contentType: said.file === null ? null : said.contentType,
      }
      const real = sentBy(await asked(port, path), port)
      compared++
      if (JSON.stringify(model) !== JSON.stringify(real))
        differing.push(`${path}: model ${JSON.stringify(model)}, nginx ${JSON.stringify(real)}`)
    }
    expect(differing).toEqual([])
  })

  test('more than three thousand requests were compared', () => {
    expect(compared).toBeGreaterThan(3_000)
  })
})
