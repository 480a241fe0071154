import { createHash } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import { checkAlone, checkCases, codesOf, page } from '../../../../test/support/cases.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'

const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
const app = { 'assets/app-AbCdEf12.js': '' }
const sri = (algorithm: string, text: string): string =>
  `${algorithm}-${createHash(algorithm).update(text).digest('base64')}`
const hex = (algorithm: string, text: string): string => createHash(algorithm).update(text).digest('hex')

describe('data that can not be read', () => {
  const asking = (data: string): Record<string, string> => ({
    'index.html': page('<script type="module" src="/b/app.js"></script>'),
    'app.js': 'fetch("/b/data/harbours.json").then((r)=>r.json())',
    'data/harbours.json': data,
    'unasked.json': '{"a":',
  })
  const broken = { finds: ['asset/broken-script caution ×1'] }
  checkCases('asset/broken-script', {
    'marks of a merge': {
      files: asking('{\n<<<<<<< HEAD\n"a": 1\n=======\n"a": 2\n>>>>>>> b\n}'),
      ...broken,
    },
    'a comma too many': { files: asking('{"a": [1, 2,]}'), ...broken },
    'cut off': {
      files: asking('{"a": [1, 2'),
      ...broken,
      says: ['data/harbours.json ends in the middle of a value'],
    },
    'nested as deeply as nobody nests': { files: asking('['.repeat(100_000)), ...broken },
    'the same, and whole': { files: asking(`${'['.repeat(2_000)}${']'.repeat(2_000)}`), finds: [] },
    whole: { files: asking('{"a": [1, 2]}'), finds: [] },
    'with a byte order mark': { files: asking('\ufeff{"a": 1}'), finds: [] },
    'one value a line, for a reader of lines': { files: asking('{"a": 1}\n{"a": 2}\n'), finds: [] },
    'with comments, for a reader that knows them': { files: asking('// harbours\n{"a": 1}'), finds: [] },
    empty: { files: asking(''), finds: [] },
  })
})

describe('asset/broken-script', () => {
  const app = (code: string, more: Record<string, string> = {}): Record<string, string> => ({
    'index.html': page('<script type="module" src="app.js"></script>'),
    'app.js': code,
    ...more,
  })
  const broken = { finds: ['asset/broken-script blocker ×1'] }
  checkCases('asset/broken-script', {
    'cut off in a function': {
      files: app('function load() { return 1\n'),
      ...broken,
      says: ['app.js ends in the middle of a statement', 'See that the disk is not full'],
    },
    'cut off behind an import': { files: app('import "./a.js";a({b:1', { 'a.js': '' }), ...broken },
    'cut off in a text': { files: app('const name = "Sker'), ...broken },
    'cut off in a template': { files: app('const name = `Sker'), ...broken },
    'the marks of a merge': {
      files: app('const a = 1\n<<<<<<< HEAD\nlet b = 1\n=======\nlet b = 2\n>>>>>>> main\n'),
      ...broken,
      says: ['"line":2', 'the marks of a merge'],
    },
    'a page under its name': { files: app('<!doctype html><title>Not found</title>'), ...broken },
    'compressed bytes': { files: app('\u001f\ufffd\u0008\u0000'), ...broken },
    'a placeholder': { files: app('const api = <%= api %>'), ...broken },
    'one bracket too many': { files: app('load())'), ...broken },
    'one that a script loads later': {
      files: app('import("./later.js")', { 'later.js': 'load(' }),
      finds: ['asset/broken-script caution ×1'],
    },
    'one that nothing loads': { files: app('load()', { 'other.js': 'load(' }), finds: [] },
    'odd, and a script': {
      files: app(
        [
          'const a = /[)]/, b = { class: 1, function: 2 }, c = b.class',
          'const marks = "<<<<<<< HEAD", template = "<%= x %>", quote = \'"\'',
          'label: for (;;) { break label }',
          'const nested = `a${`b${c}`}`',
          'class K { static { } get x() { return 1 } #p = 1 }',
          'a = b / c / 2; if (a) /x/.test(b)',
          'const text = "a\\\nb"',
        ].join('\n'),
      ),
      finds: [],
    },
    'a classic script with marks of markup': {
      files: {
        'index.html': page('<script src="app.js"></script>'),
        'app.js': '<!-- hidden\nwith (a) { b }\n',
      },
      finds: [],
    },
    'a module that a page loads as a script': {
      files: {
        'index.html': page('<script defer src="app.js"></script>'),
        'app.js': 'import "./a.js"',
        'a.js': '',
      },
      finds: ['asset/broken-script blocker ×2'],
      says: [
        'app.js is a module, by its import or export',
        'In index.html, line 1, write  <!doctype html><head><script type=\\"module\\" defer src',
        '"expects":"<script","text":"<script type=\\"module\\""',
      ],
    },
    'a module in an element that says another kind': {
      files: {
        'index.html': page("<script type='text/javascript' src='app.js'></script>"),
        'app.js': 'import "./a.js"',
        'a.js': '',
      },
      finds: ['asset/broken-script blocker ×2'],
      says: [`"expects":" type='text/javascript'","text":" type=\\"module\\""`],
    },
    ...Object.fromEntries(
      [
        'var a=1;export{a as b}',
        'export default class{}',
        'const dir=new URL(".",import.meta.url)',
        'function f(){return import.meta.env}',
        'import*as x from"./x.js"',
        'import x,{y}from"./x.js"',
      ].map((code) => [
        `a module by: ${code}`,
        {
          files: { 'index.html': page('<script src="app.js"></script>'), 'app.js': code, 'x.js': '' },
          finds: ['asset/broken-script blocker ×2'],
        },
      ]),
    ),
    'what every script may hold': {
      files: {
        'index.html': page('<script src="app.js" type="text/javascript"></script>'),
        'app.js':
          'import("./a.js").then(m=>m.default);var o={import:1,export:2};o.export=o.import;o?.import;// export {a}\nvar t="export default 1";module.exports=/export {a}/;import (\n"./a.js")',
        'a.js': 'export default 1',
      },
      finds: [],
    },
    'a module that pages load as one': {
      files: app('import "./a.js";export const b=1', { 'a.js': 'export{}' }),
      finds: [],
    },
    'a script with a first line for a shell': { files: app('#!/usr/bin/env node\nload(")")'), finds: [] },
  })
})

describe('asset/policy-blocks', () => {
  const policed = (policy: string, body: string, code = ''): Record<string, string> => ({
    'index.html': page(
      `<meta http-equiv="Content-Security-Policy" content="${policy}">${body}<script src="app.js"></script>`,
    ),
    'app.js': code,
  })
  const asks = 'fetch("https://api.skerryline.example/v1")'
  const clear = { finds: [] }
  const one = { finds: ['asset/policy-blocks blocker ×1'] }
  checkCases('asset/policy-blocks', {
    'data of another origin': {
      files: policed("default-src 'self'; connect-src 'self' http://localhost:8787", '', asks),
      ...one,
      says: [
        "In index.html, write  connect-src 'self' http://localhost:8787 https://api.skerryline.example  in the policy",
        '"file":"app.js"',
      ],
    },
    'data, by the directive for all': { files: policed("default-src 'self'", '', asks), ...one },
    'data of two origins, where nothing is let through': {
      files: policed("connect-src 'none'", '', `${asks};fetch("https://tides.example/v1")`),
      finds: ['asset/policy-blocks blocker ×2'],
      says: ['write  connect-src https://api.skerryline.example https://tides.example  in the policy'],
    },
    'data that is named': {
      files: policed('connect-src https://api.skerryline.example', '', asks),
      ...clear,
    },
    'data by a pattern': { files: policed('connect-src *.skerryline.example', '', asks), ...clear },
    'data by a scheme': { files: policed('connect-src https:', '', asks), ...clear },
    'data of another port': { files: policed('connect-src api.skerryline.example:8443', '', asks), ...one },
    'data of another path': {
      files: policed('connect-src https://api.skerryline.example/v2/', '', asks),
      ...one,
    },
    'data below a path': {
      files: policed('connect-src https://api.skerryline.example/v1', '', asks),
      ...clear,
    },
    'a socket of the own origin': {
      files: policed("connect-src 'self'", '', 'new WebSocket("wss://skerryline.example/live")'),
      ...clear,
    },
    'a policy that says nothing of it': { files: policed("script-src 'self'", '', asks), ...clear },
    'a script, a style and a picture of other hosts': {
      files: policed(
        "default-src 'self'",
        '<script src="https://parts.example/a.js"></script><link rel="stylesheet" href="https://parts.example/a.css"><img src="https://parts.example/a.png">',
      ),
      finds: [
        'asset/policy-blocks blocker ×1',
        'asset/policy-blocks blocker ×1',
        'asset/policy-blocks blocker ×1',
      ],
      says: [
        "write  script-src 'self' https://parts.example  in",
        "write  style-src 'self' https://parts.example  in",
        "write  img-src 'self' https://parts.example  in",
      ],
    },
    'what stands before the policy': {
      files: {
        'index.html': page(
          `<script src="https://parts.example/a.js"></script><script>start()</script><meta http-equiv="content-security-policy" content="default-src 'self'">`,
        ),
      },
      ...clear,
    },
    'a script in the page': {
      files: policed("script-src 'self'", '<script>start()</script>'),
      ...one,
      says: ['Move the script out of the page'],
    },
    'a script in the page that is let through': {
      files: policed("script-src 'self' 'unsafe-inline'", '<script>start()</script>'),
      ...clear,
    },
    'scripts let through one by one': {
      files: policed(
        "script-src 'nonce-Zm9v' 'strict-dynamic'",
        '<script nonce="Zm9v">start()</script><script src="https://parts.example/a.js"></script>',
      ),
      ...clear,
    },
    'data in the page': {
      files: policed("script-src 'self'", '<script type="application/json">{}</script>'),
      ...clear,
    },
    'a policy in the body, which browsers pass over': {
      files: {
        'index.html': `<!doctype html><html><head></head><body><meta http-equiv="Content-Security-Policy" content="default-src 'none'"><img src="https://parts.example/a.png"></body></html>`,
      },
      ...clear,
    },
    'a policy that only reports': {
      files: {
        'index.html': page(
          `<meta http-equiv="Content-Security-Policy-Report-Only" content="default-src 'none'"><img src="https://parts.example/a.png">`,
        ),
      },
      ...clear,
    },
  })
})

test('an origin may be the own one where no address was given', async () => {
  const files = {
    'index.html': page(
      `<meta http-equiv="Content-Security-Policy" content="default-src 'self'"><img src="https://skerryline.net/a.png">`,
    ),
  }
  const { findings } = await checkAlone(['asset/policy-blocks'], new MemoryFolder(files), {})
  expect(codesOf(findings)).toEqual(['asset/policy-blocks caution ×1'])
})

describe('a name of which a part is not known', () => {
  const app = (code: string, more: Record<string, string> = {}): Record<string, string> => ({
    'index.html': page('<script type="module" src="/b/app.js"></script>'),
    'app.js': code,
    ...more,
  })
  const there = { 'img/a.png': '', 'img/big/a.png': '', 'other/x.png': '' }
  const elsewhere = { 'other/x.png': '' }
  const shown: Readonly<Record<string, string>> = {
    'in markup': 'el.innerHTML=`<p>${id}</p><img src="/b/img/${id}.png" alt="">`',
    'in markup, behind another attribute': 'el.innerHTML=`<img alt="${id}" src="/b/img/${id}.png">`',
    'in markup that is joined': `el.innerHTML='<img src="/b/img/'+id+'.png">'`,
    'in markup of a list':
      'el.innerHTML=`<ul>${l.map(e=>`<li><img src="/b/img/${e}.png"></li>`).join("")}</ul>`',
    'of several parts': 'el.innerHTML=`<img src="/b/img/${size}/${id}.png">`',
    'of an element': 'el.src=`/b/img/${id}.png`',
    'of an element, joined': 'el.src="/b/img/"+id+".png"',
  }
  const cases = Object.entries(shown).flatMap(([name, code]) => [
    [
      `${name}, and no file fits`,
      { files: app(code, elsewhere), finds: ['asset/missing blocker ×1'], host: 'files' },
    ],
    [`${name}, and one fits`, { files: app(code, there), finds: [], host: 'files' }],
  ])
  checkCases(['asset/missing', 'base/wrong-path'], {
    ...Object.fromEntries(cases),
    'the form of the name is said': {
      files: app('el.src=`/b/img/${id}.png`'),
      finds: ['asset/missing blocker ×1'],
      says: ['https://skerryline.example/b/img/*.png'],
      host: 'files',
    },
    'without the base path': {
      files: app('el.innerHTML=`<img src="/img/${id}.png">`', there),
      finds: ['base/wrong-path blocker ×1'],
      host: 'files',
    },
    'below another base path': {
      files: app('el.innerHTML=`<img src="/old/img/${id}.png">`', there),
      finds: ['base/wrong-path blocker ×1'],
      host: 'files',
    },
    'of another host, a link, and what is only kept': {
      files: app(
        'el.innerHTML=`<img src="https://cdn.skerryline.example/img/${id}.png"><a href="/b/img/${id}.png">x</a><a class="${c}" href="/b/img/${id}.png">y</a>`;kept=`/b/img/${id}.png`',
      ),
      finds: [],
      host: 'files',
    },
    'behind a host that is not known': {
      files: app('el.innerHTML=`<img src="${host}/img/${id}.png">`'),
      finds: [],
      host: 'files',
    },
  })
})

describe('asset/missing and asset/answered-with-page', () => {
  checkCases(['asset/answered-with-page', 'asset/missing', 'base/relative-at-depth'], {
    'a missing script, on plain files': {
      files: { 'index.html': page(script) },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['assets/'],
    },
    'a missing script for browsers without modules': {
      files: {
        'index.html': page(`${script}<script nomodule src="/b/assets/old-AbCdEf12.js"></script>`),
        ...app,
      },
      host: 'files',
      finds: ['asset/missing caution ×1'],
      says: ['Nothing in browsers of today'],
    },
    'many of one directory that is there, one finding': {
      files: {
        'index.html': page(Array.from({ length: 30 }, (_, i) => `<img src="/b/assets/${i}.png">`).join('')),
        'assets/x.css': '',
      },
      host: 'files',
      finds: ['asset/missing blocker ×30'],
      says: ['30 files like assets/*.png are requested', 'Put 0.png and the others into memory'],
    },
    'a few of one directory stand alone': {
      files: {
        'index.html': page('<img src="/b/assets/1.png"><img src="/b/assets/2.png">'),
        'assets/x.css': '',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1', 'asset/missing blocker ×1'],
    },
    'the same, behind a fallback': {
      files: { 'index.html': page(script), 'assets/x.css': '' },
      finds: ['asset/answered-with-page blocker ×1'],
      says: ['sends index.html instead, with status 200, and the browser refuses its type'],
    },
    'a frame that the fallback answers': {
      files: { 'index.html': page('<iframe src="/b/map"></iframe>') },
      finds: [],
    },
    'a preview picture that is gone is a note': {
      files: {
        'index.html': page('<meta property="og:image" content="https://skerryline.example/b/og.png">'),
      },
      host: 'files',
      finds: ['asset/missing note ×1'],
    },
    'a chunk named by a runtime': {
      files: {
        'index.html': page('<script src="/b/js/main.4f7d20aa.js"></script>'),
        'js/main.4f7d20aa.js': 'n.u=e=>"js/"+e+"."+{5:"aa11bb22"}[e]+".js",n.p="/b/"',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['js/5.aa11bb22.js'],
    },
    'a chunk that the page must find, from a nested route': {
      files: {
        'index.html': page('<script src="/b/js/main.4f7d20aa.js"></script>'),
        'js/main.4f7d20aa.js': 'n.u=e=>"js/"+e+"."+{5:"aa11bb22"}[e]+".js",n.p="./"',
        'js/5.aa11bb22.js': '',
      },
      routes: ['/sailings/42'],
      finds: ['base/relative-at-depth blocker ×1'],
    },
    'assets on another origin': {
      files: {
        'index.html': page('<script src="https://static.skerryline.example/js/main.4f7d20aa.js"></script>'),
        'js/main.4f7d20aa.js':
          'n.u=e=>"js/"+e+"."+{5:"aa11bb22"}[e]+".js",n.p="https://static.skerryline.example/"',
      },
      finds: [],
    },
    'source maps, licences and compressed twins that nothing requests': {
      files: {
        'index.html': page(script),
        'assets/app-AbCdEf12.js':
          '/*! see app.js.LICENSE.txt */\nx()\n//# sourceMappingURL=app-AbCdEf12.js.map',
        'assets/app-AbCdEf12.js.gz': '',
        'assets/old-AbCdEf34.js.br': '',
      },
      finds: [],
    },
    'the fonts that no browser takes': {
      files: {
        'index.html': page('<link rel="stylesheet" href="/b/a.css">'),
        'a.css':
          "@font-face{src:url(a.eot);src:url('a.eot?#iefix') format('embedded-opentype'),url(a.woff) format('woff'),url(a.ttf) format('truetype'),url(a.svg#a) format('svg')}",
        'a.woff': '',
      },
      finds: [],
    },
    'the font that a browser takes': {
      files: {
        'index.html': page('<link rel="stylesheet" href="/b/a.css">'),
        'a.css':
          "@font-face{src:url(a.eot);src:url('a.eot?#iefix') format('embedded-opentype'),url(a.woff) format('woff')}",
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['a.woff is requested'],
    },
    'a document in a script, which is a text': {
      files: {
        'index.html': page(script),
        'assets/app-AbCdEf12.js':
          'show(`<!doctype html><link rel="icon" href="/b/vite.svg"><script src="/b/src/main.tsx"><\\/script>`)',
      },
      finds: [],
    },
    'a part of a page in a script': {
      files: {
        'index.html': page(script),
        'assets/app-AbCdEf12.js': 'show(`<img src="/b/boat.svg">`)',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
    'a message that is named like a hashed file': {
      files: { 'index.html': page(script), 'assets/app-AbCdEf12.js': 't("debug.showDebug.json")' },
      finds: [],
    },
    'a file of the kind that the build emits': {
      files: {
        'index.html': page(script),
        'assets/app-AbCdEf12.js': 'load("/b/assets/boat-GhIjKl34.svg")',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
    'data that lists the files of another build': {
      files: {
        'index.html': page(script),
        'assets/app-AbCdEf12.js': 'fetch("/b/log.json")',
        'log.json': '{"files":["/b/assets/app-Zz9yXw87.js","/b/assets/boat-GhIjKl34.svg","/b/index.html"]}',
      },
      host: 'files',
      finds: [],
    },
    'data that lists the files of this one': {
      files: {
        'index.html': page(script),
        'assets/app-AbCdEf12.js': 'fetch("/b/parts.json")',
        'parts.json': '{"files":["/b/assets/app-AbCdEf12.js","/b/assets/boat-GhIjKl34.js"]}',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
    'a link in a script to what another program serves': {
      files: { 'index.html': page(script), 'assets/app-AbCdEf12.js': 'jsx("a",{href:"/b/docs/start.html"})' },
      finds: [],
    },
    'the base of a URL, which nobody requests': {
      files: {
        'index.html': page('<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'),
        'assets/app-AbCdEf12.js': 'new URL(e,new URL("../src/a.ts",import.meta.url)).href',
      },
      finds: [],
    },
    'a script that a worker keeps and nothing runs': {
      files: {
        'index.html': page('<script>navigator.serviceWorker.register("/b/sw.js")</script>'),
        'sw.js': 'precache([{url:"extra.js",revision:"d41d8cd98f00b204e9800998ecf8427e"}])',
        'extra.js': 'import"./gone.js"',
      },
      finds: [],
    },
    'a piece of a page, whose URLs start from the page it is put into': {
      files: {
        'index.html': page(''),
        'parts/table.html':
          '<link rel="stylesheet" href="parts/table.css"><script src="../server.js"></script>',
        'parts/table.css': '',
      },
      finds: [],
    },
    'a page without a piece of its frame is one': {
      files: {
        'index.html': page(''),
        'parts/table.html': '<title>Table</title><script src="gone.js"></script>',
        'parts/x.css': '',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
    'two applications in one folder': {
      files: {
        'index.html': page('<script src="/b/assets/a-AbCdEf12.js"></script>'),
        'assets/a-AbCdEf12.js': 'import("./x-AbCdEf12.js");function p(e){return`/b/`+e}"modulepreload"',
        'assets/x-AbCdEf12.js': '',
        'desk/index.html': page('<script src="/b/desk/assets/d-AbCdEf12.js"></script>'),
        'desk/assets/d-AbCdEf12.js':
          'var __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["assets/y-AbCdEf12.js"])))=>1;var p=function(e){return`/b/desk/`+e};"modulepreload"',
        'desk/assets/y-AbCdEf12.js': '',
      },
      finds: [],
    },
    'an empty base': {
      files: { 'index.html': page('<base href=""><script src="a.js"></script>'), 'a.js': '' },
      finds: [],
    },
  })
})

describe('asset/letter-case', () => {
  checkCases('asset/letter-case', {
    'another letter case': {
      files: { 'index.html': page('<img src="/b/Mark.svg">'), 'mark.svg': '' },
      host: 'files',
      finds: ['asset/letter-case blocker ×1'],
      says: [
        'Mark.svg is requested; the file in memory is called mark.svg',
        'In index.html, line 1, write',
        '"expects":"/b/Mark.svg","text":"/b/mark.svg"',
      ],
    },
    'an import whose file has these letters stays as it is': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'src/a.js': "import mark from './Mark.svg'\npicture.src = `${import.meta.env.BASE_URL}/Mark.svg`\n",
        'dist/index.html': page(script),
        'dist/assets/app-AbCdEf12.js': 'picture.src="/b/Mark.svg"',
        'dist/mark.svg': '',
      },
      host: 'files',
      finds: ['asset/letter-case blocker ×1'],
      says: [
        '"edits":[{"file":"src/a.js","line":2,"column":44,"instead":"Mark.svg"',
        '"text":"mark.svg"',
        '"source":{"file":"src/a.js","line":2',
      ],
    },
    'in a source, where it is written without the base path': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'src/a.js': 'picture.src = `${import.meta.env.BASE_URL}Pictures/Mark.svg`\n',
        'dist/index.html': page(script),
        'dist/assets/app-AbCdEf12.js': 'picture.src="/b/Pictures/Mark.svg"',
        'dist/pictures/mark.svg': '',
      },
      host: 'files',
      finds: ['asset/letter-case blocker ×1'],
      says: [
        'In src/a.js, line 1, write  picture.src = `${import.meta.env.BASE_URL}pictures/mark.svg`',
        '"expects":"Pictures/Mark.svg","text":"pictures/mark.svg"',
      ],
    },
    'in a directory, behind a fallback': {
      files: { 'index.html': page('<script src="/b/Assets/a.js"></script>'), 'assets/a.js': '' },
      finds: ['asset/letter-case blocker ×1'],
    },
    'letters composed here and decomposed there': {
      files: { 'index.html': page(`<img src="/b/h\u00e4fen.png">`), 'ha\u0308fen.png': '' },
      host: 'files',
      finds: ['asset/letter-case blocker ×1'],
      says: ['another Unicode form', '"edits":[]'],
    },
    'both names are there': {
      files: { 'index.html': page('<img src="/b/Mark.svg">'), 'mark.svg': '', 'Mark.svg': '' },
      host: 'files',
      finds: [],
    },
  })
})

describe('asset/withheld', () => {
  const files = { 'index.html': page('<script src="/b/_next/a.js"></script>'), '_next/a.js': '' }
  const running = (code: string): Record<string, string> => ({
    'index.html': page(script),
    'assets/app-AbCdEf12.js': code,
    'img/a.png': '',
  })
  checkCases(['asset/missing', 'asset/withheld'], {
    'a name in a constant that an element is given': {
      files: running('const u="/b/img/b.png",i=new Image;i.src=u'),
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
    'the same, of a file that is there': {
      files: running('const u="/b/img/a.png",i=new Image;i.src=u'),
      host: 'files',
      finds: [],
    },
    'a name that a function of the script fetches': {
      files: running('const f=u=>fetch(u);f("/b/data/t.json")'),
      host: 'files',
      finds: ['asset/missing caution ×1'],
    },
    'a name that nothing is seen to ask for': {
      files: running('const u="/b/img/b.png";show(u)'),
      host: 'files',
      finds: [],
    },
    'a sound that is played': {
      files: running('new Audio("/b/img/horn.mp3").play()'),
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['A film or sound does not play'],
    },
    'a host that drops names': {
      files,
      rules: { withheld: ['_'] },
      finds: ['asset/withheld blocker ×1'],
      says: ['_next/'],
    },
    'a host that serves all': { files, finds: [] },
    'a name that is not there is missing, not withheld': {
      files: { 'index.html': page('<script src="/b/_next/a.js"></script>') },
      host: 'files',
      rules: { withheld: ['_'] },
      finds: ['asset/missing blocker ×1'],
    },
  })
})

describe('asset/integrity', () => {
  const text = 'const a = 1\nconst b = 2\n'
  const withDigest = (digest: string): string => page(`<script src="/b/a.js" integrity="${digest}"></script>`)
  checkCases('asset/integrity', {
    ...Object.fromEntries(
      ['sha256', 'sha384', 'sha512'].map((algorithm) => [
        `a ${algorithm} that matches`,
        { files: { 'index.html': withDigest(sri(algorithm, text)), 'a.js': text }, finds: [] },
      ]),
    ),
    'one byte changed': {
      files: { 'index.html': withDigest(sri('sha384', text)), 'a.js': text.replace('1', '3') },
      finds: ['asset/integrity blocker ×1'],
      says: ['SHA384', 'may change them afterwards'],
    },
    'the strongest counts, whatever a weaker one says': {
      files: { 'index.html': withDigest(`${sri('sha256', 'x')} ${sri('sha512', text)}`), 'a.js': text },
      finds: [],
    },
    'one of several of the same kind is enough': {
      files: { 'index.html': withDigest(`${sri('sha256', 'x')} ${sri('sha256', text)}`), 'a.js': text },
      finds: [],
    },
    'a kind that browsers do not know': {
      files: { 'index.html': withDigest('sha1-abc'), 'a.js': text },
      finds: [],
    },
    'line endings converted on the way': {
      files: { 'index.html': withDigest(sri('sha384', text)), 'a.js': text.replaceAll('\n', '\r\n') },
      finds: ['asset/integrity blocker ×1'],
      says: ['With Unix line endings it would match', '.gitattributes'],
    },
    'an import map': {
      files: {
        'index.html': page(
          `<script type="importmap">{"imports":{"a":"/b/a.js"},"integrity":{"/b/a.js":"${sri('sha384', 'other')}"}}</script>`,
        ),
        'a.js': text,
      },
      finds: ['asset/integrity blocker ×1'],
    },
    'a boot manifest': {
      files: {
        'index.html': page('<base href="/b/"><script src="_framework/blazor.webassembly.js"></script>'),
        '_framework/blazor.webassembly.js': 'import("./dotnet.js")',
        '_framework/dotnet.js': '',
        '_framework/blazor.boot.json': `{"mainAssemblyName":"S","resources":{"assembly":{"S.wasm":"${sri('sha256', 'other')}","T.wasm":"${sri('sha256', 'T')}"}}}`,
        '_framework/S.wasm': text,
        '_framework/T.wasm': 'T',
      },
      finds: ['asset/integrity blocker ×1'],
      says: ['_framework/S.wasm'],
    },
    "a service worker's file table": {
      files: {
        'index.html': page('<script src="/b/main.js"></script>'),
        'main.js': 'navigator.serviceWorker.register("/b/ngsw-worker.js")',
        'ngsw-worker.js': 'load("ngsw.json")',
        'ngsw.json': `{"hashTable":{"/b/main.js":"${hex('sha1', 'old')}","/b/ngsw-worker.js":"${hex('sha1', 'load("ngsw.json")')}"}}`,
      },
      finds: ['asset/integrity blocker ×1'],
      says: ['main.js'],
    },
  })
})

describe("a service worker's list", () => {
  const entry = (url: string, text: string): string => `{url:"${url}",revision:"${hex('md5', text)}"}`
  const site = (list: string): Record<string, string> => ({
    'index.html': page('<script src="/b/a.js"></script>'),
    'a.js': 'navigator.serviceWorker.register("/b/sw.js")',
    'sw.js': `importScripts("./box.js");precache([${list}])`,
    'box.js': 'x',
    'y.css': 'y',
    'z.css': 'z',
  })
  const box = entry('box.js', 'x')
  const sheets = `${entry('y.css', 'y')},{url:"z.css",revision:null}`
  checkCases(['asset/integrity', 'asset/missing'], {
    'all there and unchanged': { files: site(`${box},${sheets}`), finds: [] },
    'one changed': {
      files: site(`${box},${sheets},${entry('a.js', 'other')}`),
      finds: ['asset/integrity blocker ×1'],
      says: ['a.js'],
    },
    'hashes of another kind': { files: site(`${entry('box.js', '1')},${entry('y.css', '2')}`), finds: [] },
    'one gone': {
      files: site(`${sheets},${entry('gone.css', 'g')}`),
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['gone.css'],
    },
    'a list of what is stored, one of it gone': {
      files: {
        ...site(''),
        'sw.js':
          'self.addEventListener("install",e=>e.waitUntil(caches.open("a").then(c=>c.addAll(["/","/b/about","/b/box.js","/b/gone.css"]))))',
      },
      host: 'files',
      finds: ['asset/missing caution ×1'],
      says: ['gone.css', 'the service worker must store'],
    },
    'the same by its name': {
      files: {
        ...site(''),
        'sw.js':
          'const KEPT = ["./", "box.js", "gone.css"]\nself.oninstall = async () => (await caches.open("a")).addAll(KEPT)',
      },
      host: 'files',
      finds: ['asset/missing caution ×1'],
      says: ['gone.css'],
    },
    'a list of what is stored, all there': {
      files: {
        ...site(''),
        'sw.js':
          'const L=["./","y.css?v=2","https://cdn.example/x.css"];self.oninstall=async()=>(await caches.open("a")).addAll(L);e.addAll(["gone.png"].map(String))',
      },
      host: 'files',
      finds: [],
    },
    'another list of that name': {
      files: {
        ...site(''),
        'sw.js': 'function f(){var L=["gone.css"]}function g(L){c.addAll(L)}var L=["box.js"]',
      },
      host: 'files',
      finds: [],
    },
    'the worker itself gone, which a source of the project registers': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'src/main.js': 'navigator.serviceWorker.register(`${import.meta.env.BASE_URL}sw.js`)',
        'dist/index.html': page('<script type="module" src="/b/a.js"></script>'),
        'dist/a.js': 'navigator.serviceWorker.register("/b/sw.js")',
      },
      host: 'files',
      finds: ['asset/missing caution ×1'],
      says: ['the service worker does not arrive'],
    },
    'the worker itself gone, which libraries register only where it is wanted': {
      files: { ...site(''), 'sw.js': undefined },
      host: 'files',
      finds: [],
    },
  })
})

describe('asset/insecure', () => {
  checkCases(['asset/insecure', 'endpoint/loopback'], {
    'a script by plain http': {
      files: { 'index.html': page('<script src="http://charts.example/c.js"></script>') },
      finds: ['asset/insecure blocker ×1'],
      says: ['Write https://charts.example, once that answers'],
    },
    'a script by plain http that a source asks for at two places': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'index.html': '<script src="http://charts.example/c.js"></script>',
        'about/index.html': '<script src="http://charts.example/c.js"></script>',
        'dist/index.html': page('<script src="http://charts.example/c.js"></script>'),
      },
      finds: ['asset/insecure blocker ×1'],
      says: [
        'write https://charts.example, and so at 1 other place, once that answers.',
        '"expects":"http://charts.example","text":"https://charts.example"',
      ],
    },
    'a picture by plain http': {
      files: { 'index.html': page('<img src="http://charts.example/c.png">') },
      finds: ['asset/insecure caution ×1'],
    },
    'both are two': {
      files: {
        'index.html': page(
          '<img src="http://charts.example/c.png"><link rel=stylesheet href="http://charts.example/c.css">',
        ),
      },
      finds: ['asset/insecure blocker ×1', 'asset/insecure caution ×1'],
    },
    'a font in a style sheet': {
      files: {
        'index.html': page('<link rel=stylesheet href="/b/a.css">'),
        'a.css': '@font-face{font-family:x;src:url(http://fonts.example/x.woff2)}',
      },
      finds: ['asset/insecure blocker ×1'],
    },
    'a link to a page, a namespace and a string': {
      files: {
        'index.html': page(
          `<a href="http://charts.example/">x</a><svg xmlns="http://www.w3.org/2000/svg"></svg>${script}`,
        ),
        'assets/app-AbCdEf12.js': 'x("http://charts.example/c.js")',
      },
      finds: [],
    },
    'a site that is plain http itself': {
      files: { 'index.html': page('<script src="http://charts.example/c.js"></script>') },
      site: 'http://skerryline.example/b/',
      finds: [],
    },
    "the browser's own machine": {
      files: {
        'index.html': page(`<script src="http://localhost:35729/livereload.js"></script>${script}`),
        ...app,
      },
      finds: ['endpoint/loopback blocker ×1'],
    },
  })
})

const runtime = 'o.u=e=>e+".aa11bb22.js",o.p="/",o.e(7).then(o.bind(o,7));'

describe('a public path that the page keeps', () => {
  checkCases(['asset/missing', 'base/wrong-path'], {
    'in a meta element': {
      files: {
        'index.html': page('<meta name="assets" content="/b/js/"><script src="/b/main.js"></script>'),
        'main.js': `${runtime}o.p=document.querySelector('meta[name="assets"]').content;`,
        'js/7.aa11bb22.js': '',
      },
      finds: [],
    },
    'in a meta element, and wrong': {
      files: {
        'index.html': page('<meta name="assets" content="/cdn/"><script src="/b/main.js"></script>'),
        'main.js': `${runtime}o.p=document.querySelector("meta[name=assets]").getAttribute("content");`,
        '7.aa11bb22.js': '',
      },
      host: 'files',
      finds: ['base/wrong-path blocker ×1'],
      says: ['https://skerryline.example/cdn/7.aa11bb22.js'],
    },
    'in a member of the window': {
      files: {
        'index.html': page('<script>window.assets = "/b/js/"</script><script src="/b/main.js"></script>'),
        'main.js': `${runtime}o.p=window.assets;`,
        'js/8.aa11bb22.js': '',
      },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['https://skerryline.example/b/js/7.aa11bb22.js'],
    },
    'that no page has': {
      files: {
        'index.html': page('<script src="/b/main.js"></script>'),
        'main.js': `${runtime}o.p=window.assets;`,
      },
      finds: [],
    },
  })
})

const mapped = (map: object, code: string): string =>
  page(`<script type="importmap">${JSON.stringify(map)}</script><script type="module">${code}</script>`)

describe('import maps', () => {
  checkCases(['asset/missing', 'asset/unknown-module', 'base/wrong-path'], {
    'a bare name without a map': {
      files: {
        'index.html': page('<script type="module" src="a.js"></script>'),
        'a.js': "/*! a */\nimport{h}from'preact';import './b.js'\nh()",
        'b.js': '',
      },
      finds: ['asset/unknown-module blocker ×1'],
      says: ['1 script imports ', 'preact', 'Give each page an import map'],
    },
    'bare names in a chunk that is imported': {
      files: {
        'index.html': page('<script type="module" src="a.js"></script>'),
        'a.js': "import './c.js'",
        'c.js': "export { x } from 'one'\nimport two, { y } from '@scope/two'\nimport * as z from 'three'",
      },
      finds: ['asset/unknown-module blocker ×3'],
      says: ['one', '@scope/two', 'three'],
    },
    'a name of a map': {
      files: {
        'index.html': mapped({ imports: { preact: './lib/preact.js' } }, "import { h } from 'preact'"),
        'lib/preact.js': '',
      },
      finds: [],
    },
    'the file that a map names is gone': {
      files: {
        'index.html': mapped({ imports: { preact: './lib/preact.js' } }, "import { h } from 'preact'"),
      },
      host: 'files',
      finds: ['asset/missing blocker ×2'],
    },
    'below a prefix of a map': {
      files: { 'index.html': mapped({ imports: { 'lib/': './lib/' } }, "import 'lib/a.js'"), 'lib/a.js': '' },
      finds: [],
    },
    'a file below a prefix that is gone': {
      files: { 'index.html': mapped({ imports: { 'lib/': './lib/' } }, "import 'lib/a.js'"), 'lib/b.js': '' },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
      says: ['lib/a.js'],
    },
    'the longest prefix counts, and a scope before all': {
      files: {
        'index.html': mapped(
          {
            imports: { 'lib/': './no/', 'lib/own/': './own/', x: './no.js' },
            scopes: { './own/': { x: './own/x.js' } },
          },
          "import 'lib/own/a.js'",
        ),
        'own/a.js': "import 'x'",
        'own/x.js': '',
        'no.js': '',
      },
      finds: [],
    },
    'a URL that a map leads to another file': {
      files: {
        'index.html': mapped({ imports: { './a.js': './a-1.js' } }, "import './a.js'"),
        'a-1.js': '',
      },
      finds: [],
    },
    'a map below a path that is not the site': {
      files: { 'index.html': mapped({ imports: { x: '/lib/x.js' } }, "import 'x'"), 'lib/x.js': '' },
      finds: ['base/wrong-path blocker ×2'],
    },
    'a map that a script makes is not known': {
      files: {
        'index.html': page(
          '<script>document.head.append(Object.assign(document.createElement("script"),{type:"importmap"}))</script><script type="module" src="a.js"></script>',
        ),
        'a.js': "import 'x'",
      },
      finds: [],
    },
    'a name that is blocked, and one that is only requested later': {
      files: { 'index.html': mapped({ imports: { x: null } }, "import 'x'\nimport('y/z.js')") },
      finds: ['asset/unknown-module blocker ×1'],
    },
    'a module that no page starts': {
      files: { 'index.html': page('<p>a'), 'server.js': "import express from 'express'" },
      finds: [],
    },
    'a broken map knows nothing': {
      files: {
        'index.html': page(
          '<script type="importmap">{ "imports": </script><script type="module">import "x"</script>',
        ),
      },
      finds: ['asset/unknown-module blocker ×1'],
    },
    'the names of an object that every object has': {
      files: {
        'index.html': mapped({ imports: { a: './a.js' } }, "import 'constructor'\nimport '__proto__'"),
        'a.js': '',
      },
      finds: ['asset/unknown-module blocker ×2'],
    },
  })
})

describe('a base that browsers pass over', () => {
  const based = (href: string): Record<string, string> => ({
    'index.html': page(`<base href="${href}"><script src="gone.js"></script>`),
  })
  checkCases('asset/missing', {
    'of a script': { files: based('javascript:void 0'), host: 'files', finds: ['asset/missing blocker ×1'] },
    'of data': { files: based('data:text/plain,a'), host: 'files', finds: ['asset/missing blocker ×1'] },
    'that is broken': { files: based('https://['), host: 'files', finds: ['asset/missing blocker ×1'] },
  })
})

describe('asset/on-disk, and a service worker that is not there', () => {
  checkCases(['asset/on-disk', 'asset/missing'], {
    'a picture of a disk': {
      files: { 'index.html': page('<img src="file:///C:/site/logo.png"><img src="C:\\\\site\\\\a.png">') },
      finds: ['asset/on-disk blocker ×2'],
      says: ['2 files do not arrive', 'index.html asks for file:///C:/site/logo.png and 1 other file'],
    },
    'a style sheet that names one': {
      files: {
        'index.html': page('<link rel="stylesheet" href="a.css">'),
        'a.css': 'p{background:url(file:///home/x.png)}',
      },
      finds: ['asset/on-disk blocker ×1'],
    },
    'a link, and what is no disk': {
      files: {
        'index.html': page(
          '<a href="file:///C:/x.txt">x</a><img src="data:image/png;base64,AA"><img src="blob:x">',
        ),
      },
      finds: [],
    },
    'a service worker': {
      files: { 'index.html': page('<script>navigator.serviceWorker.register("/b/sw.js")</script>') },
      host: 'files',
      finds: ['asset/missing caution ×1'],
      says: ['Nothing is kept for when there is no network'],
    },
    'a service worker that is there': {
      files: {
        'index.html': page('<script>navigator.serviceWorker.register("/b/sw.js")</script>'),
        'sw.js': '',
      },
      finds: [],
    },
  })
})
