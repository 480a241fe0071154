import { expect, test } from 'vitest'
import { checkAlone, page } from '../../../test/support/cases.ts'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { surveyProject } from '../project/survey-project.ts'

/** Frameworks that are read by a table alone: what is said, what is default, and how the base path is set. */
const projects: readonly [
  title: string,
  manifest: Record<string, unknown>,
  files: Record<string, string>,
  readings: readonly unknown[],
  setBase: string,
][] = [
  [
    'Bun, by its command alone',
    { scripts: { build: "bun build ./index.html --outdir=site --public-path=/a/ --env='PUBLIC_*'" } },
    {},
    ['bun', 'site', '/a/', ['PUBLIC_']],
    '--public-path=/b/',
  ],
  [
    'Bun, with the whole environment',
    { scripts: { build: 'bun build ./index.html --outdir site --env=inline' } },
    {},
    ['bun', 'site', './', ['']],
    '--public-path=/b/',
  ],
  [
    'Farm',
    { scripts: { build: 'farm build' }, devDependencies: { '@farmfe/core': '1' } },
    {
      'farm.config.ts': "export default { compilation: { output: { path: 'out', publicPath: '/a/' } } }",
    },
    ['farm', 'out', '/a/', ['FARM_', 'VITE_']],
    "compilation: { output: { publicPath: '/b/' } },",
  ],
  [
    'Waku',
    { scripts: { build: 'waku build' }, dependencies: { waku: '1' }, devDependencies: { vite: '8' } },
    { 'waku.config.ts': "export default { basePath: '/a/', distDir: 'out' }" },
    ['waku', 'out/public', '/a/', ['WAKU_PUBLIC_', 'VITE_']],
    "basePath: '/b/',",
  ],
  [
    'Hexo, with a path of its own',
    { scripts: { build: 'hexo generate' }, dependencies: { hexo: '7' } },
    { '_config.yml': 'url: https://skerryline.example\nroot: /a/\npublic_dir: out\n' },
    ['hexo', 'out', '/a/', []],
    'root: /b/',
  ],
  [
    'Hexo, whose address says the path',
    { scripts: { build: 'hexo generate' }, dependencies: { hexo: '7' } },
    { '_config.yml': 'url: https://skerryline.example/a\n' },
    ['hexo', 'public', '/a', []],
    'url: https://skerryline.example/b/',
  ],
  [
    'Rspack, in the form of webpack',
    { scripts: { build: 'rspack build' }, devDependencies: { '@rspack/cli': '2' } },
    { 'rspack.config.js': "export default { output: { publicPath: '/a/' } }" },
    ['rspack', 'dist', '/a/', []],
    "output: { publicPath: '/b/' },",
  ],
  [
    'Slidev',
    { scripts: { build: 'slidev build --base /a/ --out talk' }, dependencies: { '@slidev/cli': '52' } },
    { 'slides.md': '# Harbours' },
    ['slidev', 'talk', '/a/', ['VITE_']],
    '--base /b/',
  ],
]

test.each(projects)('%s', async (_, manifest, files, readings, setBase) => {
  const project = { 'package.json': JSON.stringify({ name: 's', ...manifest }), ...files }
  const { survey } = (await surveyProject(new MemoryFolder(project))) ?? {}
  expect([
    survey?.framework?.value,
    survey?.publishDirectory?.value,
    survey?.basePath?.value,
    survey?.prefixes?.value,
  ]).toEqual(readings)
  const built = {
    ...project,
    [`${readings[1]}/index.html`]: page('<script type="module" src="/a/app.js"></script>'),
    [`${readings[1]}/app.js`]: '',
  }
  const report = await checkAlone(['base/wrong-path'], new MemoryFolder(built), {
    site: parseSite('https://skerryline.example/b/'),
    host: presetNamed('files'),
  })
  expect(report.findings.map(({ code }) => code)).toEqual(['base/wrong-path'])
  expect(report.findings[0]?.fix.edits.map(({ write }) => write)).toEqual([setBase])
})

test('Hexo leaves what is written in HTML, and puts the base path before pictures of Markdown', async () => {
  const report = await checkAlone(
    ['base/wrong-path'],
    new MemoryFolder({
      'package.json': JSON.stringify({ scripts: { build: 'hexo generate' }, dependencies: { hexo: '7' } }),
      '_config.yml': 'url: https://skerryline.example/b/\n',
      'source/_posts/quay.md': '![quay](/quay.svg) <img src="/pier.svg">\n',
      'public/index.html': page('<img src="/b/quay.svg"><img src="/pier.svg">'),
      'public/quay.svg': '<svg/>',
      'public/pier.svg': '<svg/>',
    }),
    { site: parseSite('https://skerryline.example/b/'), host: presetNamed('files') },
  )
  const edits = report.findings.flatMap(({ fix }) => fix.edits)
  expect(edits.map(({ file, instead, write }) => [file, instead, write])).toEqual([
    ['source/_posts/quay.md', '/pier.svg', '/b/pier.svg'],
  ])
  // Its database holds pages as they were before.
  expect(report.findings[0]?.fix.steps.at(-1)).toBe('Then rebuild: npx hexo clean && npm run build')
})
