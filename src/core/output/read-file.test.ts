import fc from 'fast-check'
import { expect, test } from 'vitest'
import { noSearch } from '../model/search.ts'
import { readSrcset } from './html/srcset.ts'
import { readFile } from './read-file.ts'

function read(path: string, text: string): ReturnType<typeof readFile> {
  return readFile(path, new TextEncoder().encode(text), noSearch)
}

/** `kind raw`, and a proof that the offset is where the URL is written. */
function references(path: string, text: string): string[] {
  return read(path, text).references.map(({ kind, raw, offset, length, against, sure }) => {
    expect(text.slice(offset, offset + length), `${kind} ${raw}`).toContain(raw.replace(/[^\w./-].*$/, ''))
    return `${kind} ${raw}${against === 'file' || against === 'map' ? ` (${against})` : against === 'bundle-base' ? ' (base)' : ''}${sure ? ' sure' : ''}`
  })
}

test.each<[string, string, string[]]>([
  ['a script', '<script type="module" src="/a.js"></script>', ['script /a.js']],
  ['a style sheet', '<link rel=stylesheet href=/a.css>', ['style /a.css']],
  ['an alternate style sheet', "<link rel='alternate stylesheet' href='/a.css'>", ['style /a.css']],
  ['a canonical link, which asks nobody', '<link rel="canonical" href="/a">', []],
  [
    'icons',
    '<link rel="icon" href="/i.svg"><link rel="apple-touch-icon" href="i.png">',
    ['icon /i.svg', 'icon i.png'],
  ],
  ['a manifest', '<link rel="manifest" href="/m.webmanifest">', ['manifest /m.webmanifest']],
  [
    'preloads',
    '<link rel="modulepreload" href="/a.js"><link rel=preload as=font href=/f.woff2>',
    ['preload /a.js', 'preload /f.woff2'],
  ],
  ['a prefetch', '<link rel="prefetch" href="/b.js">', ['hint /b.js']],
  [
    'pictures',
    '<img src="a.png" srcset="b.png 1x, c.png 2x">',
    ['image a.png', 'image b.png', 'image c.png'],
  ],
  [
    'a film',
    '<video poster="p.jpg"><source src="v.webm"><track src="t.vtt"></video>',
    ['image p.jpg', 'media v.webm', 'media t.vtt'],
  ],
  [
    'vector graphics',
    '<svg><use href="s.svg#a"/><image xlink:href="i.png"/></svg>',
    ['image s.svg#a', 'image i.png'],
  ],
  [
    'frames and objects',
    '<iframe src="f.html"></iframe><object data="o.svg"></object>',
    ['frame f.html', 'frame o.svg'],
  ],
  ['a link to a page', '<a href="/sailings">', ['page /sailings']],
  ['a fragment, which asks nobody', '<a href="#top"><img src="">', []],
  ['a style attribute', '<p style="background:url(a.png)">', ['image a.png']],
  [
    'a style element',
    '<style>@import "a.css"; b{background:url("c.png")}</style>',
    ['style a.css', 'image c.png'],
  ],
  ['an entity', '<img src="a.png?x=1&amp;y=2">', ['image a.png?x=1&y=2']],
  ['a comment', '<!-- <img src="no.png"> -->', []],
  [
    'an inline module',
    '<script type="module">import "./a.js"; import("./b.js")</script>',
    ['import ./a.js', 'lazy-import ./b.js'],
  ],
  [
    'a social picture',
    '<meta property="og:image" content="https://x.example/a.png">',
    ['hint https://x.example/a.png'],
  ],
])('a page with %s', (_, html, expected) => {
  expect(references('index.html', html)).toEqual(expected)
})

test('the first base counts, as the standard says', () => {
  expect(read('index.html', '<base target=_top><base href="/b/"><base href="/c/">').baseHref).toBe('/b/')
})

test.each<[string, string, string[]]>([
  ['url()', 'a{b:url(x.png);c:url( "y.png" )}', ['image x.png (file)', 'image y.png (file)']],
  ['a font', '@font-face{src:url(f.woff2) format("woff2")}', ['font f.woff2 (file)']],
  [
    'imports',
    '@import url(a.css) layer(x);@import "b.css" screen;',
    ['style a.css (file)', 'style b.css (file)'],
  ],
  [
    'image-set()',
    'a{b:image-set("x.avif" 1x, url(y.png) 2x)}',
    ['image x.avif (file)', 'image y.png (file)'],
  ],
  ['a comment', '/* url(no.png) */a{content:"url(no.png)"}', []],
  ['a fragment', 'a{fill:url(#g)}', []],
  ['nested parentheses', 'a{width:calc((1px + 2px));b:url("z.png")}', ['image z.png (file)']],
])('a style sheet with %s', (_, css, expected) => {
  expect(references('a.css', css)).toEqual(expected)
})

test('escapes in style sheets are resolved', () => {
  expect(read('a.css', 'a{b:url(caf\\e9 .png)}').references[0]?.raw).toBe('café.png')
})

test.each<[string, string, string[]]>([
  [
    'imports',
    'import{a}from"./a.js";import"./b.js";export*from"./c.js"',
    ['import ./a.js (file)', 'import ./b.js (file)', 'import ./c.js (file)'],
  ],
  [
    'markup between holes',
    'h(`<p>${a}</p><svg><use href="/icons.svg#a"></use></svg><img src="/b.png" alt="${c}">${d}<img src="/e/${f}.png">`)',
    ['named /icons.svg#a sure', 'named /b.png sure', 'named /e/\u0000.png sure'],
  ],
  ['a bare import, which a map leads on', 'import x from"react"', ['import react (map)']],
  ['a lazy import', 'import(/* note */ `./a.js`)', ['lazy-import ./a.js (file)']],
  [
    'the beginning of a name that is put together',
    'import("./"+n.u(e));new Worker("/w/"+e)',
    ['named /w/\u0000'],
  ],
  ['a directory that names are put behind', 'x.setDecoderPath("/draco/")', ['named /draco/\u0000']],
  ['a path that is compared with, or a key', 'a.startsWith("/w/");"/w/"===b;var r={"/w/":1};c+"/w/"', []],
  ['a name with markers', 'x={loadPath:"/locales/{{lng}}/{ns}.json"}', ['named /locales/\u0000/\u0000.json']],
  ['a path with a marker that is no file', 'r="/harbours/{id}/edit"', []],
  ['a method named import', 'x.import("./a.js")', ['named ./a.js']],
  ['new URL with import.meta.url', 'new URL("a.svg",import.meta.url).href', ['file a.svg (file)']],
  ['a worker', 'new Worker("/w.js")', ['script /w.js']],
  ['a name of a file', 'var a=`/b/assets/x-BSKsdRK0.svg`', ['named /b/assets/x-BSKsdRK0.svg']],
  [
    "an element's URL",
    'jsx("img",{src:"/a.png"});e.href="/b.pdf"',
    ['named /a.png sure', 'named /b.pdf sure'],
  ],
  [
    "a component's address, and an element's",
    'jsx(e.a,{id:"x",href:"/a.html"});jsx("a",{href:"/b.html"});jsx(Image,{src:"/c.png"});jsx(e.img,{alt:"",src:"/d.png"})',
    ['named /a.html', 'named /b.html sure', 'named /c.png', 'named /d.png sure'],
  ],
  ['markup', 'f(`<img src="/a.png"><a href="/x">`)', ['named /a.png sure']],
  ['markup with a hole', 'f(`<img src="${a}">`)', []],
  [
    'routes and words, which are no files',
    'x("/sailings",":id","a.b.c","v1.2.3","https://x.example/a.js")',
    [],
  ],
  ['ends of names and comparisons', 'a+"/index.html";b.endsWith("/index.txt");c==="/x.png"', []],
  [
    'a preload list',
    'const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["assets/a.js","assets/b.css"])))=>i;f("c.js")',
    ['preload assets/a.js (base)', 'preload assets/b.css (base)', 'named c.js'],
  ],
])('a script with %s', (_, script, expected) => {
  expect(references('a.js', script)).toEqual(expected)
})

test("the bundler's base constant is read where its preload helper puts it", () => {
  expect(read('a.js', 'var r="modulepreload",e=function(e){return`/crossings/`+e}').bundleBase).toBe(
    '/crossings/',
  )
  expect(read('a.js', 'var r="modulepreload",e=function(e){return f("/no/")+e}').bundleBase).toBeNull()
})

test('a web manifest is relative to itself', () => {
  const json = '{"start_url":".","icons":[{"src":"i.png"}],"name":"x"}'
  expect(references('m.webmanifest', json)).toEqual(['page . (file)', 'icon i.png (file)'])
  expect(references('m.webmanifest', '{"icons":[')).toEqual([])
})

test.each([
  ['fetch("http://localhost:1/a")', 'http://localhost:1/a', 'fetch'],
  ['new WebSocket("ws://localhost:1")', 'ws://localhost:1', 'WebSocket'],
  ['x.open("GET","http://127.0.0.1:1/a")', 'http://127.0.0.1:1/a', 'XMLHttpRequest'],
  ['navigator.sendBeacon("https://b.example/x")', 'https://b.example/x', 'beacon'],
  ['new URL(a,"http://localhost")', 'http://localhost', null],
  ['throw Error("see https://docs.example/x for more")', 'https://docs.example/x', null],
  ['prefetch("http://localhost:1")', 'http://localhost:1', null],
])('the endpoint in %s', (script, url, flow) => {
  expect(read('a.js', script).endpoints).toMatchObject([{ url, flow }])
})

test.each([
  ['a.png 1x, b.png 2x', ['a.png', 'b.png']],
  ['a.png, b.png 100w', ['a.png', 'b.png']],
  ['data:image/png;base64,AA== 1x, b.png', ['data:image/png;base64,AA==', 'b.png']],
  [' ,, a.png  ', ['a.png']],
])('the candidates of srcset %j', (text, expected) => {
  const found = readSrcset(text)
  expect(found.map(({ url }) => url)).toEqual(expected)
  for (const { url, offset } of found) expect(text.slice(offset)).toMatch(url.slice(0, 4))
})

test.each(['x.html', 'x.css', 'x.js', 'x.webmanifest', 'x.bin'])('no bytes make reading %s fail', (path) => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
      expect(readFile(path, bytes, noSearch).size).toBe(bytes.length)
    }),
  )
})

test('settings that a page carries in an attribute are read as data', () => {
  const settings = encodeURIComponent(JSON.stringify({ APP: { apiHost: 'http://localhost:8787' } }))
  const page = `<!doctype html><meta name="skerry/config/environment" content="${settings}">`
  expect(read('index.html', page).endpoints).toMatchObject([
    {
      url: 'http://localhost:8787',
      flow: 'configuration',
      offset: page.indexOf('%7B'),
      length: settings.length,
    },
  ])
  expect(read('index.html', '<!doctype html><meta name="x" content="%7B%22%E0">').endpoints).toEqual([])
})

test.each(['x.constructor', '__proto__', 'a.__proto__', 'toString', 'b.hasOwnProperty'])(
  'a file named %s is no script and no table',
  (path) => {
    expect(read(path, 'fetch("http://localhost:1")')).toMatchObject({ kind: 'other', endpoints: [] })
  },
)
