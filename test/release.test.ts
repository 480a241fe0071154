import type { ChildProcess } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { get } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { build } from 'vite'
import { afterAll, describe, expect, test } from 'vitest'
import { presetNamed } from '../src/core/host/presets.ts'
import { nginxRules } from '../src/core/host/servers/nginx.ts'
import { MemoryFolder } from '../src/core/model/memory-folder.ts'
import type { Comparison, Report } from '../src/core/model/report.ts'
import { parseSite } from '../src/core/model/site.ts'
import { check } from '../src/core/pipeline/check.ts'
import { readRecord, recordOf, writeRecord } from '../src/core/release/record.ts'
import type { Release } from '../src/core/release/release.ts'
import { DiskFolder } from '../src/node/disk-folder.ts'
import { wardoscope } from './support/cli.ts'
import { folderWith, linkPackages } from './support/folders.ts'
import { judged, recorded } from './support/releases.ts'
import { installed, nginx } from './support/servers.ts'

const address = 'https://skerryline.example/crossings/'
const site = parseSite(address)
const place = mkdtempSync(join(tmpdir(), 'wardoscope-release-'))
const running: ChildProcess[] = []
afterAll(() => {
  for (const server of running) server.kill()
  rmSync(place, { recursive: true, force: true })
})

async function compared(
  earlier: Release,
  later: DiskFolder | MemoryFolder,
  hostName: string,
  at = site,
): Promise<Report & { comparison: Comparison }> {
  const report = await check(later, { site: at, host: presetNamed(hostName), earlier })
  if (!report.comparison) throw new Error('nothing was compared')
  return { ...report, comparison: report.comparison }
}

/** Changes in files of a project: a text in place of another, or a new file. */
type Edits = Readonly<Record<string, readonly [from: string, to: string] | string>>

interface Case {
  readonly project: string
  readonly host: string
  readonly edits: Edits
  readonly expected: (comparison: Comparison) => void
}

const corpus = (name: string): string => join('corpus', name, 'project')

/** Two real builds of each project, a change between them. */
const cases: Readonly<Record<string, Case>> = {
  'the demo, a line of one page': {
    project: 'examples/skerry-line',
    host: 'fallback',
    edits: { 'src/pages/Harbour.tsx': ['<h1>', '<h1 lang="en">'] },
    expected: ({ counts, purge, purgeBelow, chunksGone, rewritten }) => {
      expect(counts).toMatchObject({ added: 0, gone: 0 })
      expect(counts.renamed).toBeGreaterThan(0)
      expect(purge).toContain('/crossings/')
      expect(purge).toContain('/crossings/tickets/new')
      expect(purgeBelow).toBe('/crossings/')
      expect(purge.some((path) => path.includes('/assets/'))).toBe(false)
      expect(chunksGone.some((path) => /Harbour-/.test(path))).toBe(true)
      expect(rewritten).toEqual([])
    },
  },
  'several pages, one more': {
    project: corpus('vite-pages'),
    host: 'files',
    edits: {
      'timetable/index.html':
        '<!doctype html><title>Timetable</title><script type="module" src="/src/about.js"></script>',
      'index.html': ['</body>', '<a href="/crossings/timetable/">Timetable</a></body>'],
      'vite.config.js': ["'about/index.html'", "'about/index.html', 'timetable/index.html'"],
    },
    expected: ({ added, purge, routes, purgeBelow }) => {
      expect(added.map(({ path }) => path)).toContain('timetable/index.html')
      expect(routes).toEqual({ won: ['/timetable/'], lost: [] })
      // What pages share moves to another chunk, and so the other page changes too.
      for (const path of ['/crossings/', '/crossings/index.html', '/crossings/about/'])
        expect(purge).toContain(path)
      expect(purge).not.toContain('/crossings/timetable/')
      expect(purgeBelow).toBeNull()
    },
  },
  'a page and a picture of the same name, changed': {
    project: corpus('vite-pages'),
    host: 'clean-urls',
    edits: {
      'about/index.html': ['</body>', '<p>Since 1911.</p></body>'],
      'public/mark.svg': ['<svg', '<svg data-new=""'],
    },
    expected: ({ changed, purge, counts }) => {
      expect(changed.map(({ path }) => path)).toEqual(['about/index.html', 'mark.svg'])
      expect(counts).toEqual({ added: 0, changed: 2, renamed: 0, gone: 0 })
      expect(purge).toEqual(['/crossings/about/', '/crossings/about/index.html', '/crossings/mark.svg'])
    },
  },
  'one chunk of a component': {
    project: corpus('vite-vue'),
    host: 'fallback',
    edits: { 'src/harbours.js': ['[', "['Outer Skerry', "] },
    expected: ({ renamed, chunksGone, purge, firstVisits }) => {
      expect(renamed.some(({ was }) => /Harbours-/.test(was))).toBe(true)
      expect(chunksGone).toHaveLength(1)
      expect(purge).toEqual(['/crossings/', '/crossings/index.html'])
      expect(firstVisits.length).toBeLessThanOrEqual(1)
    },
  },
  'another service and another variable': {
    project: corpus('vite-react'),
    host: 'fallback',
    edits: {
      'src/main.jsx':
        'fetch("https://tides.skerryline.example/v2"); document.title = import.meta.env.VITE_TIDES ?? "Tides"',
      '.env.production': 'VITE_TIDES=tides-of-the-outer-isles',
    },
    expected: ({ endpoints, variables }) => {
      expect(endpoints.won).toEqual(['https://tides.skerryline.example'])
      expect(variables.won).toEqual(['VITE_TIDES'])
      expect(variables.lost.length).toBeGreaterThan(0)
    },
  },
  'nothing at all': {
    project: corpus('vite-svelte'),
    host: 'fallback',
    edits: {},
    expected: ({ same, purge, counts }) => {
      expect(same).toBe(true)
      expect(purge).toEqual([])
      expect(counts).toEqual({ added: 0, changed: 0, renamed: 0, gone: 0 })
    },
  },
}

let builds = 0
async function twoBuilds({ project, edits }: Pick<Case, 'project' | 'edits'>) {
  const root = join(place, `project-${builds++}`)
  cpSync(project, root, { recursive: true, filter: (path) => !/node_modules|dist$/.test(path) })
  linkPackages(root)
  const releases: string[] = []
  for (const name of ['first', 'second']) {
    if (name === 'second') edit(root, edits)
    await build({ root, logLevel: 'silent', envDir: root })
    const kept = `${root}-${name}`
    cpSync(join(root, 'dist'), join(kept, 'dist'), { recursive: true })
    for (const file of [
      'package.json',
      'vite.config.js',
      'vite.config.ts',
      'src',
      '.env.production',
      'index.html',
    ]) {
      cpSync(join(root, file), join(kept, file), { recursive: true, force: true, ...quiet(root, file) })
    }
    releases.push(kept)
  }
  const [first = '', second = ''] = releases
  return {
    first: await DiskFolder.open(first),
    second: await DiskFolder.open(second),
    paths: { first, second },
  }
}

/** What a project does not have is not copied. */
function quiet(root: string, file: string): { filter?: () => boolean } {
  try {
    readFileSync(join(root, file))
    return {}
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EISDIR' ? {} : { filter: () => false }
  }
}

function edit(root: string, edits: Edits): void {
  for (const [file, change] of Object.entries(edits)) {
    const path = join(root, file)
    if (typeof change === 'string') {
      cpSync(join(root, 'package.json'), path)
      writeFileSync(path, change)
      continue
    }
    const before = readFileSync(path, 'utf8')
    expect(before, file).toContain(change[0])
    writeFileSync(path, before.replace(change[0], change[1]))
  }
}

let port = 18_930
describe.each(Object.entries(cases))('two real builds: %s', (_, one) => {
  test('what changed is reported, and a cache that is purged of just that holds the second', async () => {
    const { first, second, paths } = await twoBuilds(one)
    const earlier = await recorded(first, one.host)
    const { comparison } = await compared(earlier, second, one.host)
    one.expected(comparison)
    if (!installed('nginx')) return
    const later = await recorded(second, one.host)
    await proveByCache(paths, one.host, { earlier, later, purge: comparison.purge })
  })
})

test('a cache stood behind the proof', () => {
  expect(installed('nginx'), 'nginx is not installed: apt-get install nginx').toBe(true)
})

/**
 * A caching proxy before a server. The first release is fetched through it, the second is put in its place. Then every
 * listed path is stale, so that none may be left out; and once they are purged, nothing of the second release is.
 */
async function proveByCache(
  paths: { first: string; second: string },
  hostName: string,
  { earlier, later, purge }: { earlier: Release; later: Release; purge: readonly string[] },
): Promise<void> {
  const host = presetNamed(hostName)
  if (!host) throw new Error(hostName)
  const own = mkdtempSync(join(place, 'nginx-'))
  const current = join(own, 'current')
  const [origin, cache] = [port++, port++]
  const names = new Set(earlier.files.map(({ path }) => path))
  const rules = nginxRules(host, site, current, (file) => names.has(file))
  const show = (release: string): void => {
    rmSync(current, { force: true })
    symlinkSync(join(release, 'dist'), current)
  }
  show(paths.first)
  running.push(
    await nginx(
      own,
      cache,
      `proxy_cache_path ${own}/cache keys_zone=site:1m;
      server { listen 127.0.0.1:${origin}; ${rules} }
      server { listen 127.0.0.1:${cache}; location / {
        proxy_pass http://127.0.0.1:${origin}; proxy_set_header Host skerryline.example;
        proxy_cache site; proxy_cache_key $request_uri; proxy_cache_valid any 1h; proxy_ignore_headers Cache-Control Expires;
        proxy_cache_bypass $http_x_purge; add_header X-From $upstream_cache_status always; } }`,
    ),
  )
  const urlsOf = ({ files, routes }: Release): string[] => [
    ...files.map(({ path }) => site.base + path.split('/').map(encodeURIComponent).join('/')),
    ...routes.map(({ path }) => path),
  ]
  for (const path of new Set([...urlsOf(earlier), ...purge])) await requested(cache, path)
  show(paths.second)
  const isStale = async (path: string): Promise<boolean> =>
    (await requested(cache, path)).answer !== (await requested(origin, path)).answer
  const needless: string[] = []
  for (const path of purge) if (!(await isStale(path))) needless.push(path)
  expect(needless).toEqual([])
  for (const path of purge) expect((await requested(cache, path, { 'x-purge': '1' })).from).toBe('BYPASS')
  const stale: string[] = []
  for (const path of new Set([...urlsOf(later), ...purge])) if (await isStale(path)) stale.push(path)
  expect(stale).toEqual([])
}

function requested(
  at: number,
  path: string,
  headers: Record<string, string> = {},
): Promise<{ answer: string; from: string | undefined }> {
  return new Promise((resolve, reject) => {
    get(
      { port: at, path, host: '127.0.0.1', headers: { host: 'skerryline.example', ...headers } },
      (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part))
        response.on('end', () => {
          const { statusCode, headers: sent } = response
          const location = sent.location?.replace(/^https?:\/\/[^/]+/, '') ?? ''
          const body = Buffer.concat(parts).toString('base64')
          resolve({ answer: [statusCode, location, body].join(' '), from: String(sent['x-from']) })
        })
      },
    ).on('error', reject)
  })
}

describe('a site that moves', () => {
  test('another base path is reported as that, not as everything changed', async () => {
    const edits: Edits = { 'vite.config.js': ["base: '/crossings/'", "base: '/'"] }
    const { first, second } = await twoBuilds({ project: corpus('vite-plain'), edits })
    const earlier = await recorded(first, 'fallback')
    const root = parseSite('https://ferries.skerryline.example/')
    const { comparison, findings } = await compared(earlier, second, 'fallback', root)
    expect(comparison.moved).toEqual({ from: '/crossings/', to: '/' })
    expect(comparison).toMatchObject({ purge: [], chunksGone: [], routes: { won: [], lost: [] } })
    expect(comparison.counts).toMatchObject({ added: 0, gone: 0 })
    expect(findings).toEqual([])
  })
})

describe('a release record', () => {
  const many = (count: number): Release => ({
    base: '/crossings/',
    observed: null,
    files: Array.from({ length: count }, (_, i) => ({
      path: `assets/pages/part-${i % 97}/harbour-${i}-AbCdEf12.js`,
      bytes: i,
      digest: `${i}`.padStart(22, 'x'),
      later: i % 2 === 0,
    })),
    routes: [{ path: '/crossings/', entryFile: 'index.html', status: 200, download: 1_000 }],
    variables: ['VITE_CHART_KEY'],
    endpoints: ['https://api.skerryline.example'],
  })

  test('holds to its schema, is read back as it was, and stays small with 100,000 files', () => {
    const validate = new Ajv2020({ allowUnionTypes: true }).compile(
      JSON.parse(readFileSync('schemas/wardoscope-record-1.schema.json', 'utf8')),
    )
    const release = many(100_000)
    const text = writeRecord(recordOf(release, judged))
    expect(text.length).toBeLessThan(12_000_000)
    expect(validate(JSON.parse(text)), JSON.stringify(validate.errors)).toBe(true)
    expect(readRecord('r.json', text)).toEqual(release)
  })

  test('is the same text for the same release', async () => {
    const of = async (): Promise<string> =>
      writeRecord(
        recordOf(
          await recorded(new MemoryFolder({ 'index.html': '<!doctype html>', 'a.txt': 'a' }), 'files'),
          judged,
        ),
      )
    expect(await of()).toBe(await of())
  })

  test.each([
    ['', /is not JSON\. Was it cut off\?/],
    ['{"schema":"wardoscope-record/1"', /is not JSON/],
    ['{}', /no release record of the form wardoscope-record\/1 at schema/],
    ['[]', /no release record/],
    [writeRecord(recordOf(many(2), judged)).replace('"later"', '"sooner"'), /at files\.\d/],
  ])('%j is refused in one sentence', (text, message) => {
    expect(() => readRecord('r.json', text)).toThrow(message)
  })
})

describe('on the command line', () => {
  const options = ['--site', address, '--host', 'fallback']
  const demo = 'dist/demo'

  test('a record is kept, and the next release compared with it; lists are printed for scripts', () => {
    const record = join(place, 'release.json')
    const kept = wardoscope([`${demo}/sound`, ...options, '--record', record])
    expect(kept).toMatchObject({ status: 0, err: `Written to ${record}.\n` })
    const same = wardoscope(['compare', record, `${demo}/sound`, ...options])
    expect(same.status).toBe(0)
    expect(same.out).toMatch(/the same as before/)
    expect(same.out).toMatch(/fresh\/same-as-shipped/)
    const changed = wardoscope(['compare', record, `${demo}/endpoint-left`, ...options])
    expect(changed.status).toBe(1)
    expect(changed.out).toMatch(/To purge {2}6 paths; 6 new names with a hash need none\n {6}\/crossings\/\n/)
    expect(changed.out).toMatch(/script +– +– +6 +–/)
    const { out, status } = wardoscope([
      'compare',
      record,
      `${demo}/endpoint-left`,
      ...options,
      '--print',
      'purge',
    ])
    expect(status).toBe(0)
    expect(out.trimEnd().split('\n')).toContain('/crossings/index.html')
    expect(out).toMatch(/^(?:\/crossings\/\S*\n)+$/)
    const json = wardoscope(['compare', record, `${demo}/endpoint-left`, ...options, '--format', 'json'])
    expect(JSON.parse(json.out).comparison.chunksGone).toHaveLength(5)
  })

  test('an older folder does as well as its record', () => {
    const record = join(place, 'sound.json')
    wardoscope([`${demo}/sound`, ...options, '--record', record])
    const reported = (earlier: string): unknown =>
      JSON.parse(wardoscope(['compare', earlier, `${demo}/wrong-base`, ...options, '--format', 'json']).out)
        .comparison
    expect(reported(`${demo}/sound`)).toEqual(reported(record))
    expect(reported(`${demo}/sound/dist`)).toEqual(reported(record))
  })

  test.each([
    [
      'a record that is not there',
      ['compare', 'nowhere.json', `${demo}/sound`],
      3,
      /There is no release record and no folder at nowhere\.json/,
    ],
    [
      'a file that is no record',
      ['compare', 'package.json', `${demo}/sound`],
      2,
      /package\.json is no release record/,
    ],
    [
      'a list of no such name',
      ['compare', `${demo}/sound`, `${demo}/sound`, '--print', 'purg'],
      2,
      /Did you mean purge\?/,
    ],
    [
      'several addresses',
      ['compare', `${demo}/sound`, `${demo}/sound`, ...options, '--site', 'https://skerryline.test/'],
      2,
      /one site at a time/,
    ],
    [
      'a record that can not be written',
      [`${demo}/sound`, '--record', 'nowhere/at/all.json'],
      3,
      /could not be written/,
    ],
  ])('%s gets one sentence', (_, args, status, message) => {
    const ran = wardoscope(args)
    expect(ran.status).toBe(status)
    expect(ran.err).toMatch(message)
    expect(ran.err.trim().split('\n')).toHaveLength(1)
  })

  test('no value of a variable is in a record', () => {
    const folder = folderWith({
      'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      '.env.production': 'VITE_KEY=mark-two-Zr41-9x\nVITE_API=https://mark-one.skerryline.example/v1',
      'src/a.js': 'fetch(import.meta.env.VITE_API); use(import.meta.env.VITE_KEY)',
      'dist/index.html': '<!doctype html><script type="module" src="/crossings/a.js"></script>',
      'dist/a.js': 'fetch("https://mark-one.skerryline.example/v1");use("mark-two-Zr41-9x")',
      'dist/mark-two-Zr41-9x.txt': '',
    })
    const record = join(place, 'values.json')
    wardoscope([folder, ...options, '--record', record])
    const text = readFileSync(record, 'utf8')
    expect(text).toContain('VITE_KEY')
    expect(text).not.toMatch(/mark-one|mark-two/)
  })
})
