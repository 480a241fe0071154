import { describe, expect, test } from 'vitest'
import { MemoryFolder } from '../model/memory-folder.ts'
import { readCss } from '../output/css.ts'
import { readHtml } from '../output/html/document.ts'
import { check } from '../pipeline/check.ts'
import { weightKindOf } from './kinds.ts'

const later = (references: readonly { raw: string; kind: string; later?: true }[]): string[] =>
  references.filter(({ later, kind }) => later || kind === 'named').map(({ raw }) => raw)

test('pictures that wait, and the candidates of a set, are no part of a first visit', () => {
  const { references } = readHtml(
    '<img src="a.png" loading=lazy><img src="b.png" srcset="c.png 1x, d.png 2x"><iframe src="e.html" loading="Lazy"></iframe>',
  )
  expect(later(references)).toEqual(['a.png', 'c.png', 'd.png', 'e.html'])
})

test('what only browsers without modules run is no part of a first visit', async () => {
  const files = {
    'index.html':
      '<!doctype html><script type=module src=/a.js></script><script nomodule src=/old.js></script>',
    'a.js': 'a()',
    'old.js': 'x'.repeat(9_000),
  }
  const { delivery } = await check(new MemoryFolder(files))
  expect(delivery.firstVisit[0]?.files).toBe(2)
})

test.each([
  ['src:url(a.woff2),url(a.woff)', ['a.woff']],
  ['src:url(a.eot);src:url(a.eot?#iefix),url(a.woff2),url(a.ttf)', ['a.eot', 'a.eot?#iefix', 'a.ttf']],
  ['src:url(a.woff2);unicode-range:U+0000-00FF,U+0131', []],
  ['src:url(a.woff2);unicode-range:u+4?', []],
  ['src:url(a.woff2);unicode-range:U+0100-02BA,U+1E00-1E9F', ['a.woff2']],
  ['unicode-range:U+0460-052F;src:url(a.woff2),url(a.woff)', ['a.woff2', 'a.woff']],
])('of the font face {%s} a first visit goes without %j', (face, expected) => {
  const css = `@font-face{font-family:Figtree;${face}}.hero{background:url(hero.png)}`
  expect(later(readCss(css))).toEqual(expected)
})

const folder = {
  'index.html':
    '<!doctype html><link rel=stylesheet href=/a.css><script type=module src=/a.js></script><img src=/late.png loading=lazy>',
  'about.html': '<!doctype html><p>hello',
  'a.js':
    'import "./b.js"; const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["c.js","c.css"])))=>i.map(i=>d[i]);const more = () => import("./c.js")',
  'c.css': 'p{}',
  'b.js': 'import "./a.js"',
  'c.js': 'let c',
  'a.css': '@font-face{src:url(f.woff2)} body{background:url(sky.png)}',
  'f.woff2': 'x'.repeat(900),
  'sky.png': 'x'.repeat(300),
  'late.png': 'x'.repeat(9_000),
}

describe('a first visit', () => {
  test('is its page and what that leads to: static imports, styles, fonts, pictures; each once', async () => {
    const { delivery } = await check(new MemoryFolder(folder))
    const [first, second] = delivery.firstVisit
    expect(first).toMatchObject({ route: '/', entryFile: 'index.html', files: 6, gzip: null })
    expect(first?.kinds.map(({ kind, files }) => `${kind} ${files}`)).toEqual([
      'page 1',
      'script 2',
      'style 1',
      'font 1',
      'image 1',
    ])
    const own = ['index.html', 'a.js', 'b.js', 'a.css', 'f.woff2', 'sky.png'] as const
    expect(first?.bytes).toBe(own.reduce((sum, file) => sum + folder[file].length, 0))
    expect(second).toMatchObject({ entryFile: 'about.html', files: 1 })
    expect(delivery.largest[0]).toEqual({ file: 'late.png', bytes: 9_000 })
    expect(delivery).toMatchObject({ files: 10, compressedBytes: null, routes: 2 })
  })

  test('is reported compressed where somebody compresses; what is packed already stays as it is', async () => {
    const requested: string[] = []
    const compress = () => async (paths: readonly string[]) => {
      requested.push(...paths)
      return new Map(paths.map((path) => [path, { gzip: 10, brotli: 8 }]))
    }
    const { delivery } = await check(new MemoryFolder(folder), { compress })
    expect(requested.sort()).toEqual(['a.css', 'a.js', 'about.html', 'b.js', 'index.html'])
    expect(delivery.firstVisit[0]).toMatchObject({ gzip: 40 + 1_200, brotli: 32 + 1_200 })
    expect(delivery.compressedBytes).toBe(50 + 1_200)
  })
})

test.each([
  ['a/index.html', 'page'],
  ['b.MJS', 'script'],
  ['boot.wasm', 'script'],
  ['x.woff2', 'font'],
  ['data.json', 'other'],
  ['LICENSE', 'other'],
])('%s is a %s', (path, kind) => {
  expect(weightKindOf(path)).toBe(kind)
})
