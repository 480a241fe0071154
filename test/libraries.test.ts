import { cpSync, mkdtempSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from 'vitest'
import { presetNamed } from '../src/core/host/presets.ts'
import type { Report } from '../src/core/model/report.ts'
import { parseSite } from '../src/core/model/site.ts'
import { check } from '../src/core/pipeline/check.ts'
import { DiskFolder } from '../src/node/disk-folder.ts'
import { builtLibraries } from './libraries/build.mjs'

/** Every planted module: the origin that it calls, what it passes it to, and the source that names it. */
const planted = {
  'http://localhost:8801': ['client', 'src/client-base.js:3'],
  'http://localhost:8802': ['fetch', 'src/template.js:1'],
  'http://localhost:8803': ['fetch', 'src/port.js:2'],
  'http://localhost:8804': ['fetch', 'src/default.js:1'],
  'http://localhost:8805': ['fetch', 'src/nested.js:1'],
  'http://localhost:8806': ['fetch', 'src/class-field.js:2'],
  'http://localhost:8807': ['fetch', 'src/constants.js:1'],
  'http://localhost:8808': ['configuration', 'public/config.json:1'],
  'http://localhost:8809': ['configuration', 'index.html:6'],
  'http://localhost:8811': ['fetch', 'public/sw.js:2'],
  'http://localhost:8812': ['element', 'src/theme.css:1'],
  'http://localhost:8813': ['EventSource', 'src/events.js:1'],
  'http://localhost:8814': ['form', 'index.html:8'],
  'http://127.0.0.1:8815': ['XMLHttpRequest', 'src/request.js:7'],
  'http://localhost:8816': ['fetch', 'src/parts.js:1'],
  'ws://localhost:8810': ['WebSocket', 'src/socket.js:1'],
} as const

/** webpack makes no page and copies nothing: these the test lays beside its scripts, and no source names them. */
const laidBeside = ['public/', 'index.html']

let home = ''
beforeAll(() => {
  home = builtLibraries()
}, 900_000)

async function checked(path: string): Promise<Report> {
  const options = { site: parseSite('https://skerryline.example/crossings/'), host: presetNamed('fallback') }
  return check(await DiskFolder.open(path), options)
}

/** `origin flow` of every finding; anything else than a blocker for a planted endpoint stands out. */
function reported({ findings, endpoints }: Report): string[] {
  return findings
    .map(({ code, severity, cause }) => {
      const origin = /\w+:\/\/[\w.:]+\d/.exec(cause)?.[0] ?? cause
      const flow = endpoints.find(
        ({ url, certainty }) => certainty === 'called' && url.startsWith(origin),
      )?.flow
      return `${code === 'endpoint/loopback' ? '' : code}${severity === 'blocker' ? '' : severity}${origin} ${flow}`
    })
    .sort()
}

const expected = Object.entries(planted)
  .map(([origin, [flow]]) => `${origin} ${flow}`)
  .sort()

function bytesBelow(directory: string): number {
  const files = readdirSync(directory, { recursive: true, encoding: 'utf8' }).map((path) =>
    join(directory, path),
  )
  return files.reduce((sum, path) => sum + (statSync(path).isFile() ? statSync(path).size : 0), 0)
}

test('the libraries are many, real and large', () => {
  const { dependencies } = JSON.parse(
    readFileSync(new URL('libraries/libraries.json', import.meta.url), 'utf8'),
  )
  expect(Object.keys(dependencies).length).toBeGreaterThan(25)
  expect(bytesBelow(join(home, 'vite/dist')) + bytesBelow(join(home, 'webpack/dist'))).toBeGreaterThan(
    20_000_000,
  )
})

describe.each(['vite', 'webpack'])('bundled with %s', (tool) => {
  test('each planted endpoint is found with its source, and nothing else', async () => {
    const report = await checked(join(home, tool))
    expect(reported(report)).toEqual(expected)
    for (const [origin, [, place]] of Object.entries(planted)) {
      if (tool === 'webpack' && laidBeside.some((path) => place.startsWith(path))) continue
      const finding = report.findings.find(({ cause }) => cause.includes(origin))
      expect(`${finding?.source?.file}:${finding?.source?.line}`).toBe(place)
      expect(finding?.places[0]?.excerpt).toContain('8')
    }
  })

  test('as a bare folder, without any source', async () => {
    const bare = mkdtempSync(join(tmpdir(), 'wardoscope-bare-'))
    cpSync(join(home, tool, 'dist'), bare, { recursive: true })
    const report = await checked(bare)
    expect(reported(report)).toEqual(expected)
    const passed = report.endpoints.filter(
      ({ kind, certainty }) => kind === 'loopback' && certainty === 'harmless',
    )
    expect(passed.length).toBeGreaterThan(2)
    for (const { judgement } of passed) expect(judgement).not.toBe('')
  })
})
