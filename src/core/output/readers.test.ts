import { describe, expect, test } from 'vitest'
import { noSearch } from '../model/search.ts'
import { readFeed } from './feed.ts'
import { readHtml } from './html/document.ts'
import { readImportMap, readJson } from './json.ts'
import { readWebManifest } from './manifest.ts'
import { readPayload } from './payload.ts'
import { readFile } from './read-file.ts'

const shown = (list: Iterable<{ kind: string; raw: string; integrity?: string }>): string[] =>
  [...list].map(
    ({ kind, raw, integrity }) => `${kind} ${raw}${integrity === undefined ? '' : ` ${integrity}`}`,
  )

describe('feeds and sitemaps', () => {
  test.each<[string, string[]]>([
    ['<url><loc>https://skerryline.example/a</loc></url>', ['page https://skerryline.example/a']],
    ['<loc>/a</loc>', ['page /a']],
    ['<loc>a/b</loc>', []],
    ['<loc>mailto:x@y.example</loc>', []],
    ['<image:loc>https://skerryline.example/a.png</image:loc>', ['hint https://skerryline.example/a.png']],
    ['<loc>/a?x=1&amp;y=2</loc>', ['page /a?x=1&y=2']],
  ])('%s', (xml, expected) => {
    expect(shown(readFeed(xml))).toEqual(expected)
  })
})

describe('names of files in data', () => {
  test.each<[string, string[]]>([
    ['"static/a.js"', ['named static/a.js']],
    ['"static\\u002Fa.js"', ['named static/a.js']],
    ['"static\\/a.js"', ['named static/a.js']],
    ['"1.2.3"', []],
    ['"a.map"', []],
    ['"a.exports"', []],
    ['"assets/a.map.js"', ['named assets/a.map.js']],
    ['"x.call"', []],
    ['"static/a.mp3"', ['named static/a.mp3']],
    ['nothing', []],
    ['.ico', []],
    ['favicon.ico', ['named favicon.ico']],
    ['a.PNG,b.css', ['named a.PNG', 'named b.css']],
    ['"a.png?b.js" c.notanextension d.', ['named a.png']],
    ['"https:\\/\\/skerryline.example\\/a.png"', ['named https://skerryline.example/a.png']],
  ])('%s', (text, expected) => {
    expect(shown(readPayload(text))).toEqual(expected)
  })
  test('stand at their offset', () => {
    expect(readPayload('x "a/b.js"', 100)).toMatchObject([{ offset: 103, length: 6 }])
  })
})

describe('manifests with digests', () => {
  const sha = `sha256-${'A'.repeat(43)}=`
  test.each<[string, unknown, string[]]>([
    [
      'a table of resources',
      { mainAssemblyName: 'x', resources: { assembly: { 'a.dll': sha } } },
      [`file a.dll ${sha}`],
    ],
    [
      'one without a digest',
      { mainAssemblyName: 'x', resources: { assembly: { 'a.dll': '' } } },
      ['file a.dll'],
    ],
    ['what is no digest', { mainAssemblyName: 'x', resources: { assembly: { 'a.dll': `x${sha}` } } }, []],
    ['what is no file', { mainAssemblyName: 'x', resources: { hash: sha } }, []],
    [
      'names and hashes side by side',
      { mainAssemblyName: 'x', resources: { js: [{ name: 'a.js', hash: sha }] } },
      [`file a.js ${sha}`],
    ],
    [
      'names and other texts',
      { mainAssemblyName: 'x', resources: { js: [{ name: 'a.js', more: sha }] } },
      [],
    ],
    [
      'languages that are loaded when needed',
      { mainAssemblyName: 'x', resources: { satelliteResources: { de: { 'a.dll': sha } } } },
      [],
    ],
    [
      'a table of digests of 40 digits',
      { hashTable: { '/a.js': 'a'.repeat(40), '/b.js': 'a'.repeat(39) } },
      [`file /a.js sha1:${'a'.repeat(40)}`],
    ],
    ['any other data', { resources: { 'a.dll': sha } }, []],
  ])('%s', (_, data, expected) => {
    expect(shown(readJson(JSON.stringify(data))).filter((each) => each.startsWith('file'))).toEqual(expected)
  })
  test('an import map', () => {
    const map = {
      imports: { a: './a.js', b: '/b/', c: 'bare', d: 'https://x.example/d.js' },
      integrity: { './a.js': sha },
    }
    expect(shown(readImportMap(JSON.stringify(map)))).toEqual([
      `lazy-import ./a.js ${sha}`,
      'lazy-import https://x.example/d.js',
    ])
  })
})

test('a manifest of an application', () => {
  const manifest = {
    start_url: './',
    icons: [{ src: 'i.png' }],
    screenshots: [{ src: 's.png' }],
    shortcuts: [{ url: '/b/x' }],
  }
  expect(shown(readWebManifest(JSON.stringify(manifest))).length).toBeGreaterThan(0)
  expect(readWebManifest('{')).toEqual([])
})

describe('origins that a page names', () => {
  const origins = (head: string): string[] =>
    readHtml(`<!doctype html><head>${head}`).origins.map(({ url, flow }) => `${flow} ${url}`)
  test.each<[string, string[]]>([
    ['<link rel=preconnect href="https://api.example">', ['preconnect https://api.example']],
    ['<link rel="x dns-prefetch" href="//api.example">', ['preconnect //api.example']],
    ['<link rel=preconnect href="/path">', []],
    ['<link rel=xpreconnect href="https://api.example">', []],
    [
      '<meta http-equiv="Content-Security-Policy" content="connect-src https://api.example wss://s.example">',
      ['policy https://api.example', 'policy wss://s.example'],
    ],
    ['<meta http-equiv=refresh content="0;url=https://api.example">', []],
    ['<meta http-equiv="Content-Security-Policy">', []],
  ])('%s', (head, expected) => {
    expect(origins(head).filter((each) => /^(?:preconnect|policy)/.test(each))).toEqual(expected)
  })
})

test('a digest that an element gives', () => {
  const { references } = readHtml(
    '<script src="a.js" integrity="sha384-x"></script><script src="b.js"></script>',
  )
  expect(shown(references)).toEqual(['script a.js sha384-x', 'script b.js'])
})

describe('what the code before a text says of it', () => {
  const read = (code: string): ReturnType<typeof readFile> =>
    readFile('a.js', new TextEncoder().encode(code), noSearch)
  test.each<[string, string[]]>([
    ['new URL("./a.wasm",import.meta.url)', ['file ./a.wasm']],
    ['new URL(x+"./a.png",import.meta.url)', []],
    ['f(new URL(y),"./a.png",import.meta.url)', ['named ./a.png']],
    ['new URL("/__find_map",import.meta.url)', []],
    ['new URL("./a.riv?x",import.meta.url)', ['file ./a.riv?x']],
    ['s.src||new URL("a_e0f1.js",document.baseURI).href', ['named a_e0f1.js']],
    ['new URL("a.wasm",document.baseURI).href', ['file a.wasm']],
    ['new WebSocket(new URL("live.json",location.href))', ['named live.json']],
    ['l.href=new URL("manual.pdf",location).href', ['named manual.pdf']],
    ['fetch(new URL("a.geojson",location.href))', ['file a.geojson']],
    ['g(new URL(y+f("./a.png",import.meta.url)))', ['named ./a.png']],
    [
      'System.register(["./a.js","./b.js"],function(e,t){t.import("./c.js")})',
      ['import ./a.js', 'import ./b.js', 'lazy-import ./c.js'],
    ],
    [
      'System.register("x",["./a.js"],function(){y("./d.js",["./e.js"])})',
      ['import ./a.js', 'named ./d.js', 'named ./e.js'],
    ],
    ['t.import("./c.js")', ['named ./c.js']],
    ['import("./b.js")', ['lazy-import ./b.js']],
    ['t("./b.js")', ['named ./b.js']],
    ['e({src:"/c.png"})', ['named /c.png']],
    ['e({url:"d.html",revision:null})', ['file d.html']],
    [
      'e({url:"d.html",revision:"0123456789abcdef0123456789abcdef"})',
      ['file d.html md5:0123456789abcdef0123456789abcdef'],
    ],
    ['e({url:"d.html"})', ['named d.html']],
  ])('%s', (code, expected) => {
    expect(shown(read(code).references)).toEqual(expected)
  })
  test.each<[string, string[]]>([
    ['c={host:"localhost:3000"}', ['localhost:3000']],
    ['c={host:"//localhost:3000/x"}', ['//localhost:3000/x']],
    ['c={host:"xlocalhost:3000"}', []],
    ['c={host:"a localhost:3000"}', []],
    ['c=="localhost"', []],
    ['/* of localhost:3000 */c={host:x}', []],
    ['c={host:"http://localhost:3000/x"}', ['http://localhost:3000/x']],
  ])('%s', (code, expected) => {
    expect(read(code).endpoints.map(({ url }) => url)).toEqual(expected)
  })
  test('the settings of a request stand right behind its URL', () => {
    const settings = (code: string): unknown => read(code).endpoints[0]?.settings ?? null
    expect(settings('fetch("https://a.example/v1",{method:"PUT",headers:{"X-A":"1"}})')).toEqual({
      method: 'PUT',
      headers: [['X-A', '1']],
      credentials: false,
    })
    expect(settings('fetch("https://a.example/v1",{headers:h})')).toMatchObject({
      method: 'GET',
      headers: [],
    })
    expect(settings('fetch("https://a.example/v1",t,"k",{method:"PUT"})')).toBeNull()
    expect(settings('fetch("https://a.example/v1"+"x",{method:"PUT"})')).toBeNull()
  })
  test('a bundler states its public path', () => {
    expect(read('r.u=e=>e+".js";r.p="/b/"').bundleBase).toBe('/b/')
    expect(read('r.u=e=>e+".js"').bundleBase).toBeNull()
  })
  test('a file is surely requested where it is the URL of an element, not where one is near', () => {
    expect(read('x({src:1},"/d.png")').references).toMatchObject([{ kind: 'named', raw: '/d.png' }])
    expect([...read('x({src:1},"/d.png")').references][0]).not.toHaveProperty('sure')
    expect([...read('x({src:"/d.png"})').references][0]).toHaveProperty('sure', true)
  })
})

test.each(['https:\\/\\/api.dev.test\\/v1', '127.0.0.1:8080', 'localhost:3000', 'https://api.dev.test/v1'])(
  'the address of a service in data, alone in its text: %s',
  (address) => {
    const { endpoints } = readFile('settings.json', Buffer.from(`{"apiUrl":"${address}"}`), noSearch)
    expect(endpoints.map(({ url }) => url)).toEqual([address.replaceAll('\\/', '/')])
  },
)
