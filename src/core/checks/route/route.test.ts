import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
const app = { 'index.html': page(script), 'assets/app-AbCdEf12.js': '' }
const project = {
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/' }",
  'src/main.js':
    "import { createRouter, createWebHistory } from 'vue-router'\ncreateRouter({ history: createWebHistory(), routes: [\n  { path: '/', component: A },\n  { path: '/sailings/:id', component: B },\n] })\n",
  'dist/index.html': page(script),
  'dist/assets/app-AbCdEf12.js': '',
}
const source = (text: string): Record<string, string> => ({ ...project, 'src/main.js': text })

describe('route/no-answer', () => {
  checkCases('route/no-answer', {
    'a folder with scripts and no page: the build of a library': {
      files: { 'tide.js': 'export const tide = 1', 'tide.css': 'b{}' },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['holds scripts and no HTML file', 'Check the folder that holds the pages'],
    },
    'a folder with other pages is no library': {
      files: { 'tide.js': 'export const tide = 1', 'about.html': page('') },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['holds no index.html'],
    },
    'a rule of one line is an edit where the project has such rules': {
      files: { ...project, 'public/rules.txt': '/b/old  /b/new  301\n' },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: [
        'In public/rules.txt, behind line 1, write  /b/*  /b/index.html  200',
        '"text":"/b/old  /b/new  301\\n/b/*  /b/index.html  200"',
      ],
    },
    'routes of one address each: a page for each is written behind the build': {
      files: source(project['src/main.js'].replace('/sailings/:id', '/harbours')),
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: [
        "Where it can't: write scripts/route-pages.mjs, which copies index.html to the directory of each route.",
        "copyFileSync('dist/index.html', `dist/${route}/index.html`)",
        "  'harbours',",
        '"text":" && node scripts/route-pages.mjs"',
        '\\"build\\":\\"vite build && node scripts/route-pages.mjs\\"',
      ],
    },
    'the same, where nobody said which host it is: nothing is changed for a guess': {
      files: source(project['src/main.js'].replace('/sailings/:id', '/harbours')),
      host: null,
      finds: ['route/no-answer caution ×1'],
      says: ['"edits":[]'],
    },
    'paths that are constants of another module': {
      files: {
        ...source(
          "import { PATHS } from './paths'\nimport { createRouter, createWebHistory } from 'vue-router'\ncreateRouter({ history: createWebHistory(), routes: [{ path: PATHS.home, component: A }, { path: PATHS.tides, component: B }, { path: `${PATHS.ships}/:id`, component: C }] })\n",
        ),
        'src/paths.ts':
          "const ships = '/ships'\nexport const PATHS = { home: '/', tides: '/tides', ships } as const\n",
      },
      host: 'files',
      finds: ['route/no-answer blocker ×2'],
      says: ['/b/tides', '/b/ships/1'],
    },
    'paths of a module behind a short name': {
      files: {
        ...source(
          "import { TIDES } from '@/paths'\nimport { createRouter, createWebHistory } from 'vue-router'\ncreateRouter({ history: createWebHistory(), routes: [{ path: TIDES, component: A }] })\n",
        ),
        'src/paths/index.js': "export const TIDES = '/tides'\n",
      },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
    },
    'paths that only the running page knows': {
      files: source(
        "import { createRouter, createWebHistory } from 'vue-router'\ncreateRouter({ history: createWebHistory(), routes: [{ path: window.paths.tides, component: A }] })\n",
      ),
      host: 'files',
      finds: [],
    },
    'a route for each item of a list': {
      files: {
        ...source(''),
        'src/App.jsx':
          "const pages = [{ to: '/', t: 1 }, { to: '/tides', t: 2 }]\nexport default () => <Routes>{pages.map(({ to, t }) => <Route key={to} path={to} element={<P t={t} />} />)}{pages.map((p) => <Route path={p.to} element={<P />} />)}</Routes>",
      },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['/b/tides'],
    },
    'a route that is added': {
      files: source(
        "import { createRouter, createWebHistory } from 'vue-router'\nconst router = createRouter({ history: createWebHistory(), routes: [] })\nrouter.addRoute({ path: '/tides', component: A })\n",
      ),
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
    },
    'a table on plain files': {
      files: project,
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['/b/sailings/1', 'rewrite ^ /b/index.html last;', 'RewriteRule', '404.html', '"edits":[]'],
    },
    'the same behind a fallback': { files: project, finds: [] },
    'behind a hash nothing is requested from the host': {
      files: source(
        project['src/main.js']
          .replace('createWebHistory()', 'createWebHashHistory()')
          .replace('createWebHistory', 'createWebHashHistory'),
      ),
      host: 'files',
      finds: [],
    },
    'objects with children, an index and a path for all others': {
      files: source(
        "createBrowserRouter([{ path: '/', element: 1, children: [{ index: true, element: 1 }, { path: 'a', element: 1 }, { path: 'c/:slug', lazy: x }, { path: '*', element: 1 }] }])",
      ),
      host: 'files',
      finds: ['route/no-answer blocker ×2'],
      says: ['/b/a', '/b/c/sample'],
    },
    elements: {
      files: {
        ...source(''),
        'src/App.jsx':
          'export default () => <Routes><Route path="/" element={<A/>}><Route index element={<A/>}/><Route path="x"><Route path=":id" element={<A/>}/></Route></Route></Routes>',
      },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['/b/x/1'],
    },
    'a table that another one loads': {
      files: {
        ...source(
          "const routes: Routes = [{ path: 'fleet', loadChildren: () => import('./fleet') }, { path: 'old', redirectTo: 'fleet' }]".replace(
            ': Routes',
            '',
          ),
        ),
        'src/fleet.js': "export const routes = [{ path: '', component: A }, { path: ':name', component: B }]",
      },
      host: 'files',
      finds: ['route/no-answer blocker ×2'],
      says: ['/b/fleet', '/b/fleet/sample'],
    },
    'a generated tree': {
      files: {
        ...source(''),
        'src/routeTree.gen.ts': "export interface X {\n  fullPaths: '/' | '/a' | '/p/$id'\n}",
      },
      host: 'files',
      finds: ['route/no-answer blocker ×2'],
    },
    'a value from a link': {
      files: { ...project, 'dist/index.html': `${page(script)}<a href="/b/sailings/hl-7">x</a>` },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['/b/sailings/hl-7'],
    },
    'a list the framework left': {
      files: {
        'package.json':
          '{"name":"s","scripts":{"build":"ng build"},"devDependencies":{"@angular/core":"21","@angular/cli":"21"}}',
        'angular.json':
          '{"projects":{"s":{"architect":{"build":{"builder":"@angular/build:application","options":{"baseHref":"/b/"}}}}}}',
        'dist/s/browser/index.html': page('<base href="/b/"><script src="main-AbCdEf12.js"></script>'),
        'dist/s/browser/main-AbCdEf12.js': '',
        'dist/s/prerendered-routes.json': '{"routes":{"/":{},"/fleet":{}}}',
      },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['/b/fleet', 'prerendered-routes.json'],
    },
    'a page that is there under its whole name': {
      files: {
        ...source("createBrowserRouter([{ path: '/about', element: 1 }])"),
        'dist/about.html': page(''),
      },
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['(the host clean-urls)'],
    },
    'the same where .html may be left out': {
      files: {
        ...source("createBrowserRouter([{ path: '/about', element: 1 }])"),
        'dist/about.html': page(''),
      },
      host: 'clean-urls',
      finds: [],
    },
  })
})

describe('route/error-status', () => {
  checkCases(['route/error-status', 'route/no-answer'], {
    'the entry document as error document': {
      files: project,
      host: 'error-page',
      finds: ['route/error-status caution ×1'],
      says: ['index.html as an error'],
    },
    'a copy of it': {
      files: { ...project, 'dist/404.html': page(script) },
      host: 'clean-urls',
      finds: ['route/error-status caution ×1'],
    },
    'an error page of its own': {
      files: { ...project, 'dist/404.html': page('<p>Not here</p>') },
      host: 'clean-urls',
      finds: ['route/no-answer blocker ×1'],
    },
  })
})

describe('route/broken-link', () => {
  const link = (href: string): Record<string, string> => ({
    ...app,
    'index.html': `${page(script)}<a href="${href}">x</a>`,
  })
  checkCases('route/broken-link', {
    'a link to nothing': {
      files: link('/b/timetable'),
      host: 'files',
      finds: ['route/broken-link blocker ×1'],
      says: ['/b/timetable'],
    },
    'a relative one': {
      files: link('timetable.pdf'),
      host: 'files',
      finds: ['route/broken-link blocker ×1'],
    },
    'relative ones in a piece of a page, which begin at whatever page it is put into': {
      files: {
        ...app,
        'index.html': page(script),
        'parts/menu.tpl.html': '<a href="{{vm.url}}">x</a><a href="../timetable">y</a>',
      },
      host: 'files',
      finds: [],
    },
    'one in a piece of a page that begins at the top of the host': {
      files: { ...app, 'index.html': page(script), 'parts/menu.tpl.html': '<a href="/b/timetable">y</a>' },
      host: 'files',
      finds: ['route/broken-link blocker ×1'],
    },
    'from many pages, one finding': {
      files: {
        ...link('/b/gone/'),
        'a/index.html': '<a href="../gone/">x</a>',
        'sitemap.xml': '<urlset><url><loc>https://skerryline.example/b/gone/</loc></url></urlset>',
      },
      host: 'files',
      finds: ['route/broken-link blocker ×3'],
    },
    'many links below one path, one finding': {
      files: {
        ...app,
        'index.html': `${page(script)}${Array.from({ length: 40 }, (_, i) => `<a href="/b/old/${i}">x</a>`).join('')}`,
      },
      host: 'files',
      finds: ['route/broken-link blocker ×40'],
      says: ['40 paths below /b/old/, from 40 links'],
    },
    'behind a fallback it may be a route': { files: link('/b/timetable'), finds: [] },
    'to a directory, a file, a fragment, another site': {
      files: {
        ...link('/b/a'),
        'a/index.html':
          '<a href="#x">x</a><a href="../notes.txt?y#z">x</a><a href="https://other.example/gone">x</a><a href="mailto:a@b.example">x</a>',
        'notes.txt': '',
      },
      host: 'files',
      finds: [],
    },
    'without the ending': {
      files: { ...link('/b/about'), 'about.html': '' },
      host: 'files',
      finds: ['route/broken-link blocker ×1'],
      says: ['holds about.html'],
    },
    'the same where it may be left out': {
      files: { ...link('/b/about'), 'about.html': '' },
      host: 'clean-urls',
      finds: [],
    },
  })
})

describe('rules in the folder', () => {
  const withRules = (rules: string): Record<string, string> => ({ ...project, 'dist/_rules': rules })
  checkCases(
    [
      'route/hash-handoff',
      'route/no-answer',
      'route/redirect-leaves-site',
      'route/redirect-loop',
      'route/rule-not-published',
      'route/rule-shadowed',
    ],
    {
      'a fallback by rule': { files: withRules('/* /index.html 200'), host: 'files', finds: [] },
      'beside the sources only': {
        files: { ...project, _rules: '/* /index.html 200' },
        host: 'files',
        finds: ['route/no-answer blocker ×1', 'route/rule-not-published caution ×1'],
        says: ['Move _rules'],
      },
      'beside the sources and in the folder': {
        files: { ...withRules('/* /index.html 200'), 'public/_rules': '/* /index.html 200' },
        host: 'files',
        finds: [],
      },
      'read from the repository': {
        files: { ...project, 'deploy.json': '{"rewrites":[{"source":"/(.*)","destination":"/index.html"}]}' },
        host: 'files',
        finds: [],
      },
      'an earlier rule takes all': {
        files: withRules('/* /index.html 200\n/old /new 301'),
        host: 'files',
        finds: ['route/rule-shadowed caution ×1'],
        says: ['/b/old'],
      },
      'a later rule for all': {
        files: withRules('/old / 301\n/:x/y /index.html 200\n/* /index.html 200'),
        host: 'files',
        finds: [],
      },
      'a file takes it': {
        files: { ...withRules('/notes.txt / 301\n/* /index.html 200'), 'dist/notes.txt': '' },
        host: 'files',
        finds: ['route/rule-shadowed caution ×1'],
      },
      'a file gives way': {
        files: { ...withRules('/notes.txt / 301!\n/* /index.html 200'), 'dist/notes.txt': '' },
        host: 'files',
        finds: [],
      },
      'away to the storage': {
        files: withRules('/* http://storage.example/b/index.html 302'),
        host: 'files',
        finds: ['route/redirect-leaves-site blocker ×1'],
        says: ['by plain http'],
      },
      'an old path to another site': {
        files: withRules('/docs/* https://docs.example/:splat 301\n/* /index.html 200'),
        host: 'files',
        finds: [],
      },
      'round in a circle': {
        files: withRules('/sailings/* /journeys/:splat 301\n/journeys/* /sailings/:splat 301'),
        host: 'files',
        finds: ['route/redirect-loop blocker ×1'],
      },
      'passed behind a hash, and nobody takes it': {
        files: withRules('/* /#!/:splat 302'),
        host: 'files',
        finds: ['route/hash-handoff caution ×1'],
      },
      'passed and taken': {
        files: {
          ...withRules('/* /#!/:splat 302'),
          'src/hash.js':
            "if (location.hash.startsWith('#!')) history.replaceState(null, '', location.hash.slice(2))",
        },
        host: 'files',
        finds: [],
      },
      'taken, and nobody passes': {
        files: {
          ...project,
          'src/hash.js':
            "if (location.hash.startsWith('#!')) history.replaceState(null, '', location.hash.slice(2))",
        },
        host: 'files',
        finds: ['route/no-answer blocker ×1', 'route/hash-handoff caution ×1'],
      },
    },
  )
})

describe('project/entry-replaced', () => {
  checkCases('project/entry-replaced', {
    'a welcome page over the entry document': {
      files: { ...app, 'index.html': '<!doctype html><h1>Hosting is set up</h1>' },
      finds: ['project/entry-replaced blocker ×1'],
    },
    "a welcome page with a script of the host's": {
      files: { ...app, 'index.html': page('<script src="https://host.example/init.js"></script>') },
      finds: ['project/entry-replaced blocker ×1'],
    },
    'a site without scripts': { files: { 'index.html': '<h1>x</h1>', 'a.css': '' }, finds: [] },
    'the application': { files: app, finds: [] },
  })
})

describe('route/another-page', () => {
  const site = (home: string): Record<string, string> => ({
    'index.html': page(`${home}<a href="/b/about">About</a>`),
    'about.html': page(''),
  })
  checkCases('route/another-page', {
    'a page whose ending the host does not leave out': {
      files: site(''),
      finds: ['route/another-page blocker ×1'],
      says: ['holds about.html for /b/about', 'clean-urls'],
    },
    'a host that leaves it out': { files: site(''), host: 'clean-urls', finds: [] },
    'the start of an application, which may draw it': {
      files: { ...site('<script src="/b/a.js"></script>'), 'a.js': '' },
      finds: ['route/another-page caution ×1'],
    },
    'an application with one page': { files: { 'index.html': page('<a href="/b/about">a</a>') }, finds: [] },
    'a directory of its own': {
      files: { 'index.html': page('<a href="/b/about/">a</a>'), 'about/index.html': page('') },
      finds: [],
    },
  })
})

describe('several applications in one folder', () => {
  const files = {
    'index.html': page('<script src="/b/a.js"></script><a href="/b/admin/users">Users</a>'),
    'a.js': '',
    'admin/index.html': page('<script src="/b/admin/app.js"></script>'),
    'admin/app.js': '',
  }
  const rule = { forced: false, conditions: [], place: null, status: 200 }
  checkCases('route/another-page', {
    'the fallback of the outer one answers for the inner one': {
      files,
      finds: ['route/another-page blocker ×1'],
      says: ['/b/admin/users directly gets index.html, not the application in /b/admin/'],
    },
    'with the rule that the fix names': {
      files,
      rules: { rules: [{ from: '/b/admin/*', to: '/b/admin/index.html', ...rule }] },
      finds: [],
    },
    'pages of one build, which share their scripts': {
      files: {
        ...files,
        'admin/index.html': page('<script src="/b/a.js"></script><script src="/b/admin/app.js"></script>'),
      },
      finds: [],
    },
    'a page without an application': { files: { ...files, 'admin/index.html': page('') }, finds: [] },
  })
})

describe('links to directories', () => {
  checkCases('route/broken-link', {
    'without its slash, and without a page': {
      files: { 'index.html': page('<a href="/b/data">d</a>'), 'data/x.json': '1' },
      host: 'files',
      finds: ['route/broken-link blocker ×1'],
    },
    'without its slash, and with a page': {
      files: { 'index.html': page('<a href="/b/data">d</a>'), 'data/index.html': page('') },
      host: 'files',
      finds: [],
    },
  })
})

describe('the routes of a bare folder', () => {
  const files = (code: string): Record<string, string> => ({
    'index.html': page('<script type="module" src="/b/a.js"></script>'),
    'a.js': code,
  })
  checkCases('route/no-answer', {
    "are read from its router's table": {
      files: files('r=f([{path:"/",element:h},{path:"/sailings/:id",element:s}])'),
      host: 'files',
      finds: ['route/no-answer blocker ×1'],
      says: ['/b/sailings/1'],
    },
    'on a host with a fallback': {
      files: files('r=f([{path:"/",element:h},{path:"/sailings/:id",element:s}])'),
      finds: [],
    },
    'are left out where the router keeps them behind a hash': {
      files: files('p(this.x.hash??"#");r=f([{path:"/sailings",component:s}])'),
      host: 'files',
      finds: [],
    },
    'are not asked of a folder of many pages': {
      files: { ...files('r=f([{path:"/sailings",component:s}])'), 'about.html': page('') },
      host: 'files',
      finds: [],
    },
  })
})
