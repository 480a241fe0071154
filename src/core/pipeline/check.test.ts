import { expect, test } from 'vitest'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import type { Report } from '../model/report.ts'
import { parseSite } from '../model/site.ts'
import { check } from './check.ts'

const manifest = '{"name":"x","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}'
const site = parseSite('https://skerryline.example/b/')
const page = (head: string): string => `<!doctype html><head>${head}</head>`

async function run(
  files: Record<string, string>,
  { host = 'fallback', routes = [] as string[], at = site } = {},
): Promise<Report> {
  return check(new MemoryFolder(files), { site: at, host: presetNamed(host), routes })
}

/** `code severity ×places`, for comparing whole results. */
function codes({ findings }: Report): string[] {
  return findings.map(({ code, severity, count }) => `${code} ${severity} ×${count}`)
}

const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
const sound = {
  'index.html': page(script),
  'assets/app-AbCdEf12.js': 'import("./lazy-AbCdEf12.js")',
  'assets/lazy-AbCdEf12.js': '',
}

interface Case {
  readonly files: Record<string, string>
  readonly host?: string
  readonly routes?: string[]
  readonly finds: string[]
}

const cases: Record<string, Case> = {
  'a sound folder': { files: sound, finds: [] },
  'a folder with no reference to its own base': { files: { 'index.html': page('') }, finds: [] },
  'a missing script': {
    files: { 'index.html': page(script) },
    finds: ['asset/answered-with-page blocker ×1'],
  },
  'a missing script on plain files': {
    files: { 'index.html': page(script) },
    host: 'files',
    finds: ['asset/missing blocker ×1'],
  },
  'a missing lazy chunk, requested twice': {
    files: {
      ...sound,
      'assets/lazy-AbCdEf12.js': undefined,
      'assets/app-AbCdEf12.js': 'import("./lazy-AbCdEf12.js");import("./b-AbCdEf12.js")',
      'assets/b-AbCdEf12.js': 'import("./lazy-AbCdEf12.js")',
    } as unknown as Record<string, string>,
    finds: ['asset/answered-with-page blocker ×2'],
  },
  'two missing files are two causes': {
    files: {
      ...sound,
      'index.html': page(`${script}<img src="/b/assets/x.png"><img src="/b/assets/y.png">`),
    },
    finds: ['asset/answered-with-page blocker ×1', 'asset/answered-with-page blocker ×1'],
  },
  'a missing directory is one cause': {
    files: { 'index.html': page('<img src="/b/pics/x.png"><img src="/b/pics/y.png">') },
    finds: ['asset/answered-with-page blocker ×2'],
  },
  'a missing file that only a forgotten script requests': {
    files: { ...sound, 'old/forgotten.js': 'import "./gone.js"' },
    finds: [],
  },
  'a build of relative URLs that fetches a file from the top of the host': {
    files: {
      'index.html': page('<script src="./a.js"></script>'),
      'a.js': 'fetch("/data.json")',
      'data.json': '{}',
    },
    finds: ['base/wrong-path blocker ×1'],
  },
  'a string that looks like a root path, and is only compared with': {
    files: {
      'index.html': page('<script src="./a.js"></script>'),
      'a.js': 'if(e.url==="/data.json")f()',
      'data.json': '{}',
    },
    finds: [],
  },
  'data that nothing in the folder is': {
    files: { 'index.html': page('<script src="/b/a.js"></script>'), 'a.js': 'fetch("/b/data.json")' },
    host: 'files',
    finds: ['asset/missing caution ×1'],
  },
  'a missing icon is slight': {
    files: { ...sound, 'index.html': page(`${script}<link rel=icon href=/b/i.svg>`) },
    finds: ['asset/answered-with-page caution ×1'],
  },
  'a missing picture named in a script': {
    files: { ...sound, 'assets/app-AbCdEf12.js': 'var a=`/b/assets/pic-AbCdEf12.svg`' },
    finds: ['asset/answered-with-page blocker ×1'],
  },
  'a file-like string that names no file': {
    files: { ...sound, 'assets/app-AbCdEf12.js': 'f("/b/api/list.json");g("README.md");h("chart.js")' },
    finds: [],
  },
  'built for another base': {
    files: {
      'index.html': page('<script src="/assets/a.js"></script><link rel=stylesheet href="/assets/a.css">'),
      'assets/a.js': 'x("/assets/p.png")',
      'assets/a.css': '',
      'assets/p.png': '',
    },
    finds: ['base/wrong-path blocker ×3'],
  },
  'built for another base, said in <base>': {
    files: { 'index.html': page('<base href="/"><script src="a.js"></script>'), 'a.js': '' },
    finds: ['base/wrong-path blocker ×1'],
  },
  'a hand-written link that disagrees with the build': {
    files: { ...sound, 'index.html': page(`${script}<img src="/logo.png">`), 'logo.png': '' },
    finds: ['base/wrong-path blocker ×1'],
  },
  'relative URLs in the fallback': {
    files: { 'index.html': page('<script src="./assets/a.js"></script>'), 'assets/a.js': '' },
    routes: ['/sailings/42'],
    finds: ['base/relative-at-depth blocker ×1'],
  },
  'relative URLs, one level only': {
    files: { 'index.html': page('<script src="./assets/a.js"></script>'), 'assets/a.js': '' },
    routes: ['/sailings'],
    finds: [],
  },
  'relative URLs with <base>': {
    files: { 'index.html': page('<base href="/b/"><script src="assets/a.js"></script>'), 'assets/a.js': '' },
    routes: ['/sailings/42'],
    finds: [],
  },
  'a deep link on plain files': {
    files: sound,
    host: 'files',
    routes: ['/sailings', 'harbours/holm'],
    finds: ['route/no-answer blocker ×2'],
  },
  'a folder without an entry document': {
    files: { 'about.html': page('') },
    host: 'files',
    finds: ['route/no-answer blocker ×1'],
  },
  'a call to this machine': {
    files: {
      ...sound,
      'assets/app-AbCdEf12.js':
        'fetch("http://localhost:8787/a");fetch("http://localhost:8787/b");fetch("http://127.0.0.1/c")',
    },
    finds: ['endpoint/loopback blocker ×2', 'endpoint/loopback blocker ×1'],
  },
  "a library's own localhost": {
    files: {
      ...sound,
      'assets/app-AbCdEf12.js':
        'new URL(a,"http://localhost");"http://localhost"===b;throw Error("try http://localhost:3000")',
    },
    finds: [],
  },
  'other hosts and odd URLs': {
    files: {
      ...sound,
      'index.html': page(
        `${script}<script src="https://cdn.example/x.js"></script><img src="data:,x"><img src="http://[">`,
      ),
    },
    finds: [],
  },
}

test.each(Object.entries(cases))('%s', async (_, { files, host, routes, finds }) => {
  const present = Object.fromEntries(Object.entries(files).filter(([, text]) => text !== undefined))
  const report = await run(present, { ...(host ? { host } : {}), ...(routes ? { routes } : {}) })
  expect(codes(report)).toEqual(finds)
  expect(report.verdict).toBe(finds.some((each) => each.includes('blocker')) ? 'held' : 'clear')
})

const project = {
  'package.json': manifest,
  'vite.config.ts': "export default defineConfig({\n  base: '/b/',\n})",
  'src/api.ts':
    'export const load = () => fetch(`${import.meta.env.VITE_API}/v1`)\nclient({ key: import.meta.env.VITE_KEY, size: 2 })',
}

/** One that reads no variable of which the build would have to show what became of it. */
const plain = { ...project, 'src/api.ts': 'export const load = () => fetch(`/v1`)' }

const projectCases: Record<string, Case> = {
  'never built': { files: project, finds: ['project/not-built blocker ×1'] },
  'a variable that was absent': {
    files: {
      ...project,
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': 'fetch(`undefined/v1`);c({key:void 0,size:2})',
    },
    finds: ['env/absent blocker ×2'],
  },
  'variables that were there': {
    files: {
      ...project,
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': 'fetch(`https://api.example/v1`);c({key:`abcdef`,size:2})',
    },
    finds: [],
  },
  'undefined that is not ours': {
    files: {
      ...project,
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': 'a({key:void 0,ref:null});b("undefined");d(typeof x=="undefined")',
    },
    finds: [],
  },
  "a value that is the developer's own machine": {
    files: {
      ...project,
      '.env': 'VITE_API=http://localhost:8787',
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': 'fetch(`http://localhost:8787/v1`);c({key:`abcdef`,size:2})',
    },
    finds: ['endpoint/loopback blocker ×1'],
  },
  "an address in the project's own source, which nothing is seen to ask": {
    files: {
      ...project,
      'src/api.ts': "const host = 'http://localhost:4000'",
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': 'var a=`http://localhost:4000`',
    },
    finds: ['endpoint/loopback caution ×1'],
  },
}

Object.assign(projectCases, {
  'a server build': {
    files: { 'package.json': '{"dependencies":{"next":"16"}}', '.next/server/app/index.html': page(script) },
    finds: ['project/needs-server blocker ×1'],
  },
  'a site one directory further down': {
    files: {
      ...plain,
      'vite.config.ts': "export default defineConfig({\n  base: '/b/',\n  build: { outDir: 'dist' },\n})",
      'dist/browser/index.html': page('<script src="/gone.js"></script>'),
      'dist/notes.txt': '',
    },
    finds: ['project/site-nested blocker ×1'],
  },
  'a page of a larger site whose entry page is gone': {
    files: { ...plain, 'dist/about/index.html': page('<script src="/b/a.js"></script>'), 'dist/a.js': '' },
    host: 'files',
    finds: ['route/no-answer blocker ×1'],
  },
  'several sites side by side, none of them meant': {
    files: { ...plain, 'dist/a/index.html': page(''), 'dist/b/index.html': page('') },
    host: 'files',
    finds: ['route/no-answer blocker ×1'],
  },
  'the sources in place of the build': {
    files: { ...plain, 'dist/index.html': page('<script type="module" src="/src/main.tsx"></script>') },
    finds: ['project/source-published blocker ×1'],
  },
  'a deploy file that names another directory': {
    files: {
      ...project,
      'src/api.ts': '',
      'deploy.json': '{"publish":"public"}',
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': '',
    },
    finds: ['project/publish-mismatch caution ×1'],
  },
  'a pipeline that hands the build a variable names no folder by that': {
    files: {
      ...project,
      'src/api.ts': '',
      'pipeline.yml': 'steps:\n  - run: npm run build\n    environment:\n      SITE_DIR: out/site\n',
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': '',
    },
    finds: [],
  },
  'a deploy file that agrees': {
    files: {
      ...project,
      'src/api.ts': '',
      'deploy.json': '{"publish":"./dist/"}',
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js': '',
    },
    finds: [],
  },
} satisfies Record<string, Case>)

Object.assign(projectCases, {
  'an address that the copy only mentions': {
    files: {
      ...project,
      'src/api.ts': "say('Start it at http://localhost:4000 and wait')",
      'README.md': 'http://localhost:4100',
      'dist/index.html': page(script),
      'dist/assets/app-AbCdEf12.js':
        'say(`Start it at http://localhost:4000 and wait`);x(`http://localhost:4100`)',
    },
    finds: [],
  },
} satisfies Record<string, Case>)

test.each(Object.entries(projectCases))('in a project: %s', async (_, { files, host, finds }) => {
  expect(codes(await run(files, host ? { host } : {}))).toEqual(finds)
})

test('a finding names the line of the configuration and what to write there', async () => {
  const report = await run(
    { ...plain, 'dist/index.html': page('<script src="/b/a.js"></script>'), 'dist/a.js': '' },
    { at: parseSite('https://skerryline.example/') },
  )
  expect(report.findings).toMatchObject([
    {
      code: 'base/wrong-path',
      places: [{ file: 'index.html', line: 1, column: 35, request: 'https://skerryline.example/b/a.js' }],
      source: { file: 'vite.config.ts', line: 2, excerpt: "base: '/b/'," },
      fix: { edits: [{ file: 'vite.config.ts', line: 2, write: "base: '/'," }] },
    },
  ])
  expect(report.findings[0]?.fix.steps.join(' ')).toContain('npm run build')
})

test('without an address the base path of the project is taken, and a host that nobody named proves nothing', async () => {
  const files = {
    ...project,
    'src/api.ts': '',
    'dist/index.html': page(script),
    'dist/assets/app-AbCdEf12.js': '',
  }
  const report = await check(new MemoryFolder(files), { routes: ['/sailings'] })
  expect(report.sites).toMatchObject([
    { address: 'https://site.invalid/b/', base: '/b/', given: false, verdict: 'clear' },
  ])
  expect(codes(report)).toEqual(['route/no-answer caution ×1'])
})

test('a computed base path is said, and the output answers instead', async () => {
  const files = { ...project, 'vite.config.ts': 'export default {\n  base: baseOf(),\n}', 'src/api.ts': '' }
  const report = await check(
    new MemoryFolder({ ...files, 'dist/index.html': page(script), 'dist/assets/app-AbCdEf12.js': '' }),
  )
  expect(report.sites[0]?.base).toBe('/b/')
  expect(report.survey.remarks).toEqual([
    'The base path is computed at vite.config.ts:2 (baseOf()); the output shows /b/.',
  ])
})

test('fingerprints stay the same when hashes change', async () => {
  const built = (hash: string): Record<string, string> => ({
    'index.html': page(`<script src="/b/assets/app-${hash}.js"></script>`),
    'assets/x.txt': '',
  })
  const first = await run(built('AbCdEf12'))
  const second = await run(built('Zz345678'))
  expect(first.findings[0]?.fingerprint).toBe(second.findings[0]?.fingerprint)
})

test('no value of a variable is in the report', async () => {
  const secret = 'wbuc-8f3a-marked-value'
  const files = {
    ...project,
    '.env.production': `VITE_KEY=${secret}\nPRIVATE=${secret}-2`,
    'dist/index.html': page(script),
    'dist/assets/app-AbCdEf12.js': `c({key:\`${secret}\`,size:2});fetch(\`undefined/v1\`)`,
  }
  const report = await run(files)
  expect(report.environment).toMatchObject([
    { name: 'VITE_API', state: 'absent' },
    { name: 'VITE_KEY', state: 'injected', definedIn: [{ file: '.env.production', line: 1 }] },
  ])
  expect(JSON.stringify(report)).not.toContain(secret)
  expect(report.findings[0]?.places[0]?.excerpt).toContain('key:`•••')
})

test('a script that is too large to be followed is listed, where it holds an address', async () => {
  const unreadIn = async (code: string): Promise<readonly string[]> =>
    (
      await check(
        new MemoryFolder({
          'index.html': '<!doctype html><script src="/app.js"></script>',
          'app.js': `${code}/*${'x'.repeat(4_100_000)}*/`,
        }),
        { site: parseSite('https://skerryline.example/'), host: presetNamed('files') },
      )
    ).unread.map(({ file }) => file)
  expect(await unreadIn('const a="http://localhost:8787";')).toEqual(['app.js'])
  expect(await unreadIn('const a="/sailings";')).toEqual([])
})

test.each<[string, Record<string, string>, string[], boolean]>([
  ['one page that starts a script', { 'index.html': page(script), 'assets/app-AbCdEf12.js': '' }, [], true],
  [
    'with a route that was named',
    { 'index.html': page(script), 'assets/app-AbCdEf12.js': '' },
    ['/sailings'],
    false,
  ],
  [
    'pages of their own',
    { 'index.html': page(script), 'about.html': page(''), 'assets/app-AbCdEf12.js': '' },
    [],
    false,
  ],
  [
    'a router behind a hash, which asks nothing of a host',
    {
      'index.html': page(script),
      'assets/app-AbCdEf12.js': 'p(this.x.hash??"#");r=[{path:"a",component:b}]',
    },
    [],
    false,
  ],
  [
    "a router's table in its script",
    { 'index.html': page(script), 'assets/app-AbCdEf12.js': 'r=[{path:"/a",component:b}]' },
    [],
    false,
  ],
  ['one page without a script', { 'index.html': page('') }, [], false],
])('whether the routes of a bare folder are known: %s', async (_, files, routes, said) => {
  const { survey } = await run(files, { routes })
  const remark = expect.stringContaining('routes of this application are not known')
  if (said) expect(survey.remarks).toContainEqual(remark)
  else expect(survey.remarks).not.toContainEqual(remark)
})

test.each([
  ['before it begins', 0],
  ['while files are read', 1],
  ['when all are read', 2],
])('a check that is ended %s throws the reason, and no report', async (_, at) => {
  const ending = new AbortController()
  if (at === 0) ending.abort('enough')
  const files = { 'index.html': page(''), 'about.html': page('') }
  const judged = check(new MemoryFolder(files), {
    signal: ending.signal,
    onProgress: (done) => {
      if (done === at) ending.abort('enough')
    },
  })
  await expect(judged).rejects.toBe('enough')
})
