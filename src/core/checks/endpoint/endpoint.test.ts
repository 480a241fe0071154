import { describe, expect, test } from 'vitest'
import { checkAlone, checkCase, checkCases, codesOf, page } from '../../../../test/support/cases.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { parseSite } from '../../model/site.ts'
import type { Reached } from '../../reach/reached.ts'

const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
const project = (source: string, config = "base: '/b/'"): Record<string, string> => ({
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': `export default { ${config} }`,
  'src/api.js': source,
})
/** A project whose source is built as it is. */
const built = (code: string, config?: string): Record<string, string> => ({
  ...project(code, config),
  'dist/index.html': page(script),
  'dist/assets/app-AbCdEf12.js': code,
})
/** A folder without its project. */
const bare = (code: string): Record<string, string> => ({
  'index.html': page(script),
  'assets/app-AbCdEf12.js': code,
})

describe('endpoint/loopback', () => {
  checkCases('endpoint/loopback', {
    'a fetch': {
      files: built('fetch("http://localhost:8787/v1")'),
      finds: ['endpoint/loopback blocker ×1'],
      says: [
        'src/api.js:1',
        'It is passed to fetch',
        '"text":"`${import.meta.env.VITE_API_ORIGIN}/v1`"',
        '"needs":"VITE_API_ORIGIN"',
        'Give VITE_API_ORIGIN the address of the service in .env.production',
      ],
    },
    'a script of another build, in a table of parts': {
      files: built('n.l("http://localhost:3001/remoteEntry.js",k=>{var m=k&&k.type},"tickets")'),
      finds: ['endpoint/loopback blocker ×1'],
      says: ['A file that the page loads does not arrive'],
    },
    'the same without its sources, in whatever form': {
      files: bare(
        'var remotes={tickets:{url:()=>Promise.resolve("http://localhost:3001/assets/remoteEntry.js")}}',
      ),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'a script that is only compared with, or told of': {
      files: bare(
        'if(u==="http://localhost:3001/a.js")x();console.warn("http://localhost:3001/a.js");new URL(p,"http://localhost:3001/a.js")',
      ),
      finds: [],
    },
    'given to a package, of which the build keeps no name': {
      files: {
        ...built(
          'var s=(u,o)=>{var m=/^(\\w+):/.exec(u)||u.startsWith("w");return k(m,o)};s("http://localhost:8787")',
        ),
        'src/api.js': "import { io } from 'socket-client'\nio('http://localhost:8787')",
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['It is passed to a client', 'src/api.js:2'],
    },
    'given to a package by a variable': {
      files: {
        ...built('var s=u=>k(u.startsWith("w"));s("http://localhost:8787")'),
        'src/api.js': "import { io } from 'socket-client'\nexport const s = io(import.meta.env.VITE_LIVE)",
        '.env': 'VITE_LIVE=http://localhost:8787',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['VITE_LIVE was http://localhost:8787 when the build ran (.env:1 sets it)'],
    },
    'given to a package at one place, and for a developer at another': {
      files: {
        ...built('var s=u=>k(u.startsWith("w"));s("http://localhost:8787")'),
        'src/api.js': "import { io } from 'socket-client'\nio('http://localhost:8787')",
        'src/dev.js': "if (import.meta.env.DEV) start('http://localhost:8787')",
      },
      finds: [],
    },
    'fetched where the page’s own host is a developer’s': {
      files: built("if(location.hostname==='localhost')fetch('http://localhost:8787/log')"),
      finds: [],
    },
    'fetched with the scheme of the page': {
      files: built("fetch('//localhost:8787/v1')"),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'what a page keeps for its scripts': {
      files: {
        'index.html': page(
          '<meta name="api-url" content="http://localhost:8787"><body data-socket-url="http://127.0.0.1:8788">',
        ),
      },
      finds: ['endpoint/loopback blocker ×1', 'endpoint/loopback blocker ×1'],
    },
    'what a page says of other things': {
      files: {
        'index.html': page(
          '<meta name="description" content="http://localhost:8787"><meta name="api-url" content="https://api.skerryline.example"><b data-title="http://localhost:1">',
        ),
      },
      finds: [],
    },
    'a link for visitors': {
      files: {
        ...project(''),
        'index.html': '<a href="http://localhost:8787/login">Log in</a>',
        'dist/index.html': page('<a href="http://localhost:8787/login">Log in</a>'),
      },
      finds: ['endpoint/loopback caution ×1'],
      says: ['A link leads to http://localhost:8787, where a visitor finds nothing.', 'linked from a page'],
    },
    'a link that is an instruction': {
      files: {
        ...project(''),
        'index.html': '<a href="http://localhost:8787">localhost:8787</a>',
        'dist/index.html': page('<a href="http://localhost:8787">localhost:8787</a>'),
      },
      finds: [],
    },
    'a link of a folder that nobody knows the sources of': {
      files: { 'index.html': page('<a href="http://localhost:8787/login">Log in</a>') },
      finds: [],
    },
    'a fetch, where the framework gives browsers no variables': {
      files: {
        'package.json': '{"scripts":{"build":"webpack"},"devDependencies":{"webpack":"5"}}',
        'src/api.js': 'fetch("http://localhost:8787/v1")',
        'dist/index.html': page(script),
        'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1")',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['In src/api.js, line 1, use the production address.', '"needs":"API_ORIGIN"', '"text":"…"'],
    },
    ...Object.fromEntries(
      [
        "fetch((import.meta.env.VITE_API ?? 'http://localhost:8787') + '/v1')",
        "const { VITE_API = 'http://localhost:8787' } = import.meta.env\nfetch(VITE_API + '/v1')",
        "const api = import.meta.env.VITE_API\nfetch(`${api || 'http://localhost:8787'}/v1`)",
        "const api = import.meta.env.VITE_API ? import.meta.env.VITE_API : 'http://localhost:8787'\nfetch(api + '/v1')",
      ].map((source) => [
        `what stands in for a variable: ${source}`,
        {
          files: { ...built('fetch("http://localhost:8787/v1")'), 'src/api.js': source },
          finds: ['endpoint/loopback blocker ×1'],
          says: [
            'The build ran without VITE_API, and takes http://localhost:8787 instead at src/api.js:',
            'Set VITE_API where the build runs, or in .env.production.',
            '"edits":[{"file":".env.production","line":null,"write":"VITE_API=…","needs":"VITE_API"',
          ],
        },
      ]),
    ),
    'what stands in for a variable that the configuration passes on': {
      files: {
        'package.json': '{"scripts":{"build":"webpack"},"devDependencies":{"webpack":"5"}}',
        'webpack.config.js':
          "module.exports = { plugins: [new DefinePlugin({ API: JSON.stringify(process.env.API || 'http://localhost:8787') })] }",
        'src/api.js': 'fetch(API + "/v1")',
        'dist/index.html': page(script),
        'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1")',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['The build ran without API, and takes http://localhost:8787', 'Set API where the build runs.'],
    },
    'what stands in for a variable that no browser gets under its name': {
      files: {
        ...built('fetch("http://localhost:8787/v1")'),
        'src/api.js': "fetch((import.meta.env.API ?? 'http://localhost:8787') + '/v1')",
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['Only names that begin with VITE_ reach the browser: call it VITE_API'],
    },
    'what stands in for a variable that is set now': {
      files: {
        ...built('fetch("http://localhost:8787/v1")'),
        '.env.production': 'VITE_API=https://api.skerryline.example',
        'src/api.js': "fetch((import.meta.env.VITE_API ?? 'http://localhost:8787') + '/v1')",
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['VITE_API: .env.production sets it now, so this build is older or ran without that file.'],
    },
    'beside a place that writes the same address out': {
      files: {
        ...built('axios.defaults.baseURL="http://localhost:4000";fetch("http://localhost:4000/v1")'),
        'src/api.js':
          "axios.defaults.baseURL = 'http://localhost:4000'\n\n\n\n\nfetch(import.meta.env.VITE_API ??\n  'http://localhost:4000/v1')",
      },
      finds: ['endpoint/loopback blocker ×2'],
      says: [
        'In src/api.js, line 1, use the production address, from a variable of the environment.',
        'Set VITE_API where the build runs',
        '"text":"import.meta.env.VITE_API_ORIGIN"',
      ],
    },
    'beside a variable that another address stands in for': {
      files: {
        ...built('fetch("http://localhost:8787/v1")'),
        'src/api.js':
          "fetch('http://localhost:8787/v1')\nexport const other = import.meta.env.VITE_API ?? 'http://localhost:9999'",
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['In src/api.js, line 1, use the production address, from a variable of the environment.'],
    },
    'an address that the configuration gives the build, beside what the development server forwards to': {
      files: {
        ...project(
          '',
          `base: '/b/',\n  define: { API: '"http://localhost:8787"' },\n  server: { proxy: { '/api': 'http://localhost:8787' } }`,
        ),
        'dist/index.html': page(script),
        'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1")',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: [
        'In vite.config.js, line 2, use the production address.',
        '"edits":[{"file":"vite.config.js","line":2',
      ],
    },
    'an address that nothing but the development server names': {
      files: {
        ...project('', `base: '/b/',\n  server: { proxy: { '/api': { target: 'http://localhost:8787' } } }`),
        'dist/index.html': page(script),
        'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1")',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['Find what sets this address in the sources', '"edits":[]'],
    },
    'an address in a folder that nothing builds': {
      files: {
        'index.html': page('<script src="/b/a.js"></script>'),
        'a.js': 'fetch("http://localhost:8787/v1")',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: [
        'In a.js, line 1, write  …/v1  in place of  http://localhost:8787/v1',
        '"expects":"http://localhost:8787/v1","text":"…/v1"',
      ],
    },
    'one origin in two ways, reported once': {
      files: built('fetch("http://localhost:8787/a");new EventSource("http://localhost:8787/b")'),
      finds: ['endpoint/loopback blocker ×2'],
      says: ['fetch and EventSource'],
    },
    'two origins': {
      files: built('fetch("http://localhost:8787/a");fetch("http://127.0.0.1:8788/b")'),
      finds: ['endpoint/loopback blocker ×1', 'endpoint/loopback blocker ×1'],
    },
    'odd notations of the own machine': {
      files: built(
        'fetch("http://0177.1:8787/a");fetch("http://2130706433:8787/b");fetch("http://[::1]:8787/c")',
      ),
      finds: ['endpoint/loopback blocker ×2', 'endpoint/loopback blocker ×1'],
    },
    'passed by the project to what can not be followed': {
      files: built('import{load}from"x";load("http://localhost:8787/v1")'),
      finds: ['endpoint/loopback caution ×1'],
    },
    "the project's own fallback": {
      files: built('fetch((window.CONFIG||{}).api||"http://localhost:8787")'),
      finds: ['endpoint/loopback caution ×1'],
      says: ['only used where no other is given'],
    },
    "a library's fallback": {
      files: { ...built('fetch((window.CONFIG||{}).api||"http://localhost:8787")'), 'src/api.js': 'start()' },
      finds: [],
    },
    'on the machine of a developer only': {
      files: built(
        'fetch(location.hostname==="localhost"?"http://localhost:8787":"https://api.skerryline.example")',
      ),
      finds: [],
    },
    'in a page of a documentation, as a link and in its text': {
      files: {
        ...built('start()'),
        'dist/index.html': page(`${script}<a href="http://localhost:5173/">http://localhost:5173/</a>`),
      },
      finds: [],
    },
    'an element, a preconnect and a policy': {
      files: {
        ...built('start()'),
        'dist/index.html': page(
          `${script}<meta http-equiv="Content-Security-Policy" content="connect-src http://localhost:1"><link rel="preconnect" href="http://localhost:2"><img src="http://localhost:3/a.png">`,
        ),
      },
      finds: ['endpoint/loopback blocker ×1', 'endpoint/loopback caution ×1'],
    },
    'in the configuration beside the page': {
      files: {
        ...built('start()'),
        'dist/config.json': '{"apiUrl":"http:\\/\\/localhost:8787\\/v1","docs":"http://localhost:1"}',
      },
      finds: ['endpoint/loopback blocker ×1'],
      says: ['http://localhost:8787/v1'],
    },
    'in a bare folder, through another chunk': {
      files: {
        ...bare('import{a as t}from"./c-AbCdEf12.js";fetch(t+"/v1")'),
        'assets/c-AbCdEf12.js': 'var e="http://localhost:8787";export{e as a}',
      },
      finds: ['endpoint/loopback blocker ×1'],
    },
    'in a bare folder, as libraries carry it': {
      files: bare(
        'new URL(e,"http://localhost").pathname;var b=location.href||"http://localhost";throw Error("http://localhost:1")',
      ),
      finds: [],
    },
    'in a script that can not be parsed': {
      files: {
        ...built('fetch("http://localhost:8787/v1")'),
        'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1");)',
      },
      finds: ['endpoint/loopback blocker ×1'],
    },
  })

  test('each address that is let pass keeps its reason, and each that is called its flow', async () => {
    const { endpoints } = await checkCase({
      files: bare(
        'fetch("https://api.skerryline.example/v1");new URL(e,"http://localhost").pathname;if(o==="http://127.0.0.1:9")f()',
      ),
      finds: [],
    })
    expect(
      endpoints.map(({ url, kind, flow, certainty, judgement }) => [url, kind, flow, certainty, judgement]),
    ).toEqual([
      ['http://127.0.0.1:9', 'loopback', null, 'harmless', 'only compared with'],
      ['http://localhost', 'loopback', null, 'harmless', 'only the base for reading a relative address'],
      ['https://api.skerryline.example/v1', 'reserved name', 'fetch', 'called', 'requested'],
    ])
    expect(endpoints[2]?.places).toEqual([{ file: 'assets/app-AbCdEf12.js', line: 1, column: 8 }])
  })
})

describe('endpoint/private-network', () => {
  checkCases('endpoint/private-network', {
    'a private address': {
      files: built('fetch("https://192.168.1.20/v1")'),
      finds: ['endpoint/private-network blocker ×1'],
    },
    'a name without a dot, plain http and reported once': {
      files: built('fetch("http://sailings:8080/v1")'),
      finds: ['endpoint/private-network blocker ×1'],
    },
    'a name of a network': {
      files: built('new WebSocket("wss://ships.skerry.internal/live")'),
      finds: ['endpoint/private-network blocker ×1'],
    },
    'called by a site inside that network': {
      files: built('fetch("https://192.168.1.20/v1")'),
      site: 'https://ferries.skerry.internal/b/',
      finds: [],
    },
    'a made-up base': { files: built('new URL(e,"https://base").pathname'), finds: [] },
  })
})

describe('endpoint/insecure', () => {
  checkCases('endpoint/insecure', {
    'a fetch by http': {
      files: built('fetch("http://api.skerryline.example/v1")'),
      finds: ['endpoint/insecure blocker ×1'],
    },
    'a socket by ws': {
      files: built('new WebSocket("ws://live.skerryline.example/")'),
      finds: ['endpoint/insecure blocker ×1'],
    },
    'a socket to the own host by ws': {
      files: built('new WebSocket("ws://skerryline.example/live")'),
      finds: ['endpoint/insecure blocker ×1'],
    },
    'from a site by http': {
      files: built('fetch("http://api.skerryline.example/v1")'),
      site: 'http://skerryline.example/b/',
      finds: [],
    },
    'through constants, in a bare folder': {
      files: built('const a={api:"http://api.skerryline.example"};fetch(a.api+"/v1")'),
      finds: ['endpoint/insecure blocker ×1'],
    },
    'a plain address for pages by plain http': {
      files: built('const a=location.protocol==="http:"?"http://api.skerryline.example":void 0;fetch(a)'),
      finds: [],
    },
    'a plain address that nothing requests': {
      files: built('const a="http://docs.skerryline.example/x";throw Error("see "+a)'),
      finds: [],
    },
    'the name of a vocabulary': {
      files: built('document.createElementNS("http://www.w3.org/2000/svg","svg")'),
      finds: [],
    },
    'a link': { files: built('h("a",{href:"http://old.skerryline.example/"})'), finds: [] },
  })
})

describe('endpoint/placeholder', () => {
  checkCases('endpoint/placeholder', {
    'angle brackets': {
      files: built('fetch("https://<your-host>/v1")'),
      finds: ['endpoint/placeholder blocker ×1'],
    },
    'a word for it': { files: built('fetch("https://TODO/v1")'), finds: ['endpoint/placeholder blocker ×1'] },
    'a host that begins with your': {
      files: built('fetch("https://your-api.skerryline.example/v1")'),
      finds: ['endpoint/placeholder blocker ×1'],
    },
    'a reserved name, from a real site': {
      files: built('fetch("https://api.example.com/v1")'),
      site: 'https://ferries.skerryline.net/b/',
      finds: ['endpoint/placeholder blocker ×1'],
    },
    'a reserved name, from a made-up site': {
      files: built('fetch("https://api.example.com/v1")'),
      finds: [],
    },
    'a real name': { files: built('fetch("https://todolist.skerryline.net/v1")'), finds: [] },
  })
})

describe('endpoint/proxy-only', () => {
  const config = "base: '/b/', server: { proxy: { '/api': 'http://localhost:8787' } }"
  checkCases(['endpoint/proxy-only', 'asset/missing'], {
    'a picture of the service, which is no file that the build lacks': {
      files: {
        ...built('i.src="/api/photos/ferry.png"', config.replace('/b/', '/')),
        'dist/index.html': page(script.replace('/b/', '/')),
      },
      site: 'https://skerryline.example/',
      host: 'files',
      finds: ['endpoint/proxy-only blocker ×1'],
    },
  })
  const atTop = (code: string): Record<string, string> => ({
    ...built(code, config.replace('/b/', '/')),
    'dist/index.html': page(script.replace('/b/', '/')),
  })
  checkCases(['endpoint/proxy-only', 'asset/missing', 'asset/answered-with-page'], {
    'pictures of the service in markup, and nothing that is fetched': {
      files: atTop('el.innerHTML=`<img src="/api/photos/${id}.png"><img src="/api/photos/first.png">`'),
      site: 'https://skerryline.example/',
      host: 'files',
      finds: ['endpoint/proxy-only blocker ×2'],
      says: ['Only the development server forwards /api'],
    },
    'pictures beside it': {
      files: atTop('el.innerHTML=`<img src="/photos/${id}.png">`'),
      site: 'https://skerryline.example/',
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
  })
  checkCases('endpoint/proxy-only', {
    'with a fallback, which answers the entry page': {
      files: {
        ...built('fetch("/api/v1/sailings")', config.replace('/b/', '/')),
        'dist/index.html': page(script.replace('/b/', '/')),
      },
      site: 'https://skerryline.example/',
      finds: ['endpoint/proxy-only blocker ×1'],
      says: ['which looks like success', 'vite.config.js'],
    },
    'without one': {
      files: built('const e="/api";fetch(`${e}/v1`)', config),
      host: 'files',
      finds: ['endpoint/proxy-only blocker ×1'],
      says: ['status 404'],
    },
    'a path that only begins alike': { files: built('fetch("/apis/v1")', config), finds: [] },
    'a path that nothing requests': { files: built('if(p==="/api/v1")f()', config), finds: [] },
    'a prefix that the host forwards too': {
      files: built('fetch("/api/v1")', config),
      rules: {
        rules: [
          {
            from: '/api/*',
            to: 'https://api.skerryline.example/:splat',
            status: 200,
            forced: false,
            conditions: [],
            place: { file: 'rules', line: 1, column: 1 },
          },
        ],
      },
      finds: [],
    },
    'a file below the prefix': {
      files: {
        ...built('fetch("/b/api/list.json")', config.replace("'/api'", "'/b/api'")),
        'dist/api/list.json': '[]',
      },
      finds: [],
    },
  })
})

describe('endpoint/origin-refused and endpoint/no-answer', () => {
  const code = 'fetch("https://api.skerryline.example/v1");fetch("https://api.skerryline.example/v2")'

  async function requested(outcome: Reached['outcome']): Promise<{ reported: string[]; text: string }> {
    const { findings } = await checkAlone(['endpoint/'], new MemoryFolder(built(code)), {
      site: parseSite('https://skerryline.example/b/'),
      reach: async (_, endpoints) =>
        endpoints.map(({ url }) => ({
          url,
          requested: 'GET',
          outcome,
          status: 200,
          reason: 'the reason of it',
          milliseconds: 5,
        })),
    })
    return { reported: codesOf(findings), text: JSON.stringify(findings) }
  }

  test.each<[Reached['outcome'], string[]]>([
    ['allows', []],
    ['refuses', ['endpoint/origin-refused blocker ×2']],
    ['no answer', ['endpoint/no-answer caution ×2']],
    ['error', ['endpoint/no-answer caution ×2']],
  ])('a service of which it is known that it: %s', async (outcome, expected) => {
    const { reported, text } = await requested(outcome)
    expect(reported).toEqual(expected)
    if (expected.length > 0) expect(text).toContain('the reason of it')
  })

  test('when nothing was sent, nothing is said of it', async () => {
    expect((await checkCase({ files: built(code), finds: [] })).findings).toEqual([])
  })
})

describe('endpoint/answered-with-page', () => {
  const project = (code: string, config = ''): Record<string, string> => ({
    'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': `export default { base: '/b/'${config} }`,
    'dist/index.html': page('<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'),
    'src/app.js': code,
    'dist/assets/app-AbCdEf12.js': code,
  })
  checkCases(['endpoint/answered-with-page', 'endpoint/proxy-only'], {
    'a path that the fallback answers': {
      files: project('fetch("/b/api/users").then(e=>e.json());new EventSource(`/b/live/${id}`)'),
      finds: ['endpoint/answered-with-page caution ×2'],
      says: ['/b/api/users with the entry page and status 200', '/b/live/'],
    },
    'a name of which a part is not known, and a file that fits': {
      files: {
        ...project(
          'fetch(`/b/locales/${l}.json`);fetch("/b/data/"+l+".json");fetch(`/b/pages/${l}/${n}.json`)',
        ),
        'dist/locales/en.json': '{}',
        'dist/data/en.json': '{}',
        'dist/pages/en/main.json': '{}',
      },
      finds: [],
    },
    'the same, and no file at that place': {
      files: {
        ...project('fetch(`/b/locales/${l}.json`);fetch("/b/api/"+l)'),
        'dist/old/locales/en.json': '{}',
        'dist/docs/api/en.json': '{}',
      },
      finds: ['endpoint/answered-with-page caution ×2'],
    },
    'on plain files': {
      files: project('fetch("/b/api/users?x=1")'),
      host: 'files',
      finds: ['endpoint/answered-with-page caution ×1'],
      says: ['with status 404', '"request":"/b/api/users"'],
    },
    'that a rule of the host answers': {
      files: project('fetch("/b/api/users")'),
      rules: {
        rules: [
          {
            from: '/b/api/*',
            to: 'https://api.skerryline.example/*',
            status: 200,
            forced: false,
            conditions: [],
            place: null,
          },
        ],
      },
      finds: [],
    },
    'that the development server forwards, which is told alone': {
      files: project('fetch("/b/api/users")', ", server: { proxy: { '/b/api': 'http://localhost:8787' } }"),
      finds: ['endpoint/proxy-only blocker ×1'],
    },
    'that a development server forwards with all others': {
      files: project('fetch("/api/users")', ", server: { proxy: { '/': 'http://localhost:8787' } }"),
      finds: ['endpoint/proxy-only blocker ×1'],
      says: ['Only the development server forwards what no file answers'],
    },
    'a library asks it, and a development server forwards all': {
      files: {
        ...project('fetch("/api/users")', ", server: { proxy: { '/': 'http://localhost:8787' } }"),
        'src/app.js': '',
      },
      finds: [],
    },
    'in a bare folder': {
      files: { 'index.html': page('<script src="/b/a.js"></script>'), 'a.js': 'fetch("/b/api/users")' },
      finds: ['endpoint/answered-with-page note ×1'],
    },
    'above the base path, where other things of the host are': {
      files: project('fetch("/api/users")'),
      finds: [],
    },
    'in a library, which may never ask': {
      files: { ...project('fetch("/b/api/users")'), 'src/app.js': '' },
      finds: ['endpoint/answered-with-page note ×1'],
    },
    "of a development server's own": { files: project('fetch("/__open?file=a")'), finds: [] },
    'a path that is only named': { files: project('go("/api/users");x.get("/api")'), finds: [] },
    'a path of a constant, joined with others': {
      files: {
        ...project('const b="/b/api",v="v1",u=b+"/"+v;fetch(`${u}/boats`)', ''),
        'src/app.js': "export const b = '/b/api'",
      },
      finds: ['endpoint/answered-with-page caution ×1'],
      says: ['"request":"/b/api/v1/boats"'],
    },
    'a path of a constant that a link takes': {
      files: project('const b="/b/api";const a=document.createElement("a");a.href=b+"/docs"'),
      finds: [],
    },
    'a page of this site': {
      files: { ...project('fetch("/b/harbours/")'), 'dist/harbours/index.html': page('') },
      finds: [],
    },
  })
})

describe('endpoint/other-port', () => {
  checkCases('endpoint/other-port', {
    'a port behind the own host, in a template': {
      files: bare('const b=`${location.protocol}//${location.hostname}:6277`;fetch(b+"/config")'),
      finds: ['endpoint/other-port caution ×1'],
      says: ['port 6277 of skerryline.example', '"request":"https://skerryline.example:6277"'],
    },
    joined: {
      files: built('new WebSocket("wss://"+window.location.hostname+":6277/live")'),
      finds: ['endpoint/other-port caution ×1'],
    },
    'where nobody said who serves it': {
      files: bare('fetch("//"+location.hostname+":6277/x")'),
      site: null,
      finds: ['endpoint/other-port note ×1'],
    },
    'on a network of its own': {
      files: bare('fetch("//"+location.hostname+":6277/x")'),
      site: 'http://10.0.0.7/b/',
      finds: [],
    },
    'that is only shown': { files: bare('document.title=location.hostname+":6277"'), finds: [] },
    "where the page asks for a developer's host": {
      files: bare('location.hostname==="localhost"&&fetch("//"+location.hostname+":6277/x")'),
      finds: [],
    },
    "where the page asks for a development server's port": {
      files: bare('const u=location.port==="3000"?`//${location.hostname}:6277/x`:"/b/x.json";fetch(u)'),
      finds: [],
    },
    'where the page is not on that port': {
      files: bare('fetch(location.port!=="3000"?`//${location.hostname}:6277/x`:"/b/x.json")'),
      finds: ['endpoint/other-port caution ×1'],
    },
    'the port that the site has': {
      files: bare('fetch("//"+location.hostname+":6277/x")'),
      site: 'https://s.test:6277/b/',
      finds: [],
    },
  })
})

test('the fix of an address leaves files of development as they are', async () => {
  const files = {
    'package.json': '{"scripts":{"build":"webpack"},"devDependencies":{"webpack":"5"}}',
    'src/api.js': 'fetch(environment.api + "/v1")',
    'src/environment.js': 'export const environment = { api: "http://localhost:8787" }',
    'src/environment.development.js': 'export const environment = { api: "http://localhost:8787" }',
    'mocks/server.js': 'serve("http://localhost:8787")',
    'dist/index.html': page(script),
    'dist/assets/app-AbCdEf12.js': 'const e={api:"http://localhost:8787"};fetch(e.api+"/v1")',
  }
  const { findings } = await checkAlone(['endpoint/loopback'], new MemoryFolder(files), {
    site: parseSite('https://skerryline.example/b/'),
  })
  expect(findings.flatMap(({ fix }) => fix.edits.map(({ file }) => file))).toEqual(['src/environment.js'])
})
