// Sound folders of many shapes, small enough to be checked thousands of times.
const page = (body, head = '') =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Skerry Line</title>${head}</head><body>${body}</body></html>`
const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'

const bare = {
  'index.html': page(
    '<img src="a.png" srcset="a.png 1x, b.png 2x" loading=lazy><a href="/b/sailings/">Sailings</a><iframe srcdoc="&lt;img src=a.png&gt;"></iframe>',
    `<base href="/b/"><link rel=icon href=favicon.ico><link rel=manifest href=m.webmanifest><link rel=stylesheet href=a.css><link rel=canonical href="https://skerryline.example/b/"><meta http-equiv="content-security-policy" content="connect-src https://api.skerryline.example"><meta http-equiv=refresh content="5; url=/b/sailings/"><script type="importmap">{"imports":{"vue":"/b/vue.js","lib/":"/b/lib/"},"integrity":{"/b/vue.js":"sha256-x"}}</script><script type=module>import "vue";import("lib/a.js")</script>`,
  ),
  'sailings/index.html': page('<form action="/b/search"><input name=q></form>'),
  'a.css':
    '@import "b.css";@font-face{font-family:F;src:url(f.woff2) format("woff2"),url(f.ttf);unicode-range:U+0-FF}body{background:image-set("a.png" 1x, url(b.png) 2x)}',
  'b.css': '@charset "utf-8";a::after{content:"\\201c";background:url(data:image/png;base64,AA==)}',
  'm.webmanifest': '{"name":"Skerry Line","start_url":"/b/","icons":[{"src":"a.png","sizes":"64x64"}]}',
  'sitemap.xml': '<?xml version="1.0"?><urlset><url><loc>https://skerryline.example/b/</loc></url></urlset>',
  'vue.js': 'export const h=()=>{};//# sourceMappingURL=vue.js.map',
  'vue.js.map':
    '{"version":3,"sources":["../src/vue.js"],"sourcesContent":["export const h"],"names":[],"mappings":"AAAA"}',
  'lib/a.js': 'export default 1',
  'a.png': '',
  'b.png': '',
  'f.woff2': '',
  'f.ttf': '',
  'favicon.ico': '',
  'data.json': '{"api":"http://localhost:8787","list":["a.png",{"href":"/b/sailings/"}]}',
  _redirects: '/old/* /b/:splat 301\n/api/* https://api.skerryline.example/:splat 200\n/* /index.html 200\n',
  '404.html': page('Not found'),
}

const bundled = {
  'index.html': page(script),
  'assets/app-AbCdEf12.js':
    'const e="http://localhost:8787",t={api:{base:e}};class r{constructor(n){this.n=n}go(n){return fetch(this.n+`/v1/${n}`)}}new r(t.api.base).go("sailings");var o=void 0;fetch(o+"/v1");const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["assets/b-AbCdEf12.js","assets/b.css"])))=>i.map(i=>d[i]);const l=()=>import("./b-AbCdEf12.js");a.u=e=>"js/"+({1:"x"}[e]||e)+".js";a.p="/b/";createRouter({routes:[{path:"/sailings/:id",component:l}]});navigator.serviceWorker.register("/b/sw.js");new Worker(new URL("w.js",import.meta.url))',
  'assets/b-AbCdEf12.js': 'import{h}from"./app-AbCdEf12.js";export default h',
  'assets/b.css': 'a{color:red}',
  'sw.js': 'importScripts("x.js");self.__WB_MANIFEST=[{"url":"index.html","revision":"1"}]',
  'assets/w.js': 'postMessage(1)',
}

const project = {
  'package.json':
    '{"name":"skerry-line","version":"1.0.0","homepage":"https://skerryline.example/b/","scripts":{"build":"vite build --mode production","prebuild":"node a.js"},"devDependencies":{"vite":"8.0.0","vue":"3.5.0"}}',
  'vite.config.ts':
    'import { defineConfig, loadEnv } from "vite"\nexport default defineConfig(({ mode }) => { const env = loadEnv(mode, process.cwd()); return { base: env.VITE_BASE ?? "/b/", server: { proxy: { "/api": { target: "http://localhost:8787" } } }, define: { A: JSON.stringify(process.env.A) }, build: { outDir: "dist" } } })',
  'tsconfig.json': '{"compilerOptions":{"paths":{"@/*":["./src/*"]}},// note\n}',
  '.env.production':
    'VITE_API=https://api.skerryline.example\nVITE_KEY="k7Qp-x$VITE_API"\nSECRET=s3cr3t-v4lue-12345678\n',
  '.env.development': 'VITE_API=http://localhost:8787\n',
  'src/main.ts':
    'import { createApp } from "vue"\nconst { VITE_API: api = "/api" } = import.meta.env\nfetch(`${api}/v1`, { method: "POST" })\nexport enum E { A = 1 }',
  'src/App.vue':
    '<template><img src="/logo.svg" :href="x"></template><script setup lang="ts">import a from "@/a"</script><style>a{}</style>',
  'src/router.ts':
    'createRouter({ history: createWebHistory(import.meta.env.BASE_URL), routes: [{ path: "/sailings/:id(\\\\d+)?", component: () => import("./a") }] })',
  'public/logo.svg': '<svg xmlns="http://www.w3.org/2000/svg"><image href="a.png"/></svg>',
  'dist/index.html': page(script),
  'dist/assets/app-AbCdEf12.js': 'fetch("https://api.skerryline.example/v1");x("/api/sailings")',
  'dist/logo.svg': '<svg/>',
  Dockerfile:
    'FROM node:22 AS build\nARG VITE_API\nENV VITE_KEY="a b"\nCOPY . .\nRUN npm run build\nFROM nginx\nCOPY --from=build /dist /usr/share/nginx/html',
  'deploy.yml':
    'env:\n  VITE_API: &a https://api.skerryline.example\njobs:\n  - run: npm run build\n    env: { VITE_KEY: *a }\n',
  'deploy.toml':
    '[build]\npublish = "dist"\ncommand = "npm run build"\n[build.environment]\nVITE_API = "x"\n[[redirects]]\nfrom = "/*"\nto = "/index.html"\nstatus = 200\n',
  '.gitignore': 'node_modules\ndist\n*.local\n',
}

const generator = {
  'hugo.toml': 'baseURL = "https://skerryline.example/b/"\n[params]\napi = "x"\n',
  'layouts/index.html': '<a href="{{ "x" | relURL }}">{{ getenv "HUGO_API" }}</a>',
  'public/index.html': page('<a href="/b/x/">x</a>'),
  'public/index.xml': '<rss><channel><link>https://skerryline.example/b/</link></channel></rss>',
}

const exported = {
  'package.json': '{"scripts":{"build":"next build"},"dependencies":{"next":"16.0.0","react":"19.0.0"}}',
  'next.config.mjs': 'export default { output: "export", basePath: "/b", env: { API: process.env.API } }',
  'app/[id]/page.tsx':
    'export default ({ params }) => <img src="/mark.svg" alt={process.env.NEXT_PUBLIC_A} />',
  'out/index.html': page(
    '<script src="/b/_next/static/chunks/main-abc123def456.js" noModule></script><script>self.__next_f.push([1,"5:[\\"a.png\\"]"])</script>',
  ),
  'out/_next/static/chunks/main-abc123def456.js': 'x',
  'out/404.html': page(''),
}

const nginx = {
  'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8","vue-router":"4"}}',
  'vite.config.js': 'export default { base: "/b/" }',
  'src/main.js': 'createRouter({ history: createWebHistory("/b/"), routes: [{ path: "/sailings/:id" }] })',
  Dockerfile:
    'FROM node:22 AS build\nWORKDIR /app\nRUN npm run build\nFROM nginx\nCOPY --from=build /app/dist /srv/b\nCOPY nginx.conf /etc/nginx/conf.d/default.conf\n',
  'nginx.conf':
    'map $uri $moved { default ""; ~^/b/old/(?<page>\\w+)$ /b/$page; }\nserver {\n  listen 80;\n  server_name skerryline.example *.skerryline.example;\n  root /srv;\n  error_page 404 =200 @app;\n  if ($moved) { return 301 $moved; }\n  location /b/ { alias /srv/b/; try_files $uri $uri/ /b/index.html?x=1; expires 1y; }\n  location ~* \\.(js|css)$ { add_header Cache-Control "max-age=31536000"; try_files $uri =404; }\n  location ^~ /api/ { proxy_pass http://api:8080; }\n  location @app { rewrite ^/b/(.*)$ /b/index.html break; }\n  include snippets/*.conf;\n}\n',
  'snippets/a.conf': 'location = /b/a { return 204; }',
  'dist/index.html': page(script),
  'dist/assets/app-AbCdEf12.js': 'import("./m.mjs")',
  'dist/assets/m.mjs': 'export default 1',
}

const httpd = {
  'index.html': page('<a href="/b/sailings/1">1</a><img src="/b/a.png">'),
  'a.png': '',
  'sailings/index.html': page('x'),
  '.htaccess':
    '<IfModule mod_rewrite.c>\nRewriteEngine On\nRewriteBase /b/\nRewriteRule ^index\\.html$ - [L]\nRewriteCond %{REQUEST_FILENAME} !-f [OR]\nRewriteCond %{THE_REQUEST} \\s/(.+)\\.html [NC]\nRewriteRule ^(.*)$ index.html?p=$1 [L,QSA]\n</IfModule>\nErrorDocument 404 /b/404.html\nRedirect 301 /b/old /b/sailings\nRedirectMatch 302 ^/b/x/(\\d+)$ /b/y/$1\nFallbackResource /b/index.html\nExpiresActive On\nExpiresByType text/html "access plus 1 year"\n<FilesMatch "\\.png$">\nHeader set Cache-Control "no-cache"\n</FilesMatch>\n',
  'sailings/.htaccess': 'Options +Indexes\nDirectoryIndex index.html\nAddType text/html .x\n',
}

export const folders = [bare, bundled, project, generator, exported, nginx, httpd]
