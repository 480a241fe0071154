import { appendFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { beforeAll, expect, test } from 'vitest'
import { presetNamed } from '../src/core/host/presets.ts'
import { FolderError } from '../src/core/model/errors.ts'
import type { FileFacts } from '../src/core/model/facts.ts'
import { type Folder, walk } from '../src/core/model/folder.ts'
import { MemoryFolder } from '../src/core/model/memory-folder.ts'
import { noSearch, type Search } from '../src/core/model/search.ts'
import { parseSite } from '../src/core/model/site.ts'
import { readInTurn } from '../src/core/output/reader.ts'
import { check } from '../src/core/pipeline/check.ts'
import { DiskFolder } from '../src/node/disk-folder.ts'
import type { checkPath as CheckPath, parallelReader as ParallelReader } from '../src/node/index.ts'
import { folderWith } from './support/folders.ts'

// Workers run compiled code, so the compiled reader is what is tested.
let parallelReader: typeof ParallelReader
beforeAll(async () => {
  const compiled: { parallelReader: typeof ParallelReader } = await import(
    pathToFileURL('dist/node/index.js').href
  )
  parallelReader = compiled.parallelReader
})

const secret = 'zq-7731-marked-value'

/** A folder large enough for workers: pages, bundles, styles, pictures, and twins of the same content. */
function largeFolder(): string {
  const filler = 'a{color:#123}\n'.repeat(4_000)
  const files: Record<string, string> = {
    'logo.png': 'x',
    'empty.js': '',
    'key.js': `call("${secret}/v1/list.json")`,
  }
  for (let i = 0; i < 60; i++) {
    files[`pages/${i}/index.html`] =
      `<!doctype html><base href="/b/"><script src="/b/a-${i}.js" integrity="sha384-${i}"></script>${'<a href="/b/pages/1/">x</a>'.repeat(40)}`
    files[`a-${i}.js`] =
      `import("./a-${(i + 1) % 60}.js");fetch("https://api.example/${i}");${`var x${i}="/b/logo.png";`.repeat(2_000)}`
    files[`s-${i}.css`] = `${filler}b{background:url(logo.png?${i % 3})}`
  }
  return folderWith(files)
}

async function pathsOf(folder: Folder): Promise<string[]> {
  const paths: string[] = []
  for await (const path of walk(folder)) paths.push(path)
  return paths
}

function plain(facts: readonly FileFacts[]): unknown[] {
  return facts.map(({ references, ...rest }) => ({ ...rest, references: [...references] }))
}

async function readBoth(
  root: string,
  cache: string | null,
  search: Search = noSearch,
): Promise<{ fast: unknown[]; slow: unknown[] }> {
  const folder = await DiskFolder.open(root)
  const paths = await pathsOf(folder)
  const counts: number[] = []
  const fast = await parallelReader({ cache, version: '1' })(folder, paths, search, (done) =>
    counts.push(done),
  )
  const slow = await readInTurn(folder, paths, search, () => {})
  expect(counts).toEqual([...counts].sort((a, b) => a - b))
  return { fast: plain(fast), slow: plain(slow) }
}

test('workers read what one thread reads, with and without a cache, before and after changes', async () => {
  const root = largeFolder()
  // Files must be older than the clock's grain to be known again without being read.
  await new Promise((resolve) => setTimeout(resolve, 2_500))
  const cache = mkdtempSync(join(tmpdir(), 'wardoscope-cache-'))
  const first = await readBoth(root, null)
  expect(first.fast).toEqual(first.slow)
  for (const change of [
    () => {},
    () => {},
    () => appendFileSync(join(root, 'a-7.js'), ';fetch("https://new.example/")'),
    () => rmSync(join(root, 'a-8.js')),
    () => writeFileSync(join(root, 'a-9.js'), readFileSync(join(root, 'a-10.js'))),
    () =>
      writeFileSync(join(cache, readdirSync(cache).find((name) => name.endsWith('.bin')) ?? ''), 'cut off'),
  ]) {
    change()
    const { fast, slow } = await readBoth(root, cache)
    expect(fast).toEqual(slow)
  }
  expect(readdirSync(cache).filter((name) => name.endsWith('.bin'))).toHaveLength(1)
})

test('a change within the grain of the clock, with the old size and times, is still seen', async () => {
  const root = largeFolder()
  const cache = mkdtempSync(join(tmpdir(), 'wardoscope-cache-'))
  await readBoth(root, cache)
  const file = join(root, 'a-3.js')
  writeFileSync(file, readFileSync(file, 'utf8').replace('api.example', 'bpi.example'))
  const { fast, slow } = await readBoth(root, cache)
  expect(fast).toEqual(slow)
})

test('no value reaches the cache, plain or encoded', async () => {
  const root = largeFolder()
  const cache = mkdtempSync(join(tmpdir(), 'wardoscope-cache-'))
  const search = {
    ...noSearch,
    values: [{ name: 'KEY', value: secret, role: 'present' as const }],
    secrets: [secret],
  }
  const { fast, slow } = await readBoth(root, cache, search)
  expect(fast).toEqual(slow)
  expect(JSON.stringify(fast)).toContain('KEY')
  const kept = readdirSync(cache)
    .map((name) => readFileSync(join(cache, name), 'latin1'))
    .join('')
  expect(kept).toContain('/b/logo.png')
  for (const form of [
    secret,
    Buffer.from(secret).toString('base64').slice(0, 16),
    encodeURIComponent(secret),
  ]) {
    expect(kept).not.toContain(form)
  }
})

const options = { site: parseSite('https://skerryline.example/b/'), host: presetNamed('files') }

test('a bundle of 60 MB on one line is read, and its places are exact', async () => {
  const filler = 'var a="x/y";'.repeat(5_000_000)
  const { findings, unread } = await check(
    new MemoryFolder({
      'index.html': '<script src="/b/a.js"></script>',
      'a.js': `${filler}import("./gone.js")`,
    }),
    options,
  )
  expect(unread).toEqual([])
  // A bundle of that size is reported for what it weighs, too.
  const weighty = ['delivery/file-too-large', 'delivery/heavy-first-visit']
  expect(findings.map(({ code }) => code)).toEqual(['asset/missing', ...weighty])
  expect(findings[0]?.places[0]).toMatchObject({ file: 'a.js', line: 1, column: filler.length + 9 })
})

test('a file that vanishes while the folder is read is named, and the rest goes on', async () => {
  const memory = new MemoryFolder({
    'index.html': '<script src="/b/a.js"></script>',
    'a.js': '',
    'b.css': '',
  })
  const vanishing: Folder = {
    label: 'dist',
    list: (path) => memory.list(path),
    stat: (path) => memory.stat(path),
    read: async (path) => {
      if (path === 'b.css') throw new FolderError('missing', 'There is no file at b.css.')
      return memory.read(path)
    },
  }
  const { unread, findings } = await check(vanishing, options)
  expect(unread).toEqual([{ file: 'b.css', reason: 'There is no file at b.css.' }])
  expect(findings.map(({ code }) => code)).toEqual(['project/not-read'])
})

test.each([
  ['UTF-16, little-endian', Buffer.from('\ufeff<script src="/b/gone.js"></script>', 'utf16le')],
  ['UTF-16, big-endian', Buffer.from('\ufeff<script src="/b/gone.js"></script>', 'utf16le').swap16()],
  ['UTF-8 with a mark', Buffer.from('\ufeff<script src="/b/gone.js"></script>')],
  [
    'bytes that are no text',
    Buffer.concat([Buffer.from([0xff, 0xc0, 0x80]), Buffer.from('<script src="/b/gone.js"></script>')]),
  ],
])('a page in %s is read', async (_, bytes) => {
  const { findings } = await check(
    new MemoryFolder({ 'index.html': new Uint8Array(bytes), 'x/y.css': '' }),
    options,
  )
  expect(findings.map(({ code }) => code)).toEqual(['asset/missing'])
})

test.each([
  ['index.html', '<script src="/b/a.js'],
  ['index.html', '<style>a{background:url('],
  ['a.css', '@import "'],
  ['a.js', 'import("./'],
  ['a.js', '`${`${`'],
  ['manifest.json', '{"icons":[{"src":'],
  ['data.json', '{"a":"b'],
  ['a.svg', '<svg><use href="'],
  ['sitemap.xml', '<urlset><url><loc>'],
  ['a.js', 'n.u=e=>({1:"a"'],
])('%s that is cut off is read as far as it goes', async (path, text) => {
  const files = { 'index.html': '<p>x</p>', [path]: text }
  const { unread, verdict } = await check(new MemoryFolder(files), options)
  expect(unread).toEqual([])
  expect(verdict).toBe('clear')
})

test('what was followed through scripts is kept with its folder, without any value, and is found anew where a script changes', async () => {
  const root = largeFolder()
  const cache = mkdtempSync(join(tmpdir(), 'wardoscope-cache-'))
  process.env.XDG_CACHE_HOME = cache
  const held = 'const u="http://localhost:8787";'
  writeFileSync(join(root, 'index.html'), '<!doctype html><script type="module" src="/b/own.js"></script>')
  writeFileSync(join(root, 'own.js'), `${held}log(u);call("${secret}")`)
  const { checkPath }: { checkPath: typeof CheckPath } = await import(
    pathToFileURL('dist/node/index.js').href
  )
  const codes = async (): Promise<string[]> => {
    const options = { site: 'https://skerryline.example/b/', host: 'files', environment: { API_KEY: secret } }
    const { findings } = await checkPath(root, options)
    return findings.map(({ code }) => code).filter((code) => code.startsWith('endpoint/'))
  }
  const first = await codes()
  expect(first).not.toContain('endpoint/loopback')
  const kept = readdirSync(join(cache, 'wardoscope')).filter((name) => name.startsWith('answers-'))
  expect(kept).toHaveLength(1)
  expect(readFileSync(join(cache, 'wardoscope', kept[0] ?? ''), 'latin1')).not.toContain(secret)
  expect(await codes()).toEqual(first)
  writeFileSync(join(root, 'own.js'), `${held}fetch(u);call("${secret}")`)
  expect(await codes()).toContain('endpoint/loopback')
  writeFileSync(join(cache, 'wardoscope', kept[0] ?? ''), 'cut off')
  expect(await codes()).toContain('endpoint/loopback')
  delete process.env.XDG_CACHE_HOME
})
