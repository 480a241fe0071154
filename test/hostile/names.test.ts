import { expect, test } from 'vitest'
import { presetNamed } from '../../src/core/host/presets.ts'
import { MemoryFolder } from '../../src/core/model/memory-folder.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { check } from '../../src/core/pipeline/check.ts'

const page = (b: string): string => `<!doctype html><html><body>${b}</body></html>`
const S = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
/** Members of every object. */
const names = [
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  'valueOf',
  'prototype',
  '__defineGetter__',
  'isPrototypeOf',
]
const P = (more: Record<string, string>): Record<string, string> => ({
  'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'dist/index.html': page(S),
  'dist/assets/app-AbCdEf12.js': 'x()',
  ...more,
})
/** A folder for each reader, with a name that every object has wherever a name may stand. */
const foldersWith = (n: string): Record<string, Record<string, string>> => ({
  html: {
    'index.html': page(
      `<${n} ${n}="x" src="a.png"><a ${n} href="/b/${n}">x</a><img src="${n}"><meta name="${n}" content="/x"><input type="${n}"><link rel="${n}" href="${n}">`,
    ),
  },
  file: {
    'index.html': page(`<script src="/b/${n}"></script><img src="/b/x.${n}">`),
    [n]: 'x',
    [`x.${n}`]: 'y',
    [`${n}/index.html`]: page(''),
  },
  importmap: {
    'index.html': page(
      `<script type="importmap">{"imports":{"${n}":"/b/a.js"},"scopes":{"${n}":{"${n}":"/x"}},"integrity":{"${n}":"sha"}}</script><script type="module">import "${n}"</script>`,
    ),
    'a.js': '',
  },
  manifest: {
    'index.html': page('<link rel=manifest href=/b/m.webmanifest>'),
    'm.webmanifest': `{"${n}":{"icons":[{"src":"${n}"}]},"icons":[{"${n}":1,"src":"i.png"}],"shortcuts":[{"url":"${n}"}]}`,
  },
  code: {
    'index.html': page(S),
    'assets/app-AbCdEf12.js': `a.u=e=>({${n}:"x","${n}":"y"}[e])+".js";a.p="/b/";a.e("${n}");fetch(window.${n});var ${n.replace(/^__/, 'x__')}="http://localhost:1";fetch({${n}:"http://localhost:2"}.${n});el.setAttribute("${n}","/x");new ${n}("http://localhost:3");${n}({url:"http://localhost:4"});x.${n}("http://localhost:5");import("./${n}.js")`,
  },
  pkg: P({
    'package.json': `{"scripts":{"${n}":"vite build","build":"npm run ${n}"},"devDependencies":{"vite":"8","${n}":"1"},"dependencies":{"${n}":"${n}"},"${n}":{"a":1},"workspaces":["${n}"]}`,
  }),
  env: P({
    '.env.production': `${n}=secret-k3y-12345678\nVITE_${n}=abc12345x\nVITE_X=\${${n}}\n`,
    'src/a.js': `x(import.meta.env.${n},import.meta.env.VITE_${n},process.env["${n}"]);const {${n}:q}=import.meta.env`,
  }),
  cfg: P({
    'vite.config.js': `export default {${n}:1,"${n}":{base:"/x/"},base:{a:"/b/"}.${n},define:{"${n}":process.env.${n}},server:{proxy:{"${n}":"http://localhost:1","/${n}":{target:"x"}}},build:{${n}:{}}}`,
  }),
  json: P({
    'tsconfig.json': `{"compilerOptions":{"paths":{"${n}":["x"]},"baseUrl":"."}}`,
    'wardoscope.config.json': `{"${n}":1}`,
  }),
  yaml: P({ '.ci/deploy.yml': `${n}:\n  ${n}: x\nenv:\n  ${n}: y\n  VITE_A: z\nvariables:\n  ${n}: q` }),
  toml: P({
    'deploy.toml': `${n.startsWith('__') ? `"${n}"` : n} = 1\n["${n}"]\n"${n}" = { "${n}" = "x" }\n[build.environment]\n"${n}" = "v"`,
  }),
  rules: {
    ...{ 'index.html': page(`<a href="/b/${n}/x">x</a>`) },
    _redirects: `/:${n}/* /x/:${n} 200\n/${n} /:splat 301\n`,
  },
  routes: P({
    'src/router.js': `import {createRouter} from 'vue-router';createRouter({routes:[{path:'/:${n}',name:'${n}',children:[{path:'${n}'}]}]})`,
  }),
  css: {
    'index.html': page(''),
    'a.css': `@${n} { a: url(${n}) } @font-face{font-family:${n};src:url(${n}.woff2) format("${n}")}`,
  },
  map: {
    'index.html': page(S),
    'assets/app-AbCdEf12.js': `fetch("http://localhost:9")\n//# sourceMappingURL=${n}.map`,
    [`assets/${n}.map`]: `{"version":3,"sources":["${n}"],"names":["${n}"],"mappings":"AAAA","${n}":1,"sourcesContent":["x"]}`,
  },
  feed: {
    'index.html': page(''),
    'sitemap.xml': `<${n}><loc>https://skerryline.example/b/${n}</loc></${n}>`,
  },
  docker: P({
    Dockerfile: `FROM node AS ${n}\nARG ${n}=1\nENV ${n}=2\nCOPY --from=${n} ${n} /usr/share/nginx/html`,
  }),
  nginx: P({
    'nginx.conf': `map $uri $${n} { ${n} ${n}; default ""; }\nserver { root /srv; set $${n} 1; if ($${n}) { return 302 /$${n}; } location /${n} { ${n} on; } types { text/${n} ${n}; } }`,
  }),
  htaccess: {
    'index.html': page(S),
    '.htaccess': `${n} On\nRewriteEngine On\nRewriteCond %{${n}} x\nRewriteRule ^${n}$ /x [${n}]\nAddType text/${n} .${n}\nExpiresActive On\nExpiresByType ${n} "access plus 1 ${n}"\nErrorDocument ${n} /x\n`,
  },
})

const all = names.flatMap((name) =>
  Object.entries(foldersWith(name)).map(([what, files]) => [name, what, files] as const),
)

test.each(all)('%s as a name in: %s', async (name, _, files) => {
  const site = parseSite('https://skerryline.example/b/')
  const isConfigured = 'nginx.conf' in files || '.htaccess' in files
  const host = isConfigured ? null : presetNamed('fallback')
  const environment = { [name]: 'x', [`VITE_${name}`]: 'v' }
  const looked = check(new MemoryFolder(files), { site, host, environment })
  const said = await looked.then(
    (report) => JSON.stringify(report),
    (error: Error) => error.name,
  )
  // A report, or one sentence of ours.
  expect(said).toMatch(/^(?:\{|FolderError$|UsageError$|SyntaxProblem$)/)
})
