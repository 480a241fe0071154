import { mkdtempSync, writeFileSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build } from 'vite'
import { expect, test } from 'vitest'
import { checkAlone } from '../../../test/support/cases.ts'
import { DiskFolder } from '../../node/disk-folder.ts'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { sourceMapOf } from './source-map.ts'

const options = { site: parseSite('https://skerryline.example/'), host: presetNamed('fallback') }

test.each([
  ['beside the project', true],
  ['inlined', 'inline' as const],
])('a place in a real bundle leads to its source through a map %s', async (_, sourcemap) => {
  const root = mkdtempSync(join(tmpdir(), 'wardoscope-map-'))
  await mkdir(join(root, 'src'))
  writeFileSync(
    join(root, 'package.json'),
    '{"devDependencies":{"vite":"8"},"scripts":{"build":"vite build"}}',
  )
  writeFileSync(join(root, 'index.html'), '<!doctype html><script type="module" src="/src/main.ts"></script>')
  writeFileSync(
    join(root, 'src/main.ts'),
    'const first: number = 1\nexport function load(): Promise<Response> {\n  return fetch("http://localhost:8787/v1")\n}\nconsole.log(first)\nload()\n',
  )
  await build({ root, logLevel: 'silent', build: { sourcemap } })
  const { findings } = await checkAlone(
    ['asset/missing', 'delivery/source-map', 'endpoint/loopback', 'env/absent'],
    await DiskFolder.open(root),
    options,
  )
  // A map beside the script is published, and that is reported.
  const maps = sourcemap === 'inline' ? [] : ['delivery/source-map']
  expect(findings.map(({ code }) => code)).toEqual(['endpoint/loopback', ...maps])
  expect(findings[0]?.places[0]?.source).toMatchObject({
    file: 'src/main.ts',
    line: 3,
    excerpt: 'return fetch("http://localhost:8787/v1")',
  })
})

test.each([
  ['broken', '{"version":3,'],
  ['of another kind', '[]'],
  ['empty', ''],
])('a map that is %s is no error', async (_, map) => {
  const folder = new MemoryFolder({ 'a.js': 'x', 'a.js.map': map })
  const { trace, problem } = await sourceMapOf(folder, 'a.js', 'x')
  expect(trace?.({ line: 1, column: 1 }) ?? null).toBeNull()
  expect(problem).toBeNull()
})

test.each([
  ['is not there', 'names a source map that is not there', {}],
  ['is broken', 'has a source map that is broken', { 'a.js.map': '{"version":3,' }],
])('a map that the file names and that %s is said', async (_, said, files) => {
  const text = 'x\n//# sourceMappingURL=a.js.map'
  expect(await sourceMapOf(new MemoryFolder({ 'a.js': text, ...files }), 'a.js', text)).toEqual({
    trace: null,
    problem: said,
  })
  const report = await checkAlone(
    ['asset/'],
    new MemoryFolder({
      'index.html': '<script src="a.js"></script>',
      'a.js': `fetch("http://localhost:1");${text}`,
      ...files,
    }),
    options,
  )
  expect(report.unread).toEqual([{ file: 'a.js', reason: `a.js ${said}.` }])
})

test('an indexed map is read section by section', async () => {
  const part = (source: string) => ({ version: 3, sources: [source], names: [], mappings: 'AAAA' })
  const sections = [
    { offset: { line: 0, column: 0 }, map: part('src/a.ts') },
    { offset: { line: 1, column: 0 }, map: part('src/b.ts') },
  ]
  const folder = new MemoryFolder({ 'a.js.map': JSON.stringify({ version: 3, sections }) })
  const { trace } = await sourceMapOf(folder, 'a.js', 'x\ny')
  expect([1, 2].map((line) => trace?.({ line, column: 1 })?.file)).toEqual(['src/a.ts', 'src/b.ts'])
})

test('a source behind a scheme keeps its path, and one of the bundler itself is none', async () => {
  const map = (source: string): string =>
    JSON.stringify({
      version: 3,
      sources: [source],
      names: [],
      paths: [],
      mappings: 'AAAA',
      sourcesContent: ['const a = 1'],
    })
  const traced = async (source: string): Promise<string | null> => {
    const folder = new MemoryFolder({ 'js/a.js': 'x', 'js/a.js.map': map(source) })
    const { trace } = await sourceMapOf(folder, 'js/a.js', 'x\n//# sourceMappingURL=a.js.map')
    return trace?.({ line: 1, column: 1 })?.file ?? null
  }
  expect(await traced('webpack://skerry/./src/a.js')).toBe('src/a.js')
  expect(await traced('webpack:///src/a.js?1a2b')).toBe('src/a.js')
  expect(await traced('../../src/a.js')).toBe('src/a.js')
  expect(await traced('\0vite/preload-helper.js')).toBeNull()
})
