import { describe } from 'vitest'
import { checkCases } from '../../../test/support/cases.ts'

const page = (inner: string): string => `<!doctype html><title>Skerry Line</title>${inner}`
const container = `FROM node:22 AS build
WORKDIR /app
RUN npm run build
FROM nginx:stable
COPY --from=build /app/dist /usr/share/nginx/html
COPY nginx.conf /etc/nginx/conf.d/default.conf
`

/** A project with two routes that its build has no files for, behind an nginx of its own. */
const project = (configuration: string, more: Readonly<Record<string, string | undefined>> = {}) => ({
  'package.json':
    '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8","vue":"3","vue-router":"4"}}',
  'vite.config.js': 'export default { base: "/" }',
  'src/main.js':
    'import { createRouter, createWebHistory } from "vue-router"\ncreateRouter({ history: createWebHistory(import.meta.env.BASE_URL), routes: [{ path: "/", component: A }, { path: "/harbours", component: A }] })',
  'index.html': page('<script type="module" src="/src/main.js"></script>'),
  'dist/index.html': page(
    '<div id="app"></div><script type="module" src="/assets/app-AbCdEf12.js"></script>',
  ),
  'dist/assets/app-AbCdEf12.js': 'import("./part-AbCdEf34.mjs")',
  'dist/assets/part-AbCdEf34.mjs': 'export default 1',
  Dockerfile: container,
  'nginx.conf': configuration,
  ...more,
})

const server = (inside: string): string => `server {
    listen 80;
    root /usr/share/nginx/html;
    ${inside}
}
`
const types = 'include mime.types; types { text/javascript mjs; }'
const fallback = 'location / { try_files $uri $uri/ /index.html; }'
const at = { host: null, site: 'https://skerryline.example/' }

const published = (text: string, more: Readonly<Record<string, string>> = {}) =>
  project('', { Dockerfile: undefined, 'nginx.conf': undefined, 'dist/.htaccess': text, ...more })

describe('a project with rules for another kind of host', () => {
  const rules = { 'dist/rules.txt': '/*  /index.html  200\n' }
  checkCases('route/', {
    'beside an .htaccess that has no fallback': {
      files: published('Options -Indexes\n', rules),
      ...at,
      finds: [],
    },
    'beside an nginx configuration that no container copies': {
      files: { ...project(server(types)), Dockerfile: undefined, ...rules },
      ...at,
      finds: [],
    },
    'beside one that a container copies': {
      files: { ...project(server(types)), ...rules },
      ...at,
      finds: ['route/no-answer blocker ×1'],
    },
  })
})

describe('what the configuration hands on', () => {
  const api = (inside: string) => ({
    ...project(server(`${types} ${fallback} ${inside}`)),
    'vite.config.js': 'export default { base: "/", server: { proxy: { "/api": "http://localhost:8787" } } }',
    'src/api.js': 'fetch("/api/sailings")',
    'dist/assets/app-AbCdEf12.js': 'fetch("/api/sailings")',
    'dist/assets/part-AbCdEf34.mjs': undefined,
  })
  checkCases('endpoint/proxy-only', {
    'is no fault of the build': {
      files: api('location /api/ { proxy_pass http://api:8080; }'),
      ...at,
      finds: [],
    },
    'nothing: the fallback answers': {
      files: api(''),
      ...at,
      finds: ['endpoint/proxy-only blocker ×1'],
      says: ['the entry page and status 200, which looks like success'],
    },
  })
})

describe('the .htaccess files of the folder are its host', () => {
  checkCases(['route/', 'asset/', 'base/', 'fresh/page-kept'], {
    'a fallback of rules': {
      files: published(
        'RewriteEngine On\nRewriteCond %{REQUEST_FILENAME} !-f\nRewriteCond %{REQUEST_FILENAME} !-d\nRewriteRule . /index.html [L]\n',
      ),
      ...at,
      finds: [],
    },
    'none: what to write is said': {
      files: published('Options -Indexes\n'),
      ...at,
      // The server's own configuration, which is not at hand, may have a fallback.
      finds: ['route/no-answer caution ×1'],
      says: [
        'The host \\".htaccess\\" answers /harbours with 404: there is no such file. The configuration of the server itself is not at hand, and may say more.',
        'In .htaccess, write  FallbackResource /index.html',
      ],
    },
    'none, in a file that the build copies: the line is an edit of it': {
      files: published('# Skerry Line\nOptions -Indexes\n', {
        'public/.htaccess': '# Skerry Line\nOptions -Indexes\n',
      }),
      ...at,
      finds: ['route/no-answer caution ×1'],
      says: [
        'In public/.htaccess, in front of line 1, write  FallbackResource /index.html',
        '"write":"FallbackResource /index.html\\n# Skerry Line"',
      ],
    },
    'rules that go round for ever': {
      files: published('RewriteEngine On\nRewriteRule . /index.html [L]\n'),
      ...at,
      finds: ['asset/withheld blocker ×2', 'route/no-answer blocker ×2'],
      says: ['answers / with 500: RewriteRule at .htaccess:2.'],
    },
    'a directory has its own': {
      files: published('FallbackResource /index.html\n', {
        'dist/assets/.htaccess': 'FallbackResource disabled\n',
      }),
      ...at,
      finds: [],
    },
    'pages that are kept': {
      files: published(
        'FallbackResource /index.html\nExpiresActive On\nExpiresByType text/html "access plus 1 month"\n',
      ),
      ...at,
      finds: ['fresh/page-kept caution ×2'],
      says: ['lets browsers keep index.html for 30 days'],
    },
    'what is not followed': {
      files: published(
        '<If "%{HTTP_HOST} == \'x\'">\nFallbackResource /x.html\n</If>\nFallbackResource /index.html\n',
      ),
      ...at,
      finds: ['route/host-unclear caution ×2'],
      says: ['Not followed: <if> (.htaccess:1).'],
    },
  })
})

describe("the project's own nginx is the host", () => {
  checkCases(['route/', 'asset/', 'base/', 'fresh/page-kept'], {
    'a fallback that is there': { files: project(server(`${types} ${fallback}`)), ...at, finds: [] },
    'none: the line to write is an edit of that file': {
      files: project(server(`${types} location / { index index.html; }`)),
      ...at,
      finds: ['route/no-answer blocker ×1'],
      says: [
        'The host \\"nginx.conf\\" answers /harbours with 404: there is no such file.',
        'In nginx.conf, after line 4, write  try_files $uri $uri/ /index.html;',
        '"file":"nginx.conf","line":4,"instead":"location / {"',
      ],
    },
    'no location at all: one is written': {
      files: project(server(types)),
      ...at,
      finds: ['route/no-answer blocker ×1'],
      says: ['after line 1, write  location / { try_files $uri $uri/ /index.html; }'],
    },
    'a fallback that ends in an error': {
      files: project(server(`${types} location / { try_files $uri $uri/ =404; }`)),
      ...at,
      finds: ['route/no-answer blocker ×1'],
      says: [
        'In nginx.conf:4, write  try_files $uri $uri/ /index.html;  in place of  try_files $uri $uri/ =404;',
      ],
    },
    'a program answers: nothing is proved': {
      files: project(server(`${types} location / { content_by_lua_file app.lua; }`)),
      ...at,
      finds: ['route/host-unclear caution ×2', 'route/no-answer caution ×1'],
      says: ['Not followed: content_by_lua_file (nginx.conf:4).'],
    },
    'what is not followed, and no request comes to': {
      files: project(server(`${types} ${fallback} location /admin/ { content_by_lua_file app.lua; }`)),
      ...at,
      finds: ['route/host-unclear note ×1'],
    },
    'a module without a type': {
      files: project(server(fallback)),
      ...at,
      finds: ['asset/wrong-type blocker ×1'],
      says: [
        'sends 1 file with the type application/octet-stream (assets/part-AbCdEf34.mjs)',
        'In nginx.conf, after line 1, write  types { text/javascript mjs; } include mime.types;',
      ],
    },
    'a whole configuration without types': {
      files: project(`events {}\nhttp {\n${server(fallback)}}\n`, {
        'dist/index.html': page('<link rel="stylesheet" href="/a-AbCdEf12.css">'),
        'dist/a-AbCdEf12.css': 'a{}',
      }),
      ...at,
      finds: ['asset/wrong-type blocker ×1'],
      says: ['Browsers refuse the style sheet'.toLowerCase(), 'with the type text/plain (a-AbCdEf12.css)'],
    },
    'a program without a type': {
      files: project(
        `events {}\nhttp { types { text/html html; text/javascript js mjs; }\n${server(fallback)}}\n`,
        {
          'dist/assets/app-AbCdEf12.js': 'fetch(new URL("./tide-AbCdEf12.wasm", import.meta.url))',
          'dist/assets/tide-AbCdEf12.wasm': 'asm',
          'dist/assets/part-AbCdEf34.mjs': undefined,
        },
      ),
      ...at,
      finds: ['asset/wrong-type caution ×1'],
      says: ['with the type text/plain (assets/tide-AbCdEf12.wasm)'],
    },
    'pages that are kept for a year': {
      files: project(server(`${types} location / { expires 1y; try_files $uri /index.html; }`)),
      ...at,
      finds: ['fresh/page-kept caution ×2'],
      says: ['lets browsers keep index.html for 365 days without asking again'],
    },
    'only hashed files are kept': {
      files: project(
        server(
          `${types} ${fallback} location /assets/ { expires 1y; add_header Cache-Control "public, immutable"; }`,
        ),
      ),
      ...at,
      finds: [],
    },
    'kept by a map of types': {
      files: project(
        `map $sent_http_content_type $expires { default off; text/html epoch; ~javascript max; }\n${server(`${types} expires $expires; ${fallback}`)}`,
      ),
      ...at,
      finds: [],
    },
    'a container copies the folder below the path': {
      files: project(server('location /crossings/ { try_files $uri /crossings/index.html; }'), {
        Dockerfile: container.replace('html\nCOPY', 'html/crossings\nCOPY'),
        'vite.config.js': 'export default { base: "/crossings/" }',
        'dist/index.html': page('<script type="module" src="/crossings/assets/app-AbCdEf12.js"></script>'),
        'dist/assets/app-AbCdEf12.js': '1',
      }),
      host: null,
      site: 'https://skerryline.example/crossings/',
      finds: [],
    },
    'a container copies it to the top, where the path is not looked for': {
      files: project(server('location /crossings/ { try_files $uri /crossings/index.html; }'), {
        'vite.config.js': 'export default { base: "/crossings/" }',
        'dist/index.html': page('<script type="module" src="/crossings/assets/app-AbCdEf12.js"></script>'),
        'dist/assets/app-AbCdEf12.js': '1',
      }),
      host: null,
      site: 'https://skerryline.example/crossings/',
      finds: ['project/misplaced blocker ×2'],
      says: [
        'Dockerfile:5 copies dist to /usr/share/nginx/html, and nginx.conf looks for /crossings/ in /usr/share/nginx/html/crossings.',
        '"file":"Dockerfile","line":5,"instead":"/usr/share/nginx/html","write":"/usr/share/nginx/html/crossings"',
      ],
    },
    'a server that only hands on describes no host of files': {
      files: project(server('location / { proxy_pass http://app:3000; }')),
      ...at,
      finds: ['route/no-answer caution ×1'],
      says: ['no host was named, so plain files are assumed'],
    },
    'configurations of development, and several, are none': {
      files: project('', {
        Dockerfile: undefined,
        'nginx.conf': undefined,
        'nginx.dev.conf': server(`${types} ${fallback}`),
        'docker/nginx-a.conf': server(`${types} ${fallback}`),
        'docker/nginx-b.conf': server(`${types} ${fallback}`),
      }),
      ...at,
      finds: ['route/no-answer caution ×1'],
    },
    'a fallback that the folder does not hold': {
      files: project(server(`${types} location / { try_files $uri $uri/ /app.html; }`)),
      ...at,
      finds: ['route/no-answer blocker ×1', 'route/rule-misses caution ×1'],
      says: ['nginx.conf falls back on it, and dist does not hold app.html.'],
    },
    'an alias without its slash': {
      files: project(server(`${types} location /docs/ { alias /srv/docs; } ${fallback}`)),
      ...at,
      finds: ['route/rule-misses caution ×1'],
      says: ['looks for /srv/docsapp.js'],
    },
    'an alias that ends as its location does': {
      files: project(
        server(
          `${types} location /docs/ { alias /srv/docs/; } location /more { alias /srv/more; } ${fallback}`,
        ),
      ),
      ...at,
      finds: [],
    },
    'a location behind the same one': {
      files: project(
        server(
          `${types} ${fallback} location ~ \\.png$ { expires 1d; } location ~ \\.png$ { expires 2d; } location ~* \\.png$ { expires 3d; }`,
        ),
      ),
      ...at,
      finds: ['route/rule-misses caution ×1'],
      says: ['is never met: the one at line 4 is the same'],
    },
    'a page for what is not found that is there, and one of a name': {
      files: project(
        server(
          `${types} error_page 404 /404.html; error_page 500 @lost; location @lost { return 404; } ${fallback}`,
        ),
        {
          'dist/404.html': page('Lost'),
        },
      ),
      ...at,
      finds: [],
    },
    'a broken configuration is said': {
      files: project(`${server(`${types} ${fallback}`)}}\n`),
      ...at,
      finds: ['route/host-unclear note ×1'],
      says: ['a \\"}\\" closes nothing (nginx.conf:6)'],
    },
  })
})
