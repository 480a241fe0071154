import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const app = { 'assets/a.js': '', 'assets/a.css': '' }
const head = (base: string): string =>
  page(`<script src="${base}assets/a.js"></script><link rel=stylesheet href="${base}assets/a.css">`)

const vueCli = (script: string): Record<string, string> => ({
  'package.json': `{ "devDependencies": { "@vue/cli-service": "5" },\n  "scripts": { "build": "${script}" },\n  "name": "s" }\n`,
  'vue.config.js':
    "module.exports = {\n  publicPath: process.env.NODE_ENV === 'production' ? '/b/' : '/',\n}\n",
})

describe('base/wrong-path', () => {
  checkCases(['asset/missing', 'base/wrong-path'], {
    'built for its own base': { files: { ...app, 'index.html': head('/b/') }, finds: [] },
    'built for the root': {
      files: { ...app, 'index.html': head('/') },
      finds: ['base/wrong-path blocker ×2'],
      says: [
        'under /; this site serves them under /b/',
        'Or serve the folder at https://skerryline.example/,',
      ],
    },
    'written for the root, and nothing builds it': {
      files: { ...app, 'index.html': '<!doctype html>\n<link rel=stylesheet href="/assets/a.css">\n' },
      finds: ['base/wrong-path blocker ×1'],
      says: [
        'In index.html, line 2, write  <link rel=stylesheet href=\\"/b/assets/a.css\\">',
        '"expects":"/assets/a.css","text":"/b/assets/a.css"',
        'Where a program writes these files, set its base path to /b/ instead.',
      ],
    },
    'names that an import map leads to the root are put right in the map, which nothing builds': {
      files: {
        'lib/fares.js': '',
        'lib/parts/table.js': '',
        'app.js': "import 'fares'\nimport 'parts/table.js'\n",
        'index.html':
          '<!doctype html>\n<script type="importmap">\n{"imports":{"fares":"/lib/fares.js","parts/":"/lib/parts/"}}\n</script>\n<script type="module" src="app.js"></script>\n',
      },
      finds: ['base/wrong-path blocker ×3'],
      says: [
        '"expects":"/lib/fares.js","text":"/b/lib/fares.js"',
        '"expects":"/lib/parts/","text":"/b/lib/parts/"',
      ],
    },
    'a page that names its generator is written by that': {
      files: {
        ...app,
        'index.html':
          '<!doctype html>\n<meta name="generator" content="Hugo 0.152.2">\n<link rel=stylesheet href="/assets/a.css">\n',
      },
      finds: ['base/wrong-path blocker ×1'],
      says: ['"edits":[]'],
    },
    'names with digests are those of a builder, whose files nobody edits': {
      files: {
        'assets/a-AbCdEf12.css': '',
        'index.html': '<!doctype html>\n<link rel=stylesheet href="/assets/a-AbCdEf12.css">\n',
      },
      finds: ['base/wrong-path blocker ×1'],
      says: ['Set the base path of the build to /b/.', '"edits":[]'],
    },
    'built for a sub-path, served at the root': {
      files: { ...app, 'index.html': head('/b/') },
      site: 'https://skerryline.example/',
      host: 'files',
      finds: ['base/wrong-path blocker ×2'],
    },
    'three hundred files are one finding': {
      files: {
        'index.html': page(Array.from({ length: 300 }, (_, i) => `<img src="/pics/${i}.png">`).join('')),
        ...Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`pics/${i}.png`, ''])),
      },
      finds: ['base/wrong-path blocker ×300'],
    },
    'one URL written by hand': {
      files: { ...app, 'index.html': `${head('/b/')}<img src="/logo.png">`, 'logo.png': '' },
      finds: ['base/wrong-path blocker ×1'],
      says: ['A URL leaves out the base path'],
    },
    'one icon written by hand': {
      files: { ...app, 'index.html': `${head('/b/')}<link rel=icon href="/logo.png">`, 'logo.png': '' },
      finds: ['base/wrong-path caution ×1'],
    },
    'both at once are two': {
      files: { ...app, 'index.html': `${head('/old/')}<img src="/logo.png">`, 'logo.png': '' },
      finds: ['base/wrong-path blocker ×2', 'base/wrong-path blocker ×1'],
    },
    'a build for development, whose base path the configuration leaves out': {
      files: {
        ...vueCli('vue-cli-service build --mode development'),
        'dist/index.html': head('/'),
        'dist/assets/a.js': '',
        'dist/assets/a.css': '',
      },
      finds: ['base/wrong-path blocker ×2'],
      says: [
        'vue.config.js:2 takes it from the variable NODE_ENV; as package.json:2 sets it, it is /.',
        'In package.json, line 2, write  \\"scripts\\": { \\"build\\": \\"vue-cli-service build --mode production\\" },',
      ],
    },
    'a mode of another name, which this framework builds for development unless its file says otherwise': {
      files: {
        ...vueCli('vue-cli-service build --mode staging'),
        'dist/index.html': head('/'),
        'dist/assets/a.js': '',
        'dist/assets/a.css': '',
      },
      finds: ['base/wrong-path blocker ×2'],
      says: ['In .env.staging, write  NODE_ENV=production  : the mode staging alone builds for development.'],
    },
    'the same, with a file that says so': {
      files: {
        ...vueCli('vue-cli-service build --mode staging'),
        '.env.staging': 'NODE_ENV=production\n',
        'dist/index.html': head('/b/'),
        'dist/assets/a.js': '',
        'dist/assets/a.css': '',
      },
      finds: [],
    },
    'written by hand in the sources, where the configuration is right and building again changes nothing': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': 'export default { base: "/b/" }',
        'src/index.html': '<script src="/build/app.js"></script>',
        'dist/index.html': page('<script src="/build/app.js"></script>'),
        'dist/build/app.js': '',
      },
      finds: ['base/wrong-path blocker ×1'],
      says: [
        'It is written by hand',
        'In src/index.html, line 1, write  <script src=\\"/b/build/app.js\\"></script>',
      ],
    },
    'written by hand in a page that the bundler takes as it is, beside a path that only ends alike': {
      files: {
        'package.json': '{"scripts":{"build":"node build.mjs"},"devDependencies":{"esbuild":"0.25"}}',
        'build.mjs': "build({ entryPoints: ['src/main.js'], outdir: 'dist', publicPath: '/' })",
        'src/index.html': '<script src="/main.js"></script>',
        'dist/index.html': page('<script src="/main.js"></script>'),
        'dist/main.js': 'import("/late-AbCdEf12.js")',
        'dist/late-AbCdEf12.js': '',
      },
      finds: ['base/wrong-path blocker ×1', 'base/wrong-path blocker ×1'],
      says: ["publicPath: '/b/'", '"text":"/b/main.js"', '"edits":[{"file":"src/index.html"'],
    },
    'built before the configuration was right': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': 'export default { base: "/b/" }',
        'index.html': '<script type="module" src="/src/app.js"></script>',
        'dist/index.html': page('<script src="/assets/app-AbCdEf12.js"></script>'),
        'dist/assets/app-AbCdEf12.js': '',
      },
      finds: ['base/wrong-path blocker ×1'],
      says: ['The configuration is right already: run npm run build again.'],
    },
    'files of another site on the same origin': {
      files: { ...app, 'index.html': `${head('/b/')}<script src="/shared/header.js"></script>` },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
  })
})

describe('base/unreplaced-marker', () => {
  const sound = { ...app, 'index.html': head('/b/') }
  const withIcon = (href: string): Record<string, string> => ({
    ...app,
    'index.html': `${head('/b/')}<link rel=icon href="${href}">`,
  })
  checkCases('base/unreplaced-marker', {
    none: { files: sound, finds: [] },
    "a framework's own": {
      files: withIcon('%PUBLIC_URL%/icon.svg'),
      finds: ['base/unreplaced-marker blocker ×1'],
      says: ['%PUBLIC_URL%'],
    },
    'in <base>': {
      files: {
        'index.html': page('<base href="$FLUTTER_BASE_HREF"><script src="a.js"></script>'),
        'a.js': '',
      },
      finds: ['base/unreplaced-marker blocker ×1'],
    },
    "another program's": {
      files: withIcon('{{ asset_url }}/icon.svg'),
      finds: ['base/unreplaced-marker note ×1'],
    },
    'percent-encoded': {
      files: withIcon('%7B%7B%20asset_url%20%7D%7D/icon.svg'),
      finds: ['base/unreplaced-marker note ×1'],
    },
    'many are one': {
      files: {
        ...app,
        'index.html': `${head('/b/')}<img src="<%= a %>x.png"><a href="[[b]]">y</a><img src="__CDN_URL__/z.png">`,
      },
      finds: Array(3).fill('base/unreplaced-marker note ×1'),
    },
    'hundreds of them': {
      files: {
        ...app,
        'index.html': `${head('/b/')}${Array.from({ length: 300 }, (_, each) => `<img src="{{ a${each} }}">`).join('')}`,
      },
      finds: ['base/unreplaced-marker note ×292', ...Array(8).fill('base/unreplaced-marker note ×1')],
      says: ['{{ a8 }} and 291 more'],
    },
    'what starts the page of a project, on a named host': {
      files: {
        'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'dist/index.html': page('<script src="@@BASE@@/a.js"></script><img src="@@BASE@@/b.png">'),
        'dist/a.js': '',
      },
      finds: ['base/unreplaced-marker blocker ×2'],
      says: ['The page does not start'],
    },
    'a picture of a project': {
      files: {
        'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'dist/index.html': page('<img src="::base::/b.png">'),
      },
      finds: ['base/unreplaced-marker caution ×1'],
    },
    'what starts the page of a bare folder, which a program may serve': {
      files: { 'index.html': page('<script src="%%BASE%%/a.js"></script>'), 'a.js': '' },
      finds: ['base/unreplaced-marker caution ×1'],
    },
    'links alone': {
      files: { 'index.html': page('<a href="{{ url }}">x</a>') },
      finds: ['base/unreplaced-marker note ×1'],
    },
    'the title of a page': {
      files: { 'index.html': '<title>%VITE_TITLE%</title><p>100% and %APP_NAME%' },
      finds: ['base/unreplaced-marker caution ×1'],
      says: ['"excerpt":"<title>%VITE_TITLE%</title>'],
    },
    'titles that only look so': {
      files: {
        'index.html': '<title>100% of __init__ in {curly} words</title>',
        'a.html': '<title>Why %20 stands there</title><svg><title>x</title></svg>',
      },
      finds: [],
    },
    'a file that is really called so': {
      files: { ...withIcon('__ICON__.svg'), '__ICON__.svg': '' },
      finds: [],
    },
  })
})

describe('base/addresses-disagree', () => {
  const project = (config: string, more: Record<string, string>): Record<string, string> => ({
    'package.json': '{"name":"a","scripts":{"build":"astro build"},"devDependencies":{"astro":"5.0.0"}}',
    'astro.config.mjs': `export default { ${config} }`,
    'dist/index.html': page('<link rel="icon" href="/mark.svg">'),
    'dist/mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
    ...more,
  })
  const site = 'https://skerryline.example/'
  checkCases('base/addresses-disagree', {
    'a configuration and a domain file that agree': {
      files: project("site: 'https://skerryline.example'", { 'public/CNAME': 'skerryline.example\n' }),
      site,
      finds: [],
    },
    'two hosts': {
      files: project("site: 'https://docs.skerryline.example'", { 'public/CNAME': 'skerryline.example' }),
      site,
      finds: ['base/addresses-disagree caution ×1'],
      says: ['astro.config.mjs:1 names docs.skerryline.example; public/CNAME:1 names skerryline.example'],
    },
    'a domain file that only the build has, beside a base path': {
      files: {
        ...project("base: '/crossings/'", { 'dist/CNAME': 'skerryline.example' }),
        'dist/index.html': page('<link rel="icon" href="/crossings/mark.svg">'),
      },
      site: 'https://skerry.test/crossings/',
      finds: ['base/addresses-disagree caution ×1'],
      says: [
        'dist/CNAME gives the site the domain skerryline.example',
        'set the base path to / in astro.config.mjs, line 1',
      ],
    },
    'a path below the domain that somebody names': {
      files: {
        ...project("base: '/crossings/'", { 'dist/CNAME': 'skerryline.example' }),
        'dist/index.html': page('<link rel="icon" href="/crossings/mark.svg">'),
      },
      site: 'https://skerryline.example/crossings/',
      finds: [],
    },
    'files in capitals that hold no domain': {
      files: project('', { 'public/README': 'Read me.', 'public/LICENSE': 'MIT' }),
      site,
      finds: [],
    },
  })
})

describe('base/router-path', () => {
  const routed = (
    router: string,
    more: Record<string, string> = {},
    base = '/b/',
  ): Record<string, string> => ({
    'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': `export default { base: '${base}' }`,
    'src/router.jsx': `import { x } from 'router'\nconst routes = [{ path: '/', element: 1 }, { path: '/sailings', element: 1 }]\n${router}`,
    'dist/index.html': page('<script type="module" src="/b/a.js"></script>'),
    'dist/a.js': '',
    ...more,
  })
  const blocker = ['base/router-path blocker ×1']
  checkCases('base/router-path', {
    'no base for React Router': {
      files: routed('createBrowserRouter(routes)'),
      finds: blocker,
      says: [
        'createBrowserRouter is given no base, so it takes its routes from /',
        'In src/router.jsx, line 3, give createBrowserRouter { basename: import.meta.env.BASE_URL } as its second argument.',
      ],
    },
    "the build's own base": {
      files: routed('createBrowserRouter(routes, { basename: import.meta.env.BASE_URL })'),
      finds: [],
    },
    'the same base as a text': {
      files: routed("createBrowserRouter(routes, { basename: '/b' })"),
      finds: [],
    },
    'the same base as a constant': {
      files: routed("const base = '/b'\ncreateBrowserRouter(routes, { basename: `${base}/` })"),
      finds: [],
    },
    'another base': {
      files: routed("createBrowserRouter(routes, { basename: '/old' })"),
      finds: blocker,
      says: ['createBrowserRouter takes its routes from /old/; this site is served under /b/.'],
    },
    'settings that cannot be seen': { files: routed('createBrowserRouter(routes, options)'), finds: [] },
    'settings that spread others': {
      files: routed('createBrowserRouter(routes, { ...options })'),
      finds: [],
    },
    'no base for Vue Router': {
      files: routed('createRouter({ history: createWebHistory(), routes })'),
      finds: blocker,
      says: ['write createWebHistory(import.meta.env.BASE_URL)'],
    },
    "Vue Router with the page's own base": {
      files: routed('createRouter({ history: createWebHistory(), routes })', {
        'dist/index.html': page('<base href="/b/"><script type="module" src="a.js"></script>'),
      }),
      finds: [],
    },
    'no base for the element': {
      files: routed(
        'export const App = () => <BrowserRouter><Routes><Route path="/" element={1} /></Routes></BrowserRouter>',
      ),
      finds: blocker,
      says: ['write <BrowserRouter basename={import.meta.env.BASE_URL}>'],
    },
    'a base for the element': {
      files: routed(
        'export const App = () => <BrowserRouter basename="/b"><Routes><Route path="/" element={1} /></Routes></BrowserRouter>',
      ),
      finds: [],
    },
    'an element whose settings are spread': {
      files: routed(
        'export const App = (p) => <BrowserRouter {...p}><Route path="/" element={1} /></BrowserRouter>',
      ),
      finds: [],
    },
    'no base for TanStack Router': {
      files: routed("import { createRouter } from '@tanstack/react-router'\ncreateRouter({ routeTree })"),
      finds: blocker,
      says: ['give createRouter { basepath: import.meta.env.BASE_URL } as its first argument.'],
    },
    'a base for TanStack Router': {
      files: routed(
        "import { createRouter } from '@tanstack/solid-router'\ncreateRouter({ routeTree, basepath: '/b' })",
      ),
      finds: [],
    },
    'a function of that name of others': {
      files: routed("import { createRouter } from './own'\ncreateRouter({ routeTree })"),
      finds: [],
    },
    'no base for the element of others': {
      files: routed("import { Router } from 'wouter'\nexport const App = () => <Router><Home /></Router>"),
      finds: blocker,
      says: ['write <Router base=\\"/b\\">'],
    },
    'a base for the element of others': {
      files: routed(
        "import { Router } from '@solidjs/router'\nexport const App = () => <Router base='/b'><Home /></Router>",
      ),
      finds: [],
    },
    'the element under another name': {
      files: routed(
        "import { BrowserRouter as Router } from 'react-router-dom'\nexport const App = () => <Router><Route path='/' element={1} /></Router>",
      ),
      finds: blocker,
      says: ['write <Router basename={import.meta.env.BASE_URL}>', '"into":{"attribute":"basename"}'],
    },
    'the element under another name, with a base': {
      files: routed(
        "import { BrowserRouter as Router } from 'react-router-dom'\nexport const App = () => <Router basename='/b'><Route path='/' element={1} /></Router>",
      ),
      finds: [],
    },
    'another element under its name': {
      files: routed(
        "import { HashRouter as Router } from 'react-router-dom'\nexport const App = () => <Router><Route path='/' element={1} /></Router>",
      ),
      finds: [],
    },
    'a member of its package': {
      files: routed(
        "import * as R from 'react-router'\nexport const App = () => <R.BrowserRouter><R.Route path='/' element={1} /></R.BrowserRouter>",
      ),
      finds: blocker,
      says: ['write <R.BrowserRouter basename={import.meta.env.BASE_URL}>'],
    },
    'a call of a member of its package': {
      files: routed(
        "import * as V from 'vue-router'\nV.createRouter({ history: V.createWebHistory('/'), routes })",
      ),
      finds: blocker,
      says: ['write V.createWebHistory(import.meta.env.BASE_URL)', '"expects":"\'/\'"'],
    },
    'Vue Router as a class': {
      files: routed("import R from 'vue-router'\nexport default new R({ mode: 'history', routes })"),
      finds: blocker,
      says: ['give new R { base: import.meta.env.BASE_URL } as its first argument'],
    },
    'Vue Router as a class, with the base': {
      files: routed(
        "import R from 'vue-router'\nexport default new R({ mode: 'history', base: '/b/', routes })",
      ),
      finds: [],
    },
    'Vue Router as a class, behind a hash': {
      files: routed("import VueRouter from 'vue-router'\nexport default new VueRouter({ routes })"),
      finds: [],
    },
    'a router by hand': {
      files: routed("import Navigo from 'navigo'\nconst router = new Navigo('/')"),
      finds: blocker,
      says: ['write new Navigo(import.meta.env.BASE_URL)', '"text":"import.meta.env.BASE_URL"'],
    },
    'a router by hand, with the base': {
      files: routed("import Navigo from 'navigo'\nconst router = new Navigo('/b')"),
      finds: [],
    },
    'a router by hand, behind a hash': {
      files: routed("import Navigo from 'navigo'\nconst router = new Navigo('/', { hash: true })"),
      finds: [],
    },
    'a router that is given an element first': {
      files: routed("import { Router } from '@vaadin/router'\nnew Router(outlet).setRoutes([])"),
      finds: blocker,
      says: ['give new Router { baseUrl: import.meta.env.BASE_URL } as its second argument', '"text":", {'],
    },
    'a router that nobody makes': {
      files: routed(
        "import { Route } from 'wouter'\nexport const App = () => <Route path='/sailings'>1</Route>",
      ),
      finds: blocker,
      says: ['put <Router base=\\"/b\\"> from the same package around the routes'],
    },
    'a router that nobody makes, which another source gives the base': {
      files: routed(
        "import { Route } from 'wouter'\nexport const App = () => <Route path='/sailings'>1</Route>",
        {
          'src/main.jsx': "import { Router } from 'wouter'\nstart(<Router base='/b'><App /></Router>)",
        },
      ),
      finds: [],
    },
    'a router of calls': {
      files: routed("import page from 'page'\npage('/', home)\npage()"),
      finds: blocker,
      says: ["call page.base('/b') before the routes are given"],
    },
    'a router of calls, with the base': {
      files: routed("import page from 'page'\npage.base('/b')\npage('/', home)\npage()"),
      finds: [],
    },
    'a router that takes no base': {
      files: routed(
        "import { Router, Route } from 'preact-iso'\nexport const App = () => <Router><Route path='/sailings' component={1} /></Router>",
      ),
      finds: blocker,
      says: ['this router takes no base'],
    },
    'an element of that name of no router': {
      files: routed("import { Router } from './parts'\nexport const App = () => <Router><Home /></Router>"),
      finds: [],
    },
    'a base that Angular is given in code': {
      files: routed(
        "const providers = [provideRouter(routes), { provide: APP_BASE_HREF, useValue: '/old/' }]",
      ),
      finds: blocker,
      says: ['APP_BASE_HREF takes its routes from /old/'],
    },
    'the right base that Angular is given in code': {
      files: routed("const providers = [provideRouter(routes), { provide: APP_BASE_HREF, useValue: '/b/' }]"),
      finds: [],
    },
    'a configuration without the base': {
      files: {
        'package.json': JSON.stringify({
          scripts: { build: 'react-router build' },
          devDependencies: { '@react-router/dev': '7', vite: '7' },
        }),
        'vite.config.js': "export default { base: '/b/' }",
        'react-router.config.js': 'export default { ssr: false }',
        'build/client/index.html': page('<script type="module" src="/b/a.js"></script>'),
        'build/client/a.js': '',
      },
      finds: blocker,
      says: ["In react-router.config.js, in the object of line 1, add  basename: '/b/',"],
    },
    'a configuration with another base': {
      files: {
        'package.json': JSON.stringify({
          scripts: { build: 'react-router build' },
          devDependencies: { '@react-router/dev': '7', vite: '7' },
        }),
        'vite.config.js': "export default { base: '/b/' }",
        'react-router.config.js': "export default { ssr: false,\n basename: '/old/' }",
        'build/client/index.html': page('<script type="module" src="/b/a.js"></script>'),
        'build/client/a.js': '',
      },
      finds: blocker,
      says: [
        "In react-router.config.js, line 2, write  basename: '/b/',",
        'The router takes its routes from /old/',
      ],
    },
    'routes that hold the base path': {
      files: {
        ...routed(''),
        'src/router.jsx': "createBrowserRouter([{ path: '/b/sailings', element: 1 }])",
      },
      finds: [],
    },
    'no table of routes is seen': {
      files: { ...routed(''), 'src/router.jsx': 'createBrowserRouter(make())' },
      finds: ['base/router-path caution ×1'],
    },
    'a base in a build without sources': {
      files: {
        'index.html': page('<script type="module" src="/b/a.js"></script>'),
        'a.js': 'const r=x([{path:"/",element:1}],{basename:"/old"});',
      },
      finds: blocker,
      says: ['The router in the build takes its routes from /old/; this site is served under /b/.'],
    },
    'a history whose maker has no name': {
      files: {
        'index.html': page('<script type="module" src="/b/a.js"></script>'),
        'a.js': 'const r=x({history:Ze("/old/"),routes:[{path:"/",component:1}]});',
      },
      finds: blocker,
    },
    'the right base in a build without sources': {
      files: {
        'index.html': page('<script type="module" src="/b/a.js"></script>'),
        'a.js': 'const r=x([],{basename:"/b"}),s=x({history:Ze("/b/"),routes:[]}),t={basename:"a.js"};',
      },
      finds: [],
    },
    'an application in a directory of its own': {
      files: {
        'index.html': page('<a href="admin/">a</a>'),
        'admin/index.html': page('<script type="module" src="/b/admin/a.js"></script>'),
        'admin/a.js': 'const r=x([],{basename:"/b/admin"});',
      },
      finds: [],
    },
    'a build for another path, which is the cause of all': {
      files: {
        'index.html': page('<script type="module" src="/old/a.js"></script>'),
        'a.js': 'const r=x([],{basename:"/old"});',
      },
      finds: [],
    },
    'a router behind a hash': { files: routed('createHashRouter(routes)'), finds: [] },
    'two routers that are made alike, of which each needs its base': {
      files: routed('createBrowserRouter(routes)\ncreateBrowserRouter(others)'),
      finds: blocker,
      says: ['In src/router.jsx, line 3', 'In src/router.jsx, line 4'],
    },
    'two routers, one of them with its base': {
      files: routed('createBrowserRouter(routes)\ncreateBrowserRouter(others, { basename: "/b/" })'),
      finds: [],
    },
    'a site at the top': {
      files: {
        ...routed('createBrowserRouter(routes)', {}, '/'),
        'dist/index.html': page('<script type="module" src="/a.js"></script>'),
      },
      site: 'https://skerryline.example/',
      finds: [],
    },
    'a relative base of the build': {
      files: routed('createBrowserRouter(routes)', {}, './'),
      finds: blocker,
      says: ["{ basename: '/b/' }"],
    },
  })
})

describe('base/another-address', () => {
  const canonical = (url: string): string =>
    page(`<link rel="canonical" href="${url}"><meta property="og:url" content="${url}">`)
  const hugo = (at: string): Record<string, string> => ({
    'hugo.toml': `title = "Skerry Line"\nbaseURL = "${at}"`,
    'public/index.html': page(
      `<link rel="canonical" href="${at}"><link rel="stylesheet" href="${at}main.css">`,
    ),
    'public/main.css': '',
    'public/sitemap.xml': `<urlset><url><loc>${at}</loc></url><url><loc>${at}harbours/</loc></url></urlset>`,
  })
  checkCases('base/another-address', {
    'this site': { files: { 'index.html': canonical('https://skerryline.example/b/') }, finds: [] },
    'another host': {
      files: { 'index.html': canonical('https://old.skerryline.example/b/') },
      finds: ['base/another-address note ×2'],
      says: [
        'https://old.skerryline.example/b/ and the like',
        "Give the build this site's address, https://skerryline.example/b/",
      ],
    },
    'another host, which the configuration names': {
      files: {
        'package.json': '{"name":"s","scripts":{"build":"astro build"},"devDependencies":{"astro":"5"}}',
        'astro.config.mjs': "export default {\n  site: 'https://old.skerryline.example',\n}",
        'dist/index.html': canonical('https://old.skerryline.example/b/'),
      },
      finds: ['base/another-address caution ×2'],
      says: ["In astro.config.mjs, line 2, write  site: 'https://skerryline.example',"],
    },
    'this host, without the base path': {
      files: { 'index.html': canonical('https://skerryline.example/') },
      finds: ['base/another-address caution ×2'],
      says: ['outside /b/'],
    },
    'a bare folder for another base path, that names another host too': {
      files: {
        'index.html': page(
          '<link rel="canonical" href="https://old.skerryline.example/"><link rel="stylesheet" href="/main.css">',
        ),
        'main.css': '',
      },
      finds: ['base/wrong-path blocker ×1', 'base/another-address note ×1'],
    },
    'the base path without its slash': {
      files: { 'index.html': canonical('https://skerryline.example/b') },
      finds: [],
    },
    'a sample address, which the files come from too': {
      files: hugo('https://example.org/'),
      finds: ['base/another-address blocker ×4'],
      says: [
        'hugo.toml:2 sets https://example.org/',
        'In hugo.toml, line 2, write  baseURL = ',
        'https://skerryline.example/b/',
      ],
    },
    'a sample address that no page names, and the files come from there': {
      files: {
        ...hugo('https://example.org/'),
        'public/index.html': page('<link rel="stylesheet" href="https://example.org/main.css">'),
        'public/sitemap.xml': undefined as unknown as string,
      },
      finds: ['base/another-address blocker ×1'],
      says: ['The build is made for https://example.org'],
    },
    'a base of the page on another origin': {
      files: {
        'index.html': page('<base href="https://old.skerryline.example/b/"><script src="a.js"></script>'),
        'a.js': '',
      },
      finds: ['base/another-address blocker ×1'],
      says: ['https://old.skerryline.example/b/a.js'],
    },
    'told with the wrong base path, which is the same setting': {
      files: {
        ...hugo('https://example.org/'),
        'public/index.html': page(
          '<link rel="canonical" href="https://example.org/"><link rel="stylesheet" href="/main.css">',
        ),
      },
      finds: ['base/wrong-path blocker ×1'],
      says: ['hugo.toml:2 sets https://example.org/', 'In hugo.toml, line 2, write  baseURL = '],
    },
    'in a configuration of another syntax': {
      files: {
        ...hugo('https://example.org/'),
        'hugo.toml': undefined as unknown as string,
        'hugo.yaml': 'title: Skerry Line\nbaseURL: https://example.org/',
      },
      finds: ['base/another-address blocker ×4'],
      says: ['In hugo.yaml, line 2, write  baseURL: '],
    },
    'the right address': { files: hugo('https://skerryline.example/b/'), finds: [] },
    "a developer's machine, with no site given": {
      files: { 'index.html': canonical('http://localhost:4321/') },
      site: null,
      finds: ['base/another-address caution ×2'],
    },
    'another host, with no site given': {
      files: { 'index.html': canonical('https://skerryline.example/') },
      site: null,
      finds: [],
    },
    'files from a host of their own, and pages of this site': {
      files: {
        'index.html': page(
          '<link rel="canonical" href="https://skerryline.example/b/"><script src="https://files.skerryline.example/a.js"></script>',
        ),
        'a.js': '',
      },
      finds: [],
    },
    'one page of many that is kept elsewhere': {
      files: {
        'index.html': canonical('https://skerryline.example/b/'),
        'a.html': canonical('https://skerryline.example/b/a'),
        'c.html': canonical('https://news.skerryline.example/c'),
      },
      finds: [],
    },
    'no address at all': { files: { 'index.html': canonical('/b/') }, finds: [] },
  })
})

describe('a text that equals a file of the folder, from the top of the host', () => {
  const built = (code: string): Record<string, string> => ({
    'index.html': page('<script type="module" src="/b/assets/a.js"></script>'),
    'assets/a.js': code,
    'icons.svg': '',
  })
  checkCases('base/wrong-path', {
    'handed to what is not known': {
      files: built('const i="/icons.svg";draw(i)'),
      finds: ['base/wrong-path caution ×1'],
    },
    'in an element': {
      files: built('h("use",{href:"/icons.svg#a"})'),
      finds: ['base/wrong-path blocker ×1'],
    },
    'behind a base path': { files: built('draw(base+"/icons.svg")'), finds: [] },
    'compared with': { files: built('if(e.url==="/icons.svg")f()'), finds: [] },
    'of another folder': { files: built('draw("/other/icons.png")'), finds: [] },
    'in markup with holes': {
      files: built('app.innerHTML=`<p>${a}</p><svg><use href="/icons.svg#a"></use></svg>`'),
      finds: ['base/wrong-path blocker ×1'],
    },
  })
})

describe('URLs by hand', () => {
  const built = (code: string, source = code): Record<string, string> => ({
    'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': "export default { base: '/b/' }",
    'src/app.js': source,
    'src/app.css': 'p{background:url(/logo.svg)}',
    'dist/index.html': page('<script type="module" src="/b/app-AbCdEf12.js"></script>'),
    'dist/app-AbCdEf12.js': code,
    'dist/logo.svg': '<svg/>',
    'dist/icons/a.svg': '<svg/>',
  })
  checkCases('base/wrong-path', {
    'in a script are no matter of style sheets': {
      files: built('i.src="/logo.svg"'),
      finds: ['base/wrong-path blocker ×1'],
      says: ['"file":"src/app.js","line":1', '"edits":[{"file":"src/app.js"'],
    },
    'in the text of a style': {
      files: built('x({ background: "url(/logo.svg)" })'),
      finds: ['base/wrong-path blocker ×1'],
      says: ['"text":"`url(${import.meta.env.BASE_URL}logo.svg)`"'],
    },
    'of several sizes': {
      files: built('x("img",{srcSet:"/logo.svg 1x, /icons/a.svg 2x"})'),
      finds: ['base/wrong-path blocker ×2'],
      says: [
        '"request":"https://skerryline.example/logo.svg"',
        '"request":"https://skerryline.example/icons/a.svg"',
      ],
    },
    'of a size below the base path, and in a text': {
      files: built('x("img",{srcSet:"/b/logo.svg 1x",alt:"/logo.svg 1x"})'),
      finds: [],
    },
    'in a script that the build copies as it is, where nothing replaces an expression': {
      files: {
        ...built('navigator.serviceWorker.register("/b/sw.js")'),
        'public/sw.js': 'self.oninstall = async () => (await caches.open("a")).addAll(["/logo.svg"])',
        'dist/sw.js': 'self.oninstall = async () => (await caches.open("a")).addAll(["/logo.svg"])',
      },
      finds: ['base/wrong-path caution ×1'],
      says: ['"text":"/b/logo.svg"', '"file":"public/sw.js"'],
    },
    'with a hole, by a file that they mean': {
      files: built('i.src=`/icons/${n}.svg`'),
      finds: ['base/wrong-path blocker ×1'],
      says: ['"request":"https://skerryline.example/icons/a.svg"'],
    },
    'with a hole, in a template': {
      files: built('x(`/icons/${n}.svg`)'),
      finds: ['base/wrong-path caution ×1'],
      says: ['"text":"${import.meta.env.BASE_URL}icons/"'],
    },
    'with markers of a library': {
      files: built('x({ loadPath: "/icons/{{name}}.svg" })'),
      finds: ['base/wrong-path caution ×1'],
      says: ['"text":"`${import.meta.env.BASE_URL}icons/{{name}}.svg`"'],
    },
    'a directory, for a loader to put names behind': {
      files: built('x.setPath("/icons/").load("a.svg")'),
      finds: ['base/wrong-path caution ×1'],
      says: ['"text":"`${import.meta.env.BASE_URL}icons/`"'],
    },
    'with a hole, given to a component, which may put the base before it': {
      files: built('jsx(Icon,{src:`/icons/${n}.svg`})'),
      finds: ['base/wrong-path caution ×1'],
    },
    'kept in a constant, and asked for': {
      files: built('const u="/icons/a.svg";const i=new Image;i.src=u'),
      finds: ['base/wrong-path blocker ×1'],
    },
    'in a list that is shown item by item': {
      files: built('const l=[{n:1,p:"/icons/a.svg"}];l.map(e=>jsx("img",{src:e.p}))'),
      finds: ['base/wrong-path blocker ×1'],
    },
    'in a list that is walked': {
      files: built('for(const e of ["/icons/a.svg"]){const i=new Image;i.src=e}'),
      finds: ['base/wrong-path blocker ×1'],
    },
    'put behind the base by a helper': {
      files: built('const a=p=>"/b/"+p.replace(/^\\//,"");i.src=a("/icons/a.svg")'),
      finds: [],
    },
    'put behind what the page says': {
      files: built('const a=p=>"".concat(window.base,p);i.src=a("/icons/a.svg")'),
      finds: [],
    },
    'put behind another address': {
      files: built('fetch(new URL("/icons/a.svg",other.docs))'),
      finds: [],
    },
    'a directory with a name put behind': {
      files: built('i.src="/icons/"+n+".svg"'),
      finds: ['base/wrong-path blocker ×1'],
    },
    'a directory that only the bundler or a library names': {
      files: built('x.setPath("/icons/").load("a.svg")', 'x()'),
      finds: [],
    },
    'a directory that is a route, or compared with': {
      files: {
        ...built('go("/help/");p.startsWith("/icons/");q==="/icons/"'),
        'dist/help/index.html': page(''),
        'dist/help/a.svg': '<svg/>',
      },
      finds: [],
    },
    'with a hole, which no file fits from the top': { files: built('i.src=`/a/${n}.svg`'), finds: [] },
    'with a hole, behind the base path': {
      files: built('i.src=`/b/icons/${n}.svg`;j.src=e+`/icons/${n}.svg`;k.src=`${e}/icons/${n}.svg`'),
      finds: [],
    },
  })
})

describe('a page around what a bundler writes', () => {
  const site = (more: Record<string, string>): Record<string, string> => ({
    'package.json': '{"scripts":{"build":"rollup -c"},"devDependencies":{"rollup":"4"}}',
    'rollup.config.js': "export default { output: { dir: 'www/js' } }",
    'www/index.html': page('<script type="module" src="/js/main.js"></script>'),
    'www/js/main.js': '',
    ...more,
  })
  checkCases('base/wrong-path', {
    'is a source': {
      files: site({}),
      finds: ['base/wrong-path blocker ×1'],
      says: ['"edits":[{"file":"www/index.html"'],
    },
    'is made of another one by a script': {
      files: site({ 'src/index.html': page('<script type="module" src="/js/main.js"></script>%VERSION%') }),
      finds: ['base/wrong-path blocker ×1'],
      says: ['"edits":[{"file":"src/index.html"'],
    },
  })
})

describe('in a build for another base path, what a build for the right one leaves as it is', () => {
  const built = (
    manifest: string,
    sources: Record<string, string>,
    body = '<a href="/harbours/">h</a>',
  ): Record<string, string> => ({
    'package.json': manifest,
    ...sources,
    'dist/index.html': page(`<script type="module" src="/app-AbCdEf12.js"></script>${body}`),
    'dist/app-AbCdEf12.js': '',
    'dist/harbours/index.html': page(''),
    'dist/map.png': 'x',
  })
  const vite = '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}'
  const astro = '{"scripts":{"build":"astro build"},"devDependencies":{"astro":"5"}}'
  const docs = '{"scripts":{"build":"docusaurus build"},"devDependencies":{"@docusaurus/core":"3"}}'
  const base = 'base/wrong-path blocker ×1'
  checkCases(['base/link-outside', 'base/wrong-path'], {
    'a link of a page': {
      files: built(vite, {
        'index.html': '<script type="module" src="/app.js"></script><a href="/harbours/">h</a>',
      }),
      finds: [base, 'base/link-outside blocker ×1'],
      says: ['"text":"/b/harbours/"'],
    },
    'a link of a component, which a router may write': {
      files: built(vite, { 'src/app.jsx': '<Link href="/harbours/">h</Link>' }),
      finds: [base],
    },
    'a link that is not in the sources': { files: built(vite, { 'src/app.js': '' }), finds: [base] },
    'a link in Markdown that the builder leaves': {
      files: built(astro, { 'src/pages/index.md': 'To [h](/harbours/)' }),
      finds: [base, 'base/link-outside blocker ×1'],
      says: ['"file":"src/pages/index.md"', '"text":"/b/harbours/"'],
    },
    'a link in Markdown that the builder gives the base path': {
      files: {
        ...Object.fromEntries(
          Object.entries(built(docs, { 'docs/index.md': 'To [h](/harbours/)' })).map(([file, text]) => [
            file.replace('dist/', 'build/'),
            text,
          ]),
        ),
        'docusaurus.config.js': "export default { title: 's', baseUrl: '/' }",
      },
      finds: [base],
    },
    'a picture in Markdown': {
      files: built(astro, { 'src/pages/index.md': '![m](/map.png)' }, '<img src="/map.png">'),
      finds: [base, base],
      says: ['"text":"/b/map.png"', 'It is written by hand'],
    },
    'a picture that only the text about the project shows': {
      files: built(astro, { 'README.md': '![m](/map.png)' }, '<img src="/map.png">'),
      finds: ['base/wrong-path blocker ×2'],
    },
  })
})

describe('base/link-outside', () => {
  const linked = (markup: string, more: Record<string, string> = {}): Record<string, string> => ({
    'index.html': page(`<link rel="stylesheet" href="/b/main.css">${markup}`),
    'main.css': '',
    'harbours/index.html': page(''),
    'about.html': page(''),
    ...more,
  })
  checkCases('base/link-outside', {
    'a link without the base path': {
      files: linked('<a href="/harbours/">h</a>'),
      finds: ['base/link-outside blocker ×1'],
      says: ['/harbours/ is /b/harbours/ here', '"request":"https://skerryline.example/harbours/"'],
    },
    'with the base path, and relative': {
      files: linked('<a href="/b/harbours/">h</a><a href="harbours/">h</a>'),
      finds: [],
    },
    'a form, and a page that refreshes': {
      files: linked(
        '<form action="/harbours/"></form><meta http-equiv="refresh" content="5;url=/about.html">',
      ),
      finds: ['base/link-outside blocker ×2'],
    },
    'where a script of a page sends its visitor': {
      files: linked(
        '<script>function f(){location.href="/harbours/"}function g(){window.location.assign("/about.html")}</script>',
      ),
      finds: ['base/link-outside blocker ×2'],
    },
    'where a script sends its visitor that may be a library': {
      files: linked('<script src="/b/app.js"></script>', {
        'app.js': 'function f(){location.href="/harbours/"}function g(){window.location.assign("/")}',
      }),
      finds: [],
    },
    'where code in an attribute sends its visitor': {
      files: linked(`<button onclick="location.href='/harbours/'">h</button>`),
      finds: ['base/link-outside blocker ×1'],
    },
    'where a script sends its visitor, below the base path, or to another program': {
      files: linked('<script src="/b/app.js"></script>', {
        'app.js':
          'location.href="/b/harbours/";location.assign("/logout");x=location.pathname=="/harbours/";history.open("/harbours/")',
      }),
      finds: [],
    },
    'the start page of a manifest': {
      files: linked('<link rel="manifest" href="/b/app.webmanifest">', {
        'app.webmanifest': '{"start_url":"/harbours/"}',
      }),
      finds: ['base/link-outside blocker ×1'],
    },
    'the top of the host alone': {
      files: linked('<a href="/">home</a>'),
      finds: ['base/link-outside caution ×1'],
    },
    'a file to take home': {
      files: linked('<a href="/papers/chart.pdf" download>c</a>', { 'papers/chart.pdf': '%PDF' }),
      finds: ['base/link-outside blocker ×1'],
      says: ['It is a file of this folder: /papers/chart.pdf is /b/papers/chart.pdf here.'],
    },
    'a feed that a page names': {
      files: linked('<link rel="alternate" type="application/rss+xml" href="/feed.xml">', {
        'feed.xml': '<rss><channel></channel></rss>',
      }),
      finds: ['base/link-outside blocker ×1'],
    },
    'where a source sends its visitor': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'src/app.js': "if (!user) location.href = '/about.html'\nconst about = '/about.html'",
        'dist/index.html': page('<script src="/b/app.js"></script>'),
        'dist/about.html': page(''),
        'dist/app.js': 'user||(location.href="/about.html")',
      },
      finds: ['base/link-outside blocker ×1'],
      says: [
        '"steps":["In src/app.js, line 1, write  if (!user) location.href = `${import.meta.env.BASE_URL}about.html`","Then rebuild: npm run build"]',
      ],
    },
    'in sources, each place with the whole corrected line': {
      files: {
        'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'index.html': '<a href="/">top</a> <a class="x" href="/about.html">a</a>\n<Link href="/about.html">',
        ...Object.fromEntries(
          Object.entries(linked('<a href="/">top</a><a href="/about.html">a</a>')).map(([file, text]) => [
            `dist/${file}`,
            text,
          ]),
        ),
      },
      finds: ['base/link-outside blocker ×2'],
      says: [
        '/about.html is /b/about.html here',
        '"steps":["In index.html, line 1, write  <a href=\\"/b/\\">top</a> <a class=\\"x\\" href=\\"/b/about.html\\">a</a>","Then rebuild: npm run build"]',
      ],
    },
    'a link without quotes, beside one with them': {
      files: {
        'package.json': '{"scripts":{"build":"rollup -c"},"devDependencies":{"rollup":"4"}}',
        'rollup.config.js': "export default { output: { dir: 'dist' } }",
        'src/index.html': page('<a href=/about.html>a</a><img src="/b/a.svg">'),
        'src/menu.js': "export const menu = `<a href='/about.html'>a</a>`",
        'dist/index.html': page('<a href=/about.html>a</a><img src="/b/a.svg">'),
        'dist/about.html': page(''),
        'dist/a.svg': '<svg/>',
      },
      finds: ['base/link-outside blocker ×1'],
      says: ['In src/index.html, line 1,', 'In src/menu.js, line 1,', 'href=/b/about.html'],
    },
    'what a host has once for all its sites': {
      files: linked('<a href="/robots.txt">r</a><a href="/sitemap-0.xml">s</a>', {
        'robots.txt': '',
        'sitemap-0.xml': '<urlset></urlset>',
      }),
      finds: [],
    },
    'another site of the host': { files: linked('<a href="/news/">n</a>'), finds: [] },
    'a site at the top': {
      files: { 'index.html': page('<a href="/harbours/">h</a>'), 'harbours/index.html': page('') },
      site: 'https://skerryline.example/',
      finds: [],
    },
    'a build for another path': {
      files: {
        'index.html': page('<link rel="stylesheet" href="/main.css"><a href="/harbours/">h</a>'),
        'main.css': '',
        'harbours/index.html': page(''),
      },
      finds: ['base/wrong-path blocker ×1'],
    },
  })
})

describe('a build below the top', () => {
  const files = {
    'index.html': page('<a href="/b/admin/">Admin</a>'),
    'admin/index.html': page('<script src="/b/assets/app.js"></script>'),
    'admin/assets/app.js': '',
  }
  checkCases(['base/wrong-path', 'asset/missing'], {
    'that requests its files at the top': {
      files,
      finds: ['base/wrong-path blocker ×1'],
      says: ['with the base path /b/admin/'],
    },
    'that was made for its directory': {
      files: { ...files, 'admin/index.html': page('<script src="/b/admin/assets/app.js"></script>') },
      finds: [],
    },
    'that shares a file with the top': {
      files: { ...files, 'assets/app.js': '' },
      finds: [],
    },
    'a file that is nowhere': {
      files: { ...files, 'admin/assets/app.js': undefined },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
  })
})

describe('a base of no site', () => {
  const files = (href: string): Record<string, string> => ({
    'index.html': page(`<base href="${href}"><script src="a.js"></script>`),
    'a.js': '',
  })
  checkCases(['base/unusable', 'base/another-address'], {
    'of the disk': {
      files: files('file:///srv/site/'),
      finds: ['base/unusable blocker ×1'],
      says: ['Write <base href=\\"/b/\\"> there', 'an address of file:'],
    },
    'about:blank': { files: files('about:blank'), finds: ['base/unusable blocker ×1'] },
    mail: { files: files('mailto:x'), finds: ['base/unusable blocker ×1'] },
    'what browsers pass over': { files: files('JavaScript:void 0'), finds: [] },
    'nothing that is a URL': { files: files('http://['), finds: [] },
    'another host by the scheme of the page': {
      files: files('//other.example/'),
      finds: ['base/another-address blocker ×1'],
    },
    'of the disk, for a page with a text that only looks like a name': {
      files: {
        'index.html': page('<base href="file:///x/"><script>const a = "./b.js"</script>'),
        'b.js': '',
      },
      finds: [],
    },
    'of the disk, for a page that asks nothing by a relative URL': {
      files: { 'index.html': page('<base href="file:///x/"><a href="#top">Top</a>') },
      finds: [],
    },
  })
})
