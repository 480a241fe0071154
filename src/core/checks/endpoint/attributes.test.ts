import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const bare = (markup: string, more: Record<string, string> = {}): Record<string, string> => ({
  'index.html': page(markup),
  ...more,
})
const project = (markup: string): Record<string, string> => ({
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/', server: { proxy: { '/api': 'http://localhost:8000' } } }",
  'index.html': page(markup),
  'dist/index.html': page(markup),
})

describe('code in attributes', () => {
  checkCases('endpoint/loopback', {
    'an event handler': {
      files: bare(`<button onclick="fetch('http://localhost:8000/ping')">Ping</button>`),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'an event handler with entities': {
      files: bare(`<button onclick="fetch(&quot;http://localhost:8000/ping&quot;)">Ping</button>`),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'a directive of a library that reads markup': {
      files: bare(`<div x-init="rows = await (await fetch('http://127.0.0.1:8000/rows')).json()"></div>`),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'an event in a template of the page': {
      files: bare(
        `<button @click.prevent="send('/x')" v-on:blur="axios.get('http://localhost:3000/v1')">x</button>`,
      ),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'another service': {
      files: bare(`<button onclick="fetch('https://api.skerryline.example/ping')">Ping</button>`),
      finds: [],
    },
    'what only shows it': {
      files: bare(`<button onclick="alert('Open http://localhost:8000/')" one-way="x">Ping</button>`),
      finds: [],
    },
    'a source of a project, at several lines': {
      files: project(
        `<button onclick="fetch('http://localhost:8000/a')">A</button>\n<button onclick="fetch('http://localhost:8000/b')">B</button>`,
      ),
      finds: ['endpoint/loopback blocker ×2'],
      says: [', lines 1 and 2, use the production address.', 'index.html'],
    },
  })
})

describe('addresses in attributes', () => {
  checkCases('endpoint/loopback', {
    'a request of an element': {
      files: bare('<div hx-get="http://localhost:8000/departures" hx-trigger="load"></div>'),
      finds: ['endpoint/loopback blocker ×1'],
      says: ['It is passed to fetch'],
    },
    'a stream of an element': {
      files: bare('<div hx-ext="sse" sse-connect="http://localhost:8000/stream"></div>'),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'a setting of an element of its own': {
      files: bare('<ferry-board endpoint="http://localhost:8000/"></ferry-board>'),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'a value for a controller': {
      files: bare('<div data-controller="board" data-board-url-value="http://localhost:8000/"></div>'),
      finds: ['endpoint/loopback blocker ×1'],
    },
    'what people read and write': {
      files: bare(
        '<input placeholder="http://localhost:8000" value="http://localhost:8000" aria-label="http://localhost:8000" title="http://localhost:8000"><ferry-board label="http://localhost:8000"></ferry-board>',
      ),
      finds: [],
    },
    'an address of production': {
      files: bare('<div hx-get="https://api.skerryline.example/departures"></div>'),
      finds: [],
    },
  })
  checkCases(['endpoint/proxy-only', 'endpoint/answered-with-page', 'asset/missing'], {
    'a path that only the development server forwards': {
      files: project('<button hx-post="/api/refresh">Refresh</button>'),
      host: 'files',
      finds: ['endpoint/proxy-only blocker ×1'],
    },
    'a path that only the development server forwards, asked for': {
      files: project('<div hx-get="/api/list"></div>'),
      host: 'files',
      finds: ['endpoint/proxy-only blocker ×1'],
    },
    'a page that is put into this one': {
      files: bare('<div hx-get="/b/about"></div>', { 'about.html': page('') }),
      host: 'files',
      finds: [],
    },
    'a form that is sent to the host of files': {
      files: bare('<form hx-post="/b/orders"><button>Send</button></form>'),
      host: 'files',
      finds: ['endpoint/answered-with-page note ×1'],
    },
  })
})

describe('pictures of shared links', () => {
  const shown = '<meta property="og:image" content="http://localhost:3000/og/quay.png">'
  checkCases('endpoint/loopback', {
    'on the own machine, which no page asks': {
      files: bare(shown),
      finds: ['endpoint/loopback caution ×1'],
      says: ['A link that somebody shares shows no picture: it stands at http://localhost:3000.'],
    },
    'where the framework takes their origin from a setting': {
      files: {
        'package.json': '{"scripts":{"build":"next build"},"dependencies":{"next":"16"}}',
        'next.config.js': "module.exports = { output: 'export', basePath: '/b' }",
        'out/index.html': page(shown),
      },
      finds: ['endpoint/loopback caution ×1'],
      says: ["In the metadata of app/layout, add  metadataBase: new URL('https://skerryline.example'),"],
    },
    'at the site': {
      files: bare('<meta property="og:image" content="https://skerryline.example/b/og.png">', {
        'og.png': '',
      }),
      finds: [],
    },
  })
})
